import jsonPatch, { type Operation } from 'fast-json-patch';
import type { Table } from 'dexie';
import { PatchOperation, type LogEntry, type RowChange, type TableName } from '@/core/model/log';
import type { DeskDatabase } from './tables';
import { desk } from './tables';

type Row = Record<string, unknown>;

/** What a command is called, in code and in words. */
export interface CommandName {
  command: string;
  /** What was done, in words, as the message with undo says it. */
  said: string;
  about?: string | null;
  /** Consecutive commands with the same text within a few seconds are one entry: typing in one field. */
  joins?: string;
}

/** Writes rows and remembers how each was before, so that the command can be logged and undone. */
export class Recorder {
  readonly changes: RowChange[] = [];

  constructor(private readonly db: DeskDatabase) {}

  async add(table: TableName, row: object): Promise<void> {
    const key = keyOf(this.db, table, row);
    await this.db.table(table).add(row);
    this.changes.push({ how: 'added', table, key, row });
    await this.dropStanding(table, row);
  }

  async addAll(table: TableName, rows: readonly object[]): Promise<void> {
    await this.db.table(table).bulkAdd(rows);
    for (const row of rows) this.changes.push({ how: 'added', table, key: keyOf(this.db, table, row), row });
    for (const sittingId of new Set(rows.map((row) => sittingIdOf(table, row))))
      await dropStandings(this.db, sittingId);
  }

  /** Puts a row in place of the one with the same key, or adds it. */
  async put(table: TableName, row: object): Promise<void> {
    const key = keyOf(this.db, table, row);
    const before = (await this.db.table<object>(table).get(dexieKey(key, table))) ?? null;
    if (before === null) return this.add(table, row);
    // Invertible patches carry tests, by which an undo notices that someone has changed the same place since.
    const forth = jsonPatch.compare(before, row, true);
    if (forth.length === 0) return;
    const back = jsonPatch.compare(row, before, true);
    await this.db.table(table).put(row);
    this.changes.push({ how: 'patched', table, key, forth: plain(forth), back: plain(back) });
    await this.dropStanding(table, row);
  }

  async remove(table: TableName, key: string[]): Promise<void> {
    const row = await this.db.table<object>(table).get(dexieKey(key, table));
    if (!row) return;
    await this.db.table(table).delete(dexieKey(key, table));
    this.changes.push({ how: 'removed', table, key, row });
    await this.dropStanding(table, row);
  }

  private async dropStanding(table: TableName, row: object): Promise<void> {
    await dropStandings(this.db, sittingIdOf(table, row));
  }
}

const joinWithinMs = 8_000;

/**
 * Runs a command: one transaction over its changes and its entry in the log. All of it happens, or none.
 *
 * @param now ISO instant, from the edge
 * @returns what `work` returns, with the number of the log entry (null when nothing changed)
 */
export async function runCommand<T>(
  name: CommandName,
  now: string,
  work: (record: Recorder) => Promise<T>,
  db: DeskDatabase = desk,
): Promise<{ result: T; seq: number | null; said: string }> {
  return db.transaction('rw', db.tables, async () => {
    const record = new Recorder(db);
    const result = await work(record);
    if (record.changes.length === 0) return { result, seq: null, said: name.said };
    const entry: LogEntry = {
      at: now,
      who: 'teacher',
      command: name.joins ? `${name.command}:${name.joins}` : name.command,
      said: name.said,
      about: name.about ?? null,
      changes: record.changes,
      undoneAt: null,
    };
    return { result, seq: await writeEntry(db, entry, name.joins !== undefined), said: name.said };
  });
}

/**
 * Several commands as one step: all of them happen or none, and one undo takes them back together.
 *
 * @param said what was done, in words
 */
export async function together<T>(
  name: CommandName,
  now: string,
  work: () => Promise<T>,
  db: DeskDatabase = desk,
): Promise<{ result: T; said: string }> {
  return db.transaction('rw', db.tables, async () => {
    const before = (await db.log.orderBy('seq').last())?.seq ?? 0;
    const result = await work();
    const entries = await db.log.where('seq').above(before).sortBy('seq');
    await db.log.bulkDelete(entries.flatMap(({ seq }) => seq ?? []));
    await db.log.add({
      at: now,
      who: 'teacher',
      command: name.command,
      said: name.said,
      about: name.about ?? null,
      changes: entries.flatMap(({ changes }) => changes),
      undoneAt: null,
    });
    return { result, said: name.said };
  });
}

