import type { Table } from 'dexie';
import type { LogEntry, RowChange } from '@/core/model/log';
import { recordedTables, type TableEntry, type TableName } from '@/core/model/tables';
import type { DeskDatabase } from './tables';
import { merged, type Clash } from '@/core/basics/merge';
import { keyOfRow } from '@/core/model/desk';
import { changesOf, writeEntry } from './logEntries';
import { commandTables, hangingOn, type Command } from './commandTables';
import { groupBy } from '@/core/basics/groupBy';
import { anyOwned } from './owners';
import { ChangedSince, dexieKey, digestOf, patchBetween, patched, plainRow, sameRow } from './rowPatches';
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

/** What a command is called, in code and in words. */
export interface CommandName {
  command: Command;
  /** What was done, in words, as the message with undo says it. */
  said: string;
  about?: string | null;
  /** Consecutive commands with the same text within a few seconds are one entry: typing in one field. */
  joins?: string;
  /** Done by the desk itself: it is on record, and undo passes it over. */
  lasting?: boolean;
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
    await dropProgressOfAll(this.db, table, rows);
  }

  /** Adds many rows that have no field without a value; of each the log keeps a digest and not a second copy. */
  async addMany(table: TableName, rows: readonly object[]): Promise<void> {
    await this.db.table(table).bulkAdd([...rows]);
    for (const row of rows)
      this.changes.push({
        how: 'added',
        table,
        key: keyOfRow(table, row),
        row: undefined,
        digest: digestOf(row),
      });
    await dropProgressOfAll(this.db, table, rows);
  }

  /** Puts a row in place of the one with the same key, or adds it. */
  async put(table: TableName, given: object): Promise<void> {
    const row = plainRow(given);
    const key = keyOfRow(table, row);
    const stored = (await this.db.table<object>(table).get(dexieKey(key, table))) ?? null;
    if (stored === null) return this.add(table, row);
    const before = plainRow(stored);
    const patch = patchBetween(table, key, before, row);
    if (!patch) return;
    await this.db.table(table).put(row);
    this.changes.push(patch);
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
  return db.transaction('rw', scopeOf(db, commandTables[name.command]), async () => {
    const record = new Recorder(db);
    const result = await work(record);
    if (record.changes.length === 0) return { result, seq: null, said: name.said };
    const command = name.joins ? `${name.command}:${name.joins}` : name.command;
    const entry = { ...entryOf(name, now), command };
    return {
      result,
      seq: await writeEntry(db, entry, name.lasting ? [] : record.changes, name.joins !== undefined),
      said: name.said,
    };
  });
}

/** The tables that a change of these takes part in: the log beside them, and the caches that hang on them. */
function scopeOf(db: DeskDatabase, named: readonly TableName[]): Table[] {
  const touching = named.map((table) => (recordedTables[table] as TableEntry).touches);
  const papers = touching.some((touches) => typeof touches === 'object' && 'paper' in touches);
  const names = new Set<string>([
    ...named,
    'log',
    'logChanges',
    'settings',
    'progress',
    ...(papers ? ['sittings'] : []),
  ]);
  return [...names].map((name) => db.table(name));
}

/** What the log says of a command that is done now. */
const entryOf = ({ command, said, about = null }: CommandName, now: string) => ({
  at: now,
  who: 'teacher',
  command,
  said,
  about,
  undoneAt: null,
  ...here(),
});

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
  return db.transaction('rw', scopeOf(db, commandTables[name.command]), async () => {
    const before = (await db.log.orderBy('seq').last())?.seq ?? 0;
    const result = await work();
    const since = (await db.log.where('seq').above(before).primaryKeys()).sort((a, b) => a - b);
    const changes = (await db.logChanges.bulkGet(since)).flatMap((each) => each?.changes ?? []);
    await db.log.bulkDelete(since);
    await db.logChanges.bulkDelete(since);
    await writeEntry(db, entryOf(name, now), changes, false);
    return { result, said: name.said };
  });
}

