import { z } from 'zod';
import { Id, Instant, Line } from '../basics/common';
import { FileRef } from '../basics/file';

/** What stands in a box: nothing, a tick, a tick that was taken back by filling the box, or what only a person can say. */
export const TickState = z.enum(['empty', 'ticked', 'filled', 'doubtful']);
export type TickState = z.infer<typeof TickState>;

/** One box as it was read, and as somebody settled it. */
export const ScannedBox = z.object({
  state: TickState,
  /** Share of its inside that is ink, 0 to 1. */
  ink: z.number(),
  settled: TickState.exclude(['doubtful']).optional(),
});
export type ScannedBox = z.infer<typeof ScannedBox>;

/** Why nobody knows of a scan which page it is, or where its boxes are. */
export const UnreadScan = z.enum(['noCode', 'otherPrint', 'notStraight', 'extraPage']);
export type UnreadScan = z.infer<typeof UnreadScan>;

/** One scanned page. Its picture is kept apart, as a file. */
export const Scan = z.object({
  id: Id,
  sittingId: Id,
  at: Instant,
  /** The file it came in, by name and by a digest of its bytes, and its place in that, from 1. */
  from: z.object({ file: Line, digest: Line, page: z.number().int().min(1) }),
  /** Set straight where it was read, else as it came. */
  picture: FileRef,
  /** Since when the picture is thrown away. */
  pictureGoneAt: Instant.optional(),
  is: z.enum(['read', ...UnreadScan.options]),
  /** Which page of which copy of which print it is, by its code or by what somebody said; null: nobody knows. */
  place: z.object({ printId: Id, copy: z.number().int().min(1), page: z.number().int().min(1) }).nullable(),
  /** In a pile without codes: that a paper begins with it, or that it is a blank sheet between two. */
  pile: z.enum(['begins', 'between']).optional(),
  /** The student whose code sticks on it. */
  sticker: Id.optional(),
  /** In the order of the boxes of its page. */
  boxes: ScannedBox.array().max(2_000),
  /** Whether there is ink in it, in the order of the areas of its page. */
  areas: z.boolean().array().max(500),
  /** Since when it does not count. */
  thrownOutAt: Instant.optional(),
});
export type Scan = z.infer<typeof Scan>;
