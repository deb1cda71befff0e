import { z } from 'zod';
import { Id, Instant, Line } from '../basics/common';
import { ownMarker } from './mark';
import { tableNames } from './tables';

export const RecordedTable = z.enum(tableNames);

export const PatchOperation = z.object({ op: z.string(), path: z.string() }).catchall(z.unknown());

/** One row changed by a command: added whole, taken out whole, or patched (JSON Patch, RFC 6902). */
export const RowChange = z
  .discriminatedUnion('how', [
    z.object({ how: z.literal('added'), table: RecordedTable, key: z.array(z.string()), row: z.unknown() }),
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

/** One thing that was done: who, when, what, and what it changed. */
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
  changes: RowChange.array(),
  undoneAt: Instant.nullable(),
  /** The tab it was done in, and the page that was open there. */
  tab: Id.optional(),
  where: z.string().max(2000).optional(),
  /** Since when it is known that it cannot be taken back: what is older can. */
  passedAt: Instant.optional(),
});
export type LogEntry = z.infer<typeof LogEntry>;