/** The tab and page of what is done now. */
const here = (): Pick<LogEntry, 'tab' | 'where'> => (tab ? { tab: tab.id, where: tab.where() } : {});

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
  const { seq: number, said, where = null } = entry;
  const tables = new Set(
    (await changesOf(db, number)).flatMap(({ table }) => [table, ...hangingOnRow(table)]),
  );
  try {
    return await db.transaction('rw', scopeOf(db, [...tables]), async () => {
      // Another tab may have taken it back meanwhile.
      const kept = await db.log.get(number);
      if (!kept || kept.undoneAt !== null) return { outcome: 'nothing', said, where };
      const changes = await changesOf(db, number);
      for (const run of runsOf([...changes].reverse()))
        if (run[0]?.how === 'added') await takeAway(db, run);
        else for (const change of run) if (change.how !== 'added') await reverse(db, change);
      await notOrphaned(changes);
      await db.log.put({ ...kept, undoneAt: now });
      return { outcome: 'undone', said, where };
    });
  } catch (error) {
    if (!(error instanceof ChangedSince)) throw error;
    await db.log.update(number, { passedAt: now });
    return { outcome: 'changedSince', said, where };
  }
}

/** What undo would take back next in this tab; one done before tabs were told apart is anybody's. */
export async function undoable(db: DeskDatabase = desk, seq?: number): Promise<LogEntry | undefined> {
  const can = ({ undoneAt, rows, passedAt }: LogEntry) =>
    undoneAt === null && rows > 0 && passedAt === undefined;
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

/** What others may hang something on while it is there. */
const mayBeHungOn = (table: TableName): table is 'sittings' | 'students' | 'attempts' =>
  table === 'sittings' || table === 'students' || table === 'attempts';
const hangingOnRow = (table: TableName): TableName[] => (mayBeHungOn(table) ? hangingOn(table) : []);

/** What was added is gone again: nothing may hang on it that came since. @throws {ChangedSince} */
async function notOrphaned(changes: readonly RowChange[]): Promise<void> {
  const byTable = groupBy(
    changes.filter(({ how }) => how === 'added'),
    ({ table }) => table,
  );
  for (const [table, added] of byTable) {
    if (!mayBeHungOn(table)) continue;
    const ids = added.map(({ key }) => key[0] ?? '');
    if (await anyOwned(table, ids)) throw new ChangedSince();
  }
}

/** So many added rows are taken away together. */
const mostTogether = 500;

/** Changes in their order, added rows of one table together. */
function runsOf(changes: readonly RowChange[]): RowChange[][] {
  const runs: RowChange[][] = [];
  for (const change of changes) {
    const run = runs.at(-1);
    const [first] = run ?? [];
    const joins = change.how === 'added' && first?.how === 'added' && first.table === change.table;
    if (run && joins && run.length < mostTogether) run.push(change);
    else runs.push([change]);
  }
  return runs;
}

/** Takes added rows of one table away again. @throws {ChangedSince} where one has changed */
async function takeAway(db: DeskDatabase, added: readonly RowChange[]): Promise<void> {
  const name = added[0]?.table;
  if (name === undefined) return;
  const table: Table<object, unknown> = db.table(name);
  const keys = added.map(({ key }) => dexieKey(key, name));
  const rows = (await table.bulkGet(keys)).map((row) => row && plainRow(row));
  for (const [at, change] of added.entries()) {
    const row = rows[at];
    if (!row || change.how !== 'added') throw new ChangedSince();
    const same = change.digest ? digestOf(row) === change.digest : sameRow(row, change.row as object);
    if (!same) throw new ChangedSince();
  }
  await table.bulkDelete(keys);
  await dropProgressOfAll(db, name, rows as object[]);
}

async function reverse(db: DeskDatabase, change: Exclude<RowChange, { how: 'added' }>): Promise<void> {
  const table: Table<object, unknown> = db.table(change.table);
  const key = dexieKey(change.key, change.table);
  const stored = await table.get(key);
  const current = stored && plainRow(stored);
  if (change.how === 'removed') {
    if (current) throw new ChangedSince();
    await table.add(change.row as object);
    return dropProgressOf(db, change.table, change.row as object);
  }
  if (!current) throw new ChangedSince();
  await table.put(patched(current, change.back));
  await dropProgressOf(db, change.table, current);
}

/** What a row touches, by name: rows of one name touch the same. */
const touched = (table: TableName, row: object): unknown => {
  const { touches } = recordedTables[table] as TableEntry;
  return typeof touches === 'object' ? (row as Row)[Object.values(touches)[0] ?? ''] : touches;
};

/** The same for many rows of one table: once for those that touch the same. */
async function dropProgressOfAll(db: DeskDatabase, table: TableName, rows: readonly object[]): Promise<void> {
  const named = new Map(rows.map((row) => [touched(table, row), row]));
  for (const row of named.values()) await dropProgressOf(db, table, row);
}

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