async function writeEntry(db: DeskDatabase, entry: LogEntry, joins: boolean): Promise<number> {
  const last = await db.log.orderBy('seq').last();
  const joinable =
    joins &&
    last?.seq !== undefined &&
    last.command === entry.command &&
    last.undoneAt === null &&
    Date.parse(entry.at) - Date.parse(last.at) < joinWithinMs;
  if (!joinable || last.seq === undefined) return db.log.add(entry);
  await db.log.put({ ...last, at: entry.at, changes: [...last.changes, ...entry.changes] });
  return last.seq;
}

export interface UndoOutcome {
  outcome: 'undone' | 'nothing' | 'changedSince';
  /** What the command had said it did. */
  said: string;
}

/**
 * Takes back the latest command: whole, or not at all where a row has changed since.
 *
 * @param seq only take it back if it is this one: what a message's button offers
 */
export async function undo(now: string, seq?: number, db: DeskDatabase = desk): Promise<UndoOutcome> {
  let said = '';
  try {
    return await db.transaction('rw', db.tables, async () => {
      const entry = await latestUndoable(db);
      if (!entry) return { outcome: 'nothing', said };
      said = entry.said;
      if (seq !== undefined && entry.seq !== seq) throw new ChangedSince();
      for (const change of [...entry.changes].reverse()) await reverse(db, change);
      await db.log.put({ ...entry, undoneAt: now });
      return { outcome: 'undone', said };
    });
  } catch (error) {
    if (error instanceof ChangedSince) return { outcome: 'changedSince', said };
    throw error;
  }
}

async function latestUndoable(db: DeskDatabase): Promise<LogEntry | undefined> {
  return db.log
    .orderBy('seq')
    .reverse()
    .filter((entry) => entry.undoneAt === null && entry.changes.length > 0)
    .first();
}

class ChangedSince extends Error {}

async function reverse(db: DeskDatabase, change: RowChange): Promise<void> {
  const table: Table<object, unknown> = db.table(change.table);
  const key = dexieKey(change.key, change.table);
  const current = await table.get(key);
  if (change.how === 'removed') {
    if (current) throw new ChangedSince();
    await table.add(change.row as object);
  } else if (!current) throw new ChangedSince();
  else if (change.how === 'added') {
    if (jsonPatch.compare(current, change.row as object).length > 0) throw new ChangedSince();
    await table.delete(key);
  } else await table.put(patched(current, change.back));
  const row = (current ?? (change.how === 'removed' ? change.row : null)) as object | null;
  if (row) await dropStandings(db, sittingIdOf(change.table, row));
}

/** Operations as plain rows of the log. */
const plain = (operations: Operation[]) => PatchOperation.array().parse(operations);

function patched(row: object, operations: readonly object[]): object {
  try {
    return jsonPatch.applyPatch(structuredClone(row), operations as Operation[], true).newDocument;
  } catch {
    throw new ChangedSince();
  }
}

/** The sitting whose standing a row takes part in; 'all' for rows that many sittings may show. */
function sittingIdOf(table: TableName, row: object): string | 'all' | null {
  if (table === 'sittings') return String((row as Row).id);
  if (table === 'students' || table === 'papers' || table === 'groups' || table === 'paperVersions')
    return 'all';
  const id = (row as Row).sittingId;
  return typeof id === 'string' ? id : null;
}

/** Throws away the cached standing of one sitting, or of all. */
export async function dropStandings(db: DeskDatabase, sittingId: string | 'all' | null): Promise<void> {
  if (sittingId === 'all') await db.standings.clear();
  else if (sittingId !== null) await db.standings.delete(sittingId);
}

function keyOf(db: DeskDatabase, table: TableName, row: object): string[] {
  const { keyPath } = db.table(table).schema.primKey;
  const paths = typeof keyPath === 'string' ? [keyPath] : (keyPath ?? []);
  return paths.map((path) => String((row as Row)[path]));
}

/** Keys are kept as text; the version in the key of a paper version is a number again. */
function dexieKey(key: readonly string[], table: TableName): string | (string | number)[] {
  if (table === 'paperVersions') return [key[0] ?? '', Number(key[1])];
  return key.length === 1 ? (key[0] ?? '') : [...key];
}
