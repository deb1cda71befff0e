import { writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';

/**
 * Writes beside the server which scripts each script of a page imports, however far: `preloads.json`, by their addresses. The
 * server names them at the head of the page, so that all of them are fetched together.
 */
export function preloads() {
  return {
    name: 'gribbet-preloads',
    apply: 'build',
    writeBundle({ dir }, bundle) {
      if (basename(dir) !== 'client') return;
      const addressOf = (file) => `/${file}`;
      const importsOf = (file, seen = new Set()) => {
        for (const each of bundle[file]?.imports ?? [])
          if (!seen.has(each)) {
            seen.add(each);
            importsOf(each, seen);
          }
        return [...seen];
      };
      const pages = Object.values(bundle).filter((each) => each.type === 'chunk' && each.isEntry);
      const named = pages.map(({ fileName }) => [addressOf(fileName), importsOf(fileName).map(addressOf)]);
      writeFileSync(join(dir, '../server/preloads.json'), JSON.stringify(Object.fromEntries(named)));
    },
  };
}
