import { z } from 'zod';
import { Question } from '../kinds';
import { Id, Instant, Line, Points } from '../basics/common';
import { RichText } from '../basics/richText';

/** A run of questions with a title and instructions of its own. */
export const PaperPart = z.object({
  id: Id,
  title: Line,
  instructions: RichText,
  /** How many of its questions each student gets, drawn by chance; null: all. */
  draw: z.number().int().min(1).max(500).nullable(),
  /** Whether each student gets them in an order of their own. */
  shuffle: z.boolean(),
  /** Whether it begins a new page in print. */
  newPage: z.boolean(),
});
export type PaperPart = z.infer<typeof PaperPart>;

/** More is no paper for anyone. */
export const mostQuestions = 500;

/** What a paper holds; a version is this, frozen. */
export const PaperContent = z.object({
  title: Line,
  instructions: RichText,
  questions: Question.array().max(mostQuestions),
  parts: PaperPart.array().max(50).optional(),
  /** Whether each student gets the questions before the first part in an order of their own. */
  shuffle: z.boolean().optional(),
  /** What the points are meant to add up to. */
  wantedPoints: Points.optional(),
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
