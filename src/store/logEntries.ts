import { groupBy } from '@/core/basics/groupBy';
import type { LogChanges, LogEntry, RowChange } from '@/core/model/log';
import { mayBeLeft } from './assets';
import { ChangedSince, dexieKey, patchBetween, patched, plainRow } from './rowPatches';
import type { DeskDatabase } from './tables';

/** The log of the desk: what was done, and what of it can be undone. */

const joinWithinMs = 8_000;

/** Puts an entry into the log, or into the one before it where they are one run of typing. @returns its number */
export async function writeEntry(
  db: DeskDatabase,
  entry: Omit<LogEntry, 'rows'>,
  changes: RowChange[],
  joins: boolean,
): Promise<number> {
  const last = await db.log.orderBy('seq').last();
  const joinable =
    joins &&
    last?.seq !== undefined &&
    last.command === entry.command &&
    last.tab === entry.tab &&
    last.undoneAt === null &&
    Date.parse(entry.at) - Date.parse(last.at) < joinWithinMs;
  if (!joinable || last.seq === undefined) {
    const seq = await db.log.add({ ...entry, rows: changes.length });
    if (changes.length > 0) await db.logChanges.add({ seq, changes });
    if (seq % tidiedEvery === 0) await tidyLog(db, seq, entry.at);
    return seq;
  }
  const { seq } = last;
  const joined = await squashed(db, [...(await changesOf(db, seq)), ...changes]);
  await db.logChanges.put({ seq, changes: joined });
  await db.log.put({ ...last, at: entry.at, said: entry.said, rows: joined.length });
  return seq;
}

/** The rows that an entry changed, as far as they are kept. */
export const changesOf = async (db: DeskDatabase, seq: number): Promise<LogChanges['changes']> =>
  (await db.logChanges.get(seq))?.changes ?? [];

/** Several patches of one row are one, from how it was to how it is now: a run of typing stays as small as a letter. */
async function squashed(db: DeskDatabase, changes: readonly RowChange[]): Promise<RowChange[]> {
  const byRow = groupBy(changes, ({ table, key }) => [table, ...key].join('\n'));
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
  const patch = patchBetween(table, key, before, after);
  return patch ? [patch] : [];
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
  // What they held may be the last to name a file.
  const gone = await db.logChanges.where('seq').between(from, to).toArray();
  await mayBeLeft(gone, db);
  await db.log.where('seq').between(from, to).modify({ rows: 0 });
  await db.logChanges.where('seq').between(from, to).delete();
  await db.settings.put({ key: tidiedToKey, value: to });
}
