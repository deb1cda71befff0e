import { z } from 'zod';
import { Question } from '../kinds';
import { RepairRule } from '../kinds/repaired';
import { Id, Instant, Line } from '../basics/common';

/**
 * One repair of a question in one sitting, on record. How the question is scored since is in the version of the paper that the
 * sitting has, and in the rule.
 */
export const Repair = z.object({
  id: Id,
  sittingId: Id,
  /** The question of the paper. */
  questionId: Id,
  /** What of it the rule is for: itself, or its working, which is scored apart. */
  itemId: Id,
  at: Instant,
  /** Why; students who have their results back read it. */
  reason: Line,
  rule: RepairRule.nullable(),
  /** Whether nobody has a smaller share of the points by it than before. */
  nobodyLoses: z.boolean(),
  /** The question of the paper as it was before. */
  before: Question,
});
export type Repair = z.infer<typeof Repair>;
