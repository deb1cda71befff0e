import Dexie, { mergeRanges, RangeSet, type ObservabilitySet } from 'dexie';
import { desk } from './tables';

/** Says which table of the desk has changed, in whatever tab or worker that was. */
export function onDeskChanged(changed: (table: string) => void): void {
  onRowsChanged(changed);
}

/**
 * Says which rows of the desk have changed, in whatever tab or worker that was: by table, the ranges in which the keys of
 * rows lie that were added, changed or taken away.
 *
 * @returns ends it
 */
export function onRowsChanged(changed: (table: string, keys: RangeSet) => void): () => void {
  const heard = (parts: ObservabilitySet) => {
    const byTable = new Map<string, RangeSet>();
    for (const [part, ranges] of Object.entries(parts)) {
      // idb://database/table/index: the primary key has no index of a name, and `:dels` are keys of what is gone.
      const [, name, table = '', index] = /^idb:\/\/([^/]*)\/([^/]*)\/(.*)$/.exec(part) ?? [];
      if (name !== desk.name) continue;
      const keys = byTable.get(table) ?? new RangeSet();
      if (index === '' || index === ':dels') mergeRanges(keys, ranges);
      byTable.set(table, keys);
    }
    for (const [table, keys] of byTable) changed(table, keys);
  };
  Dexie.on('storagemutated', heard);
  return () => Dexie.on('storagemutated').unsubscribe(heard);
}
