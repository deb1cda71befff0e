import jsonPatch, { type Operation } from 'fast-json-patch';
import type { Table } from 'dexie';
import { PatchOperation, type LogEntry, type RowChange } from '@/core/model/log';
import { recordedTables, type TableEntry, type TableName } from '@/core/model/tables';
import type { DeskDatabase } from './tables';
import { merged, type Clash } from '@/core/basics/merge';
import { keyOfRow } from '@/core/model/desk';
import { allOwned } from './owners';
import { desk } from './tables';

type Row = Record<string, unknown>;

/** Where commands are given: undo takes back what was done in the same tab. */
export interface Tab {
  id: string;
  /** The page that is open, as an address within the app. */
  where: () => string;
}

let tab: Tab | null = null;

/** Says in which tab commands are given from now on. */
export function setTab(next: Tab | null): void {
  tab = next;
}

/** A row as it is stored: a field without a value is a field that is not there. Bytes stay as they are. */
function plainRow<T>(value: T): T {
  if (Array.isArray(value)) return value.map((each: unknown) => plainRow(each)) as T;
  if (value === null || typeof value !== 'object' || Object.getPrototypeOf(value) !== Object.prototype)
    return value;
  const fields = Object.entries(value).filter(([, each]) => each !== undefined);
  return Object.fromEntries(fields.map(([field, each]) => [field, plainRow(each as unknown)])) as T;
}

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

  async add(table: TableName, given: object): Promise<void> {
    const row = plainRow(given);
    const key = keyOfRow(table, row);
    await this.db.table(table).add(row);
    this.changes.push({ how: 'added', table, key, row });
    await dropProgressOf(this.db, table, row);
  }

  async addAll(table: TableName, given: readonly object[]): Promise<void> {
    const rows = given.map(plainRow);
    await this.db.table(table).bulkAdd(rows);
    for (const row of rows) this.changes.push({ how: 'added', table, key: keyOfRow(table, row), row });
    const named = new Map(rows.map((row) => [touched(table, row), row]));
    for (const row of named.values()) await dropProgressOf(this.db, table, row);
  }

  /** Puts a row in place of the one with the same key, or adds it. */
  async put(table: TableName, given: object): Promise<void> {
    const row = plainRow(given);
    const key = keyOfRow(table, row);
    const stored = (await this.db.table<object>(table).get(dexieKey(key, table))) ?? null;
    if (stored === null) return this.add(table, row);
    const before = plainRow(stored);
    // Invertible patches carry tests, by which an undo notices that someone has changed the same place since.
    const forth = jsonPatch.compare(before, row, true);
    if (forth.length === 0) return;
    const back = jsonPatch.compare(row, before, true);
    await this.db.table(table).put(row);
    this.changes.push({ how: 'patched', table, key, forth: plain(forth), back: plain(back) });
    await dropProgressOf(this.db, table, row);
  }

  /**
   * Puts what was changed on top of what is stored now, field by field: another tab may have changed the rest since.
   *
   * @param base the row as it was when it was opened; without it the row is put as it is
   * @returns what was changed in both places, and how the other had it
   */
  async putChanged(table: TableName, row: object, base: object | undefined): Promise<Clash[]> {
    const stored = await this.db.table<object>(table).get(dexieKey(keyOfRow(table, row), table));
    if (!stored || !base) {
      await this.put(table, row);
      return [];
    }
    const { row: joined, clashes } = merged(plainRow(base), plainRow(row), plainRow(stored));
    await this.put(table, joined);
    return clashes.filter(({ path }) => path[0] !== 'changedAt');
  }

  async remove(table: TableName, key: string[]): Promise<void> {
    const row = await this.db.table<object>(table).get(dexieKey(key, table));
    if (!row) return;
    await this.db.table(table).delete(dexieKey(key, table));
    this.changes.push({ how: 'removed', table, key, row });
    await dropProgressOf(this.db, table, row);
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
      ...here(),
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
      ...here(),
    });
    return { result, said: name.said };
  });
}

/** The tab and page of what is done now. */
const here = (): Pick<LogEntry, 'tab' | 'where'> => (tab ? { tab: tab.id, where: tab.where() } : {});

