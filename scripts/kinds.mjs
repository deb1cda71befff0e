import { readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

/**
 * Makes the registries of the kinds from `kindList.ts`; with `--check` it only says which of them are not as they would be
 * made. They are apart from each other so that a page loads only what it asks of a kind.
 */

const root = fileURLToPath(new URL('..', import.meta.url));

/** Each registry: where it stands, what it holds of a kind, from which module and by which name. */
const registries = [
  ['src/core/kinds/registry/kinds.ts', 'kinds', '', (name) => name],
  ['src/core/kinds/registry/fillings.ts', 'fillings', '/filling', (name) => `${name}Filling`],
  ['src/core/kinds/registry/sheets.ts', 'sheets', '/sheet', (name) => `${name}Sheet`],
  ['src/core/kinds/registry/qtiForms.ts', 'qtiForms', '/qti', (name) => `${name}Qti`],
  ['src/core/kinds/registry/papers.ts', 'papers', '/paper', (name) => `${name}Paper`],
  ['src/core/kinds/registry/samples.ts', 'samples', '/sample', (name) => `${name}Sample`],
  ['src/islands/kinds/registry/views.ts', 'views', '', (name) => `${name}View`],
  ['src/islands/kinds/registry/editors.ts', 'editors', '/Edit', (name) => `Edit as ${name}`],
  ['src/islands/kinds/registry/prints.ts', 'prints', '/Print', (name) => `Printed as ${name}`],
];

/** @returns the names in the list, in its order */
export function listedKinds() {
  const list = readFileSync(`${root}src/core/kinds/kindList.ts`, 'utf8');
  const [, names = ''] = /kindNames = \[([^\]]*)\]/.exec(list) ?? [];
  return [...names.matchAll(/'(\w+)'/g)].map(([, name]) => name);
}

function registry(what, path, exported) {
  const names = listedKinds();
  const imports = [...names]
    .sort()
    .map((name) => `import { ${exported(name)} } from '../${name}${path}';`)
    .join('\n');
  const own = (name) => exported(name).split(' as ').at(-1);
  const entries = names.map((name) => (own(name) === name ? `  ${name},` : `  ${name}: ${own(name)},`));
  return `// Made from kindList.ts by \`npm run kinds\`: change the list, not this.
${imports}

export const ${what} = {
${entries.join('\n')}
};
`;
}

/** @returns the registries that are not as the list makes them */
export function staleRegistries() {
  return registries.filter(
    ([file, what, path, exported]) =>
      readFileSync(`${root}${file}`, 'utf8') !== registry(what, path, exported),
  );
}

export function makeRegistries() {
  for (const [file, what, path, exported] of registries)
    writeFileSync(`${root}${file}`, registry(what, path, exported));
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  if (!process.argv.includes('--check')) makeRegistries();
  else if (staleRegistries().length > 0) {
    console.error(
      `Not as kindList.ts makes them: ${staleRegistries()
        .map(([file]) => file)
        .join(', ')}. Run: npm run kinds`,
    );
    process.exit(1);
  }
}
