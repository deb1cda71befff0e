import Dexie from 'dexie';
import { desk } from './tables';

/** Says which table of the desk has changed, in whatever tab or worker that was. */
export function onDeskChanged(changed: (table: string) => void): void {
  Dexie.on('storagemutated', (parts) => {
    const tables = Object.keys(parts).flatMap((part) => {
      const [, name, table] = /^idb:\/\/([^/]*)\/([^/]*)/.exec(part) ?? [];
      return name === desk.name && table ? [table] : [];
    });
    for (const table of new Set(tables)) changed(table);
  });
}
