import { z } from 'zod';
import { Id, Line, Text } from '../basics/common';

/** One thing a marker looks for; negative points take off. In a group of levels it is one level. */
export const SchemeLine = z.object({
  id: Id,
  text: Text,
  points: z.number().min(-1000).max(1000),
  /** The group it is in; none: it stands by itself. */
  groupId: Id.optional(),
});
export type SchemeLine = z.infer<typeof SchemeLine>;

/** Scheme lines that belong together: with a cap, or as the levels of one criterion. */
export const SchemeGroup = z.object({
  id: Id,
  text: Line,
  /** `lines`: each counts; `levels`: one is picked, and the points between two of them may be given too. */
  as: z.enum(['lines', 'levels']),
  /** The most that its lines give together; absent: their sum. */
  cap: z.number().min(0).max(1000).optional(),
});
export type SchemeGroup = z.infer<typeof SchemeGroup>;
