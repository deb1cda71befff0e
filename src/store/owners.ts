import type { Table } from 'dexie';
import { keyOfRow } from '@/core/model/desk';
import { recordedTables, tableNames, type Owner, type TableEntry, type TableName } from '@/core/model/tables';
import type { Recorder } from './command';
import { desk } from './tables';

type Row = Record<string, unknown>;

const ownersOf = (table: TableName): NonNullable<TableEntry['owners']> =>
  (recordedTables[table] as TableEntry).owners ?? {};

/** The rows of a table that hang on one row of another. */
async function owned(table: TableName, owner: Owner, id: string): Promise<Row[]> {
  const field = ownersOf(table)[owner];
  if (field === undefined) return [];
  const rows: Table<Row, unknown> = desk.table(table);
  const indexed = rows.schema.idxByName[field] !== undefined;
  return indexed ? rows.where(field).equals(id).toArray() : rows.filter((row) => row[field] === id).toArray();
}

const isOwner = (table: TableName): table is Owner & TableName =>
  table === 'sittings' || table === 'students' || table === 'attempts' || table === 'papers';

/** Everything that hangs on a row, and on what hangs on it: that first. */
export async function allOwned(owner: Owner, id: string): Promise<{ table: TableName; row: Row }[]> {
  const all: { table: TableName; row: Row }[] = [];
  const seen = new Set<string>();
  const add = async (of: Owner, ofId: string): Promise<void> => {
    for (const table of tableNames)
      for (const row of await owned(table, of, ofId)) {
        const name = [table, ...keyOfRow(table, row)].join('\n');
        if (seen.has(name)) continue;
        seen.add(name);
        if (isOwner(table)) await add(table, String(row.id));
        all.push({ table, row });
      }
  };
  await add(owner, id);
  return all;
}

/** Whether anything hangs on one of many rows of a table: one look at each table, however many they are. */
export async function anyOwned(owner: Owner, ids: readonly string[]): Promise<boolean> {
  for (const table of tableNames) {
    const field = ownersOf(table)[owner];
    if (field === undefined) continue;
    const rows: Table<Row, unknown> = desk.table(table);
    const all = new Set<unknown>(ids);
    const indexed = rows.schema.idxByName[field] !== undefined || rows.schema.primKey.keyPath === field;
    const found = indexed ? rows.where(field).anyOf([...ids]) : rows.filter((row) => all.has(row[field]));
    if (await found.first()) return true;
  }
  return false;
}

/** Takes away everything that hangs on a row, on record; the row itself is the caller's. */
export async function removeOwned(record: Recorder, owner: Owner, id: string): Promise<void> {
  for (const { table, row } of await allOwned(owner, id)) await record.remove(table, keyOfRow(table, row));
}

/** The same for good: nothing of it is on record. */
export async function dropOwned(owner: Owner, id: string): Promise<void> {
  for (const { table, row } of await allOwned(owner, id)) {
    const { keyPath } = desk.table(table).schema.primKey;
    const key = (typeof keyPath === 'string' ? [keyPath] : (keyPath ?? [])).map((path) => row[path]);
    const all: Table<Row, unknown> = desk.table(table);
    await all.delete(key.length === 1 ? key[0] : key);
  }
}

/**
 * Makes what hangs on one student hang on another. Where both have a row of the same key, the one of the student that
 * stays holds.
 *
 * @param apart tables whose rows the caller moves
 * @param joined what one row becomes where both have one of the same key; absent: as the student that stays has it
 */
export async function moveOwned(
  record: Recorder,
  from: string,
  to: string,
  apart: readonly TableName[],
  joined: (table: TableName, kept: Row, other: Row) => Row = (_table, kept) => kept,
): Promise<void> {
  for (const table of tableNames) {
    const field = ownersOf(table).students;
    if (field === undefined || apart.includes(table)) continue;
    for (const row of await owned(table, 'students', from)) {
      const moved = { ...row, [field]: to };
      const [before, after] = [keyOfRow(table, row), keyOfRow(table, moved)];
      if (before.join('\n') === after.join('\n')) {
        await record.put(table, moved);
        continue;
      }
      const kept = (await owned(table, 'students', to)).find(
        (each) => keyOfRow(table, each).join('\n') === after.join('\n'),
      );
      await record.remove(table, before);
      await record.put(table, kept ? joined(table, kept, row) : moved);
    }
  }
}