async function writeEntry(db: DeskDatabase, entry: LogEntry, joins: boolean): Promise<number> {
  const last = await db.log.orderBy('seq').last();
  const joinable =
    joins &&
    last?.seq !== undefined &&
    last.command === entry.command &&
    last.tab === entry.tab &&
    last.undoneAt === null &&
    Date.parse(entry.at) - Date.parse(last.at) < joinWithinMs;
  if (!joinable || last.seq === undefined) {
    const seq = await db.log.add(entry);
    if (seq % tidiedEvery === 0) await tidyLog(db, seq, entry.at);
    return seq;
  }
  await db.log.put({
    ...last,
    at: entry.at,
    said: entry.said,
    changes: await squashed(db, [...last.changes, ...entry.changes]),
  });
  return last.seq;
}

/** Several patches of one row are one, from how it was to how it is now: a run of typing stays as small as a letter. */
async function squashed(db: DeskDatabase, changes: readonly RowChange[]): Promise<RowChange[]> {
  const byRow = new Map<string, RowChange[]>();
  for (const change of changes) {
    const name = [change.table, ...change.key].join('\n');
    byRow.set(name, [...(byRow.get(name) ?? []), change]);
  }
  const all: RowChange[] = [];
  for (const of of byRow.values()) all.push(...((await onePatch(db, of)) ?? of));
  return all;
}

/**
 * These changes of one row as one patch, or none where they come to nothing; null where they are not all patches, or something else
 * changed the same place in between.
 */
async function onePatch(db: DeskDatabase, changes: readonly RowChange[]): Promise<RowChange[] | null> {
  const patches = changes.filter((change) => change.how === 'patched');
  const [first] = patches;
  if (!first || patches.length < 2 || patches.length < changes.length) return null;
  const { table, key } = first;
  const stored = await db.table<object>(table).get(dexieKey(key, table));
  if (!stored) return null;
  const after = plainRow(stored);
  let before: object;
  try {
    before = [...patches].reverse().reduce((row, { back }) => patched(row, back), after);
  } catch (error) {
    if (error instanceof ChangedSince) return null;
    throw error;
  }
  const forth = jsonPatch.compare(before, after, true);
  if (forth.length === 0) return [];
  return [
    { how: 'patched', table, key, forth: plain(forth), back: plain(jsonPatch.compare(after, before, true)) },
  ];
}

/** So many of the latest acts can always be undone; of older ones what was done is kept for good, but not each row. */
const undoKept = 200;
const undoKeptMs = 30 * 24 * 3_600_000;
const tidiedEvery = 50;
const tidiedToKey = 'logTidiedTo';

/** Lets go of the rows that old entries of the log hold, from where it stopped the last time. */
async function tidyLog(db: DeskDatabase, seq: number, now: string): Promise<void> {
  const from = Number((await db.settings.get(tidiedToKey))?.value ?? 0);
  const old = new Date(Date.parse(now) - undoKeptMs).toISOString();
  const young = await db.log
    .where('seq')
    .between(from, seq - undoKept)
    .filter(({ at }) => at >= old)
    .first();
  const to = young?.seq ?? Math.max(from, seq - undoKept);
  await db.log.where('seq').between(from, to).modify({ changes: [] });
  await db.settings.put({ key: tidiedToKey, value: to });
}

export interface UndoOutcome {
  /** `changedSince`: it cannot be taken back any more, and is passed over: the next undo takes back what was done before. */
  outcome: 'undone' | 'nothing' | 'changedSince';
  /** What the command had said it did. */
  said: string;
  /** The page on which it was done, where that is known. */
  where: string | null;
}

/**
 * Takes back the latest command of this tab: whole, or not at all where a row has changed since. One that cannot be taken
 * back does not stand in the way of those before it.
 *
 * @param seq take back this one: what a message's button offers
 */
