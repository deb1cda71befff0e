import { z } from 'zod';
import { Question } from '../kinds';
import { Id, Instant, Line, Text } from './common';

/** What a paper holds; a version is this, frozen. */
export const PaperContent = z.object({
  title: Line,
  instructions: Text,
  questions: Question.array().max(500),
});
export type PaperContent = z.infer<typeof PaperContent>;

/** A quiz or exam as the teacher has it on the desk. */
export const Paper = PaperContent.extend({ id: Id, createdAt: Instant, changedAt: Instant });
export type Paper = z.infer<typeof Paper>;

/** A paper as it was when students sat it. Never changed. */
export const PaperVersion = PaperContent.extend({
  paperId: Id,
  version: z.number().int().min(1),
  frozenAt: Instant,
});
export type PaperVersion = z.infer<typeof PaperVersion>;
