import { readdirSync } from 'node:fs';
import { join } from 'node:path';

/** What the service worker knows of the app: which build it is, and which pages there are. */
export function offline(root, build) {
  const name = 'virtual:offline';
  return {
    name: 'gribbet-offline',
    resolveId: (id) => (id === name ? `\0${name}` : null),
    load: (id) =>
      id === `\0${name}`
        ? `export const build = ${JSON.stringify(build)}; export const routes = ${JSON.stringify(routesIn(root))};`
        : null,
  };
}

function routesIn(root) {
  const guide = readdirSync(join(root, 'docs/guide')).map(
    (file) => `/guide/${file.replace(/^\d+-|\.md$/g, '')}`,
  );
  const pages = readdirSync(join(root, 'src/pages'), { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.astro') && !/^(404\.|guide\/)/.test(file))
    .map((file) => `/${file.replace(/(^|\/)index\.astro$|\.astro$/, '')}`);
  return [...pages, ...guide].sort();
}
