import { z } from 'zod';
import { Id, Instant, Line } from '../basics/common';
import { ownMarker } from './mark';
import { tableNames } from './tables';

export const RecordedTable = z.enum(tableNames);

export const PatchOperation = z.object({ op: z.string(), path: z.string() }).catchall(z.unknown());

/** One row changed by a command: added whole, taken out whole, or patched (JSON Patch, RFC 6902). */
export const RowChange = z
  .discriminatedUnion('how', [
    z.object({
      how: z.literal('added'),
      table: RecordedTable,
      key: z.array(z.string()),
      row: z.unknown(),
      /** In place of the row, where there are too many to keep twice: by it an undo notices a change. */
      digest: z.string().optional(),
    }),
    z.object({ how: z.literal('removed'), table: RecordedTable, key: z.array(z.string()), row: z.unknown() }),
    z.object({
      how: z.literal('patched'),
      table: RecordedTable,
      key: z.array(z.string()),
      forth: PatchOperation.array(),
      back: PatchOperation.array(),
    }),
  ])
  .transform((change) => withMarker(change));
export type RowChange = z.infer<typeof RowChange>;

/** A change of before marks were keyed with their marker, too: it was the teacher's. */
export function withMarker<C extends { table: string; key: string[]; row?: unknown }>(change: C): C {
  if (change.table !== 'marks' || change.key.length > 2) return change;
  const row = change.row as object | undefined;
  return {
    ...change,
    key: [...change.key, ownMarker],
    ...(row && { row: { markerId: ownMarker, history: [], ...row } }),
  };
}

/** One thing that was done: who, when and what. The rows it changed are apart, so that reading the last of them costs little. */
export const LogEntry = z.object({
  seq: z.number().int().optional(),
  at: Instant,
  who: Line,
  /** The name of the command. */
  command: Line,
  /** What was done, in words. */
  said: z.string().max(2000),
  /** The sitting, paper or group it was about. */
  about: Id.nullable(),
  /** How many changes of rows are kept of it: without any it can't be taken back. */
  rows: z.number().int().min(0),
  undoneAt: Instant.nullable(),
  /** The tab it was done in, and the page that was open there. */
  tab: Id.optional(),
  where: z.string().max(2000).optional(),
  /** Since when it is known that it cannot be taken back: what is older can. */
  passedAt: Instant.optional(),
});
export type LogEntry = z.infer<typeof LogEntry>;

/** The rows that one entry of the log changed. */
export const LogChanges = z.object({ seq: z.number().int(), changes: RowChange.array() });
export type LogChanges = z.infer<typeof LogChanges>;

/** An entry of before its changes stood apart. */
export function splitEntry<E extends { seq?: unknown }>(
  entry: E,
): { entry: Omit<E, 'changes'> & { rows: number }; changes: unknown[] } {
  const { changes = [], ...rest } = entry as E & { changes?: unknown[] };
  // Without a number nothing can be found again by it.
  const kept = typeof entry.seq === 'number' ? changes : [];
  return { entry: { ...rest, rows: kept.length }, changes: kept };
}
