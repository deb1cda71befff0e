import { z } from 'zod';
import { Id, Line, Text } from '../basics/common';

/** A comment that was put in the comment bank, or taken out of it; what was only typed is found in the marks. */
export const BankComment = z.object({
  id: Id,
  /** The question it is for; null: for all. */
  questionId: Id.nullable(),
  text: Text.min(1),
  /** A short code that finds it at once. */
  code: Line,
  /** What it gives or takes off; null: nothing. */
  points: z.number().min(-1000).max(1000).nullable(),
  /** Not to be offered, though it was typed. */
  removed: z.boolean(),
});
export type BankComment = z.infer<typeof BankComment>;
