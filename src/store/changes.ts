import Dexie, { cmp, mergeRanges, RangeSet, type IndexableType, type ObservabilitySet } from 'dexie';
import { desk } from './tables';

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

/** The keys in these ranges; null where one of them holds more than a key, or they are more than `most`. */
export function keysIn(ranges: RangeSet, most: number): IndexableType[] | null {
  const keys: IndexableType[] = [];
  for (const { from, to } of ranges) {
    if (cmp(from, to) !== 0 || keys.length >= most) return null;
    keys.push(from);
  }
  return keys;
}

/** Gathers changed rows by table, until they are taken. */
export class ChangedRows {
  private rows = new Map<string, RangeSet>();

  add(table: string, keys: RangeSet): void {
    const known = this.rows.get(table) ?? new RangeSet();
    mergeRanges(known, keys);
    this.rows.set(table, known);
  }

  has = (table: string): boolean => this.rows.has(table);
  get size(): number {
    return this.rows.size;
  }

  /** What was gathered, which begins anew; of one table, if named, it goes on being gathered. */
  take(but?: string): Map<string, RangeSet> {
    const { rows } = this;
    const left = but === undefined ? undefined : rows.get(but);
    this.rows = new Map(but !== undefined && left ? [[but, left]] : []);
    if (but !== undefined) rows.delete(but);
    return rows;
  }
}
