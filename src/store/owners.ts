import type { Table } from 'dexie';
import type { TableName } from '@/core/model/log';
import type { Recorder } from './command';
import { desk, type DeskTable } from './tables';

/** What a row can hang on: it goes when that goes, and with two students made one it goes over to the one that stays. */
type Owner = 'sittings' | 'students' | 'attempts' | 'papers';

/**
 * By table, the field that names each owner of its rows; none where a row stands by itself or is no part of the desk.
 * Deleting and merging go by this list alone, and a table that is missing in it does not compile.
 */
const owners: Record<DeskTable, Partial<Record<Owner, string>>> = {
  students: { sittings: 'onlySittingId' },
  groups: {},
  papers: {},
  paperVersions: { papers: 'paperId' },
  // A paper with sittings stays: they do not go with it.
  sittings: {},
  allowances: { sittings: 'sittingId', students: 'studentId' },
  attempts: { sittings: 'sittingId', students: 'studentId' },
  marks: { sittings: 'sittingId', attempts: 'attemptId' },
  releases: { sittings: 'sittingId', students: 'studentId' },
  openings: { sittings: 'sittingId', students: 'studentId' },
  requests: { sittings: 'sittingId', students: 'studentId' },
  outbox: { sittings: 'sittingId', students: 'studentId' },
  assets: {},
  bank: {},
  templates: {},
  settings: {},
  log: {},
  // The other side of the link to a server, and what can be computed again.
  carried: {},
  posted: {},
  line: {},
  standings: {},
};

type Row = Record<string, unknown>;

/** The rows of a table that hang on one row of another. */
async function owned(table: DeskTable, owner: Owner, id: string): Promise<Row[]> {
  const field = owners[table][owner];
  if (field === undefined) return [];
  const rows: Table<Row, unknown> = desk.table(table);
  const indexed = rows.schema.idxByName[field] !== undefined;
  return indexed ? rows.where(field).equals(id).toArray() : rows.filter((row) => row[field] === id).toArray();
}

/** The key of a row as the record of commands has it. */
export function keyOf(table: DeskTable, row: object): string[] {
  const { keyPath } = desk.table(table).schema.primKey;
  const paths = typeof keyPath === 'string' ? [keyPath] : (keyPath ?? []);
  return paths.map((path) => String((row as Row)[path]));
}

const isOwner = (table: DeskTable): table is Owner =>
  table === 'sittings' || table === 'students' || table === 'attempts' || table === 'papers';

/** Everything that hangs on a row, and on what hangs on it: that first. */
export async function allOwned(owner: Owner, id: string): Promise<{ table: TableName; row: Row }[]> {
  const all: { table: TableName; row: Row }[] = [];
  const seen = new Set<string>();
  const add = async (of: Owner, ofId: string): Promise<void> => {
    for (const table of Object.keys(owners) as DeskTable[])
      for (const row of await owned(table, of, ofId)) {
        const name = [table, ...keyOf(table, row)].join('\n');
        if (seen.has(name)) continue;
        seen.add(name);
        if (isOwner(table)) await add(table, String(row.id));
        // Only recorded tables have owners.
        all.push({ table: table as TableName, row });
      }
  };
  await add(owner, id);
  return all;
}

/** Takes away everything that hangs on a row, on record; the row itself is the caller's. */
export async function removeOwned(record: Recorder, owner: Owner, id: string): Promise<void> {
  for (const { table, row } of await allOwned(owner, id)) await record.remove(table, keyOf(table, row));
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
  apart: readonly DeskTable[],
  joined: (table: TableName, kept: Row, other: Row) => Row = (_table, kept) => kept,
): Promise<void> {
  for (const table of Object.keys(owners) as DeskTable[]) {
    const field = owners[table].students;
    if (field === undefined || apart.includes(table)) continue;
    const name = table as TableName;
    for (const row of await owned(table, 'students', from)) {
      const moved = { ...row, [field]: to };
      const [before, after] = [keyOf(table, row), keyOf(table, moved)];
      if (before.join('\n') === after.join('\n')) {
        await record.put(name, moved);
        continue;
      }
      const kept = (await owned(table, 'students', to)).find(
        (each) => keyOf(table, each).join('\n') === after.join('\n'),
      );
      await record.remove(name, before);
      await record.put(name, kept ? joined(name, kept, row) : moved);
    }
  }
}
