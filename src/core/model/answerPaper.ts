import { z } from 'zod';
import { Id, Instant, Line } from '../basics/common';
import { FileRef } from '../basics/file';
import { Rect } from '../basics/rect';

/** Where an answer, or a part of it, stands on a printed page. */
export const Region = Rect.extend({
  questionId: Id,
  /** The row of boxes, or the area to write in. */
  part: Id,
  /** The box to tick; null: it is written in. */
  box: Id.nullable(),
});
export type Region = z.infer<typeof Region>;

/** Printed pages to write on, kept with the map of their regions: later changes of the paper do them no harm. */
export const AnswerPaper = z.object({
  id: Id,
  sittingId: Id,
  paperVersion: z.number().int().min(1),
  at: Instant,
  /** What it is called where there are several: "Version B". */
  name: Line,
  /** Decides the order of what is shuffled. */
  seed: Line,
  /** Questions and options stand in an order of this print's own; absent: as in the paper. */
  mixed: z.literal(true).optional(),
  /** How it is laid out: with its parts and pictures; absent: its questions in words alone, as the first ones were. */
  layout: z.literal(2).optional(),
  /** Boxes and areas alone, beside a paper that students keep; absent: with the questions. */
  form: z.literal('sheet').optional(),
  /** How many figures of a student's number can be ticked on the first page; absent: none. */
  digits: z.number().int().min(1).max(10).optional(),
  /** Printed by somebody else, without codes: its pages as they are blank, and where the name is written. */
  foreign: z
    .object({
      blanks: FileRef.array().min(1).max(60),
      name: Rect.extend({ page: z.number().int().min(1) }).nullable(),
    })
    .optional(),
  /** The regions of each page, in order. */
  pages: Region.array().max(2_000).array().max(60),
  /** Whose each copy is, by its number from 1; null: nobody's yet, the name is written in. */
  copies: Id.nullable().array().max(2_000),
});
export type AnswerPaper = z.infer<typeof AnswerPaper>;