export async function undo(now: string, seq?: number, db: DeskDatabase = desk): Promise<UndoOutcome> {
  const entry = await undoable(db, seq);
  if (entry?.seq === undefined) return { outcome: 'nothing', said: '', where: null };
  const { said, where = null } = entry;
  try {
    return await db.transaction('rw', db.tables, async () => {
      // Another tab may have taken it back meanwhile.
      const kept = await db.log.get(entry.seq ?? 0);
      if (!kept || kept.undoneAt !== null) return { outcome: 'nothing', said, where };
      for (const change of [...kept.changes].reverse()) await reverse(db, change);
      await notOrphaned(kept);
      await db.log.put({ ...kept, undoneAt: now });
      return { outcome: 'undone', said, where };
    });
  } catch (error) {
    if (!(error instanceof ChangedSince)) throw error;
    await db.log.update(entry.seq, { passedAt: now });
    return { outcome: 'changedSince', said, where };
  }
}

/** What undo would take back next in this tab; one done before tabs were told apart is anybody's. */
export async function undoable(db: DeskDatabase = desk, seq?: number): Promise<LogEntry | undefined> {
  const can = ({ undoneAt, changes, passedAt }: LogEntry) =>
    undoneAt === null && changes.length > 0 && passedAt === undefined;
  if (seq !== undefined) {
    const entry = await db.log.get(seq);
    return entry && can(entry) ? entry : undefined;
  }
  return db.log
    .orderBy('seq')
    .reverse()
    .filter((entry) => can(entry) && ofThisTab(entry))
    .first();
}

const ofThisTab = ({ tab: of }: LogEntry) => tab === null || of === undefined || of === tab.id;

/** What was done last in this tab, whether it can be taken back or not. */
export const lastDone = (): Promise<LogEntry | undefined> =>
  desk.log.orderBy('seq').reverse().filter(ofThisTab).first();

/** What was added is gone again: nothing may hang on it that came since. @throws {ChangedSince} */
async function notOrphaned({ changes }: LogEntry): Promise<void> {
  for (const { how, table, key } of changes) {
    if (how !== 'added' || (table !== 'sittings' && table !== 'students' && table !== 'attempts')) continue;
    if ((await allOwned(table, key[0] ?? '')).length > 0) throw new ChangedSince();
  }
}

class ChangedSince extends Error {}

async function reverse(db: DeskDatabase, change: RowChange): Promise<void> {
  const table: Table<object, unknown> = db.table(change.table);
  const key = dexieKey(change.key, change.table);
  const stored = await table.get(key);
  const current = stored && plainRow(stored);
  if (change.how === 'removed') {
    if (current) throw new ChangedSince();
    await table.add(change.row as object);
  } else if (!current) throw new ChangedSince();
  else if (change.how === 'added') {
    if (jsonPatch.compare(current, change.row as object).length > 0) throw new ChangedSince();
    await table.delete(key);
  } else await table.put(patched(current, change.back));
  const row = (current ?? (change.how === 'removed' ? change.row : null)) as object | null;
  if (row) await dropProgressOf(db, change.table, row);
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

/** What a row touches, by name: rows of one name touch the same. */
const touched = (table: TableName, row: object): unknown => {
  const { touches } = recordedTables[table] as TableEntry;
  return typeof touches === 'object' ? (row as Row)[Object.values(touches)[0] ?? ''] : touches;
};

/** Throws away what is cached of the sittings whose progress a row takes part in. */
async function dropProgressOf(db: DeskDatabase, table: TableName, row: object): Promise<void> {
  const { touches } = recordedTables[table] as TableEntry;
  if (touches === 'every sitting') await db.progress.clear();
  else if (touches && 'paper' in touches) {
    const paperId = String((row as Row)[touches.paper]);
    await db.progress.bulkDelete(await db.sittings.where({ paperId }).primaryKeys());
  } else if (touches) await dropProgress(db, String((row as Row)[touches.sitting]));
}

/** Throws away what is cached of one sitting. */
export async function dropProgress(db: DeskDatabase, sittingId: string): Promise<void> {
  await db.progress.delete(sittingId);
}

/** Keys are kept as text; the version in the key of a paper version is a number again. */
function dexieKey(key: readonly string[], table: TableName): string | (string | number)[] {
  if (table === 'paperVersions') return [key[0] ?? '', Number(key[1])];
  return key.length === 1 ? (key[0] ?? '') : [...key];
}
