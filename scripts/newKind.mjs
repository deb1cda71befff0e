import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { listedKinds, makeRegistries } from './kinds.mjs';

/**
 * Lays out a new kind of question: its two folders, its name in the list of kinds, and the registries. What it lays out
 * works (a typed answer with one right one), and is there to be changed.
 *
 *   npm run new-kind -- bearing "Bearing"
 */

const root = fileURLToPath(new URL('..', import.meta.url));
const [name = '', label = ''] = process.argv.slice(2);

if (!/^[a-z][a-zA-Z0-9]*$/.test(name) || !label.trim() || label.includes("'")) {
  console.error(
    'Give the kind a name in camelCase and what teachers call it: npm run new-kind -- bearing "Bearing"',
  );
  process.exit(1);
}
const folders = { core: `${root}src/core/kinds/${name}`, islands: `${root}src/islands/kinds/${name}` };
if (listedKinds().includes(name) || Object.values(folders).some((folder) => existsSync(folder))) {
  console.error(`There is a kind or a folder called ${name} already.`);
  process.exit(1);
}

const called = { $name: name, $Name: name[0].toUpperCase() + name.slice(1), $label: label.trim() };
const filled = (text) => text.replace(/\$(Name|name|label)/g, (word) => called[word]);
for (const [room, folder] of Object.entries(folders)) {
  mkdirSync(folder);
  const forms = `${root}scripts/newKind/${room}/`;
  for (const file of readdirSync(forms))
    writeFileSync(`${folder}/${file.replace(/\.txt$/, '')}`, filled(readFileSync(forms + file, 'utf8')));
}
const list = `${root}src/core/kinds/kindList.ts`;
writeFileSync(list, readFileSync(list, 'utf8').replace('\n] as const;', `\n  '${name}',\n] as const;`));
makeRegistries();
execFileSync(process.execPath, [
  `${root}node_modules/prettier/bin/prettier.cjs`,
  '--write',
  '--log-level',
  'warn',
  ...Object.values(folders),
]);
console.log(
  `Laid out: ${Object.values(folders)
    .map((folder) => folder.slice(root.length))
    .join(', ')}, and a line in src/core/kinds/kindList.ts.`,
);
