import { z } from 'zod';
import type { Question } from '.';

/** What gives the points of a question in place of its key and its marks, once a sitting was repaired. */
export const RepairRule = z.discriminatedUnion('kind', [
  /** Everyone who was given it has all its points. */
  z.object({ kind: z.literal('everyone') }),
  /** The same for those who answered; the others are scored as ever. */
  z.object({ kind: z.literal('answered') }),
  /**
   * It does not count. Either the maximum gets smaller, or it stays and each has of its points the share that they have of
   * the rest.
   */
  z.object({ kind: z.literal('dropped'), maximum: z.enum(['smaller', 'same']) }),
]);
export type RepairRule = z.infer<typeof RepairRule>;

/** What a sitting’s repairs make of a question: put on when a sitting is scored, and never kept in a paper. */
export interface Repaired {
  rule: RepairRule | null;
  /** Where nobody may lose by the repair: the question as it was scored before it, and when it was repaired. */
  floor: { question: Question; at: string } | null;
}
