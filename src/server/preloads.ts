import { readFileSync } from 'node:fs';
import { join } from 'node:path';

/** By the address of a script that a page names: those that it imports, however far. */
export type ScriptImports = Readonly<Record<string, readonly string[]>>;

/** What the build wrote of them (`scripts/astro/preloads.mjs`); nothing while developing. */
export function builtImports(): ScriptImports {
  const build = process.env.GRIBBET_BUILD;
  if (!build) return {};
  return JSON.parse(readFileSync(join(build, 'server/preloads.json'), 'utf8')) as ScriptImports; // the build's own file
}

/**
 * A page that names at its head all scripts that its islands will import: they are fetched together, and at once, not one
 * after another as each of them is read.
 */
export function withPreloads(html: string, imports: ScriptImports): string {
  const islands = [...html.matchAll(/ (?:component|renderer)-url="([^"]+)"/g)].map(
    ([, address = '']) => address,
  );
  const scripts = new Set(islands.flatMap((address) => [address, ...(imports[address] ?? [])]));
  const links = [...scripts].map((address) => `<link rel="modulepreload" href="${address}">`);
  return html.replace('</head>', () => `${links.join('')}</head>`);
}
