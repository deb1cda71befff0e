import { z } from 'zod';
import { Id, Instant, Line, Text } from '../basics/common';

/**
 * Different answers to one question that the marker holds together, or apart: a pile of one. Members are the texts that
 * equal answers have in common.
 */
export const Pile = z.object({
  id: Id,
  sittingId: Id,
  questionId: Id,
  name: Line,
  members: Text.array().min(1).max(20_000),
  /** Since when its members are marked as one; null: it is only put forward. */
  agreedAt: Instant.nullable(),
});
export type Pile = z.infer<typeof Pile>;
