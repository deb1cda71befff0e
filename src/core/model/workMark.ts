import { z } from 'zod';
import { Id, Text } from '../basics/common';

/**
 * One mark on the text of a student's answer. It lies over the text, which never changes, and is about letters of it: where
 * those are others by now, the mark stands by itself.
 */
export const TextMark = z.object({
  id: Id,
  is: z.enum(['struck', 'underlined', 'highlighted', 'inserted', 'words']),
  /** The letters it is about, as UTF-16 counts of the answer's text; nothing between them where something is inserted. */
  from: z.number().int().min(0).max(100_000),
  to: z.number().int().min(0).max(100_000),
  /** The letters themselves. */
  quote: Text,
  /** What is inserted, or said in the margin. */
  text: Text,
});
export type TextMark = z.infer<typeof TextMark>;

/** Nothing of a layer lies farther out than this: a page forty times as high as wide. */
export const farthest = 40_000;

/** So many numbers one mark is made of at most: a longer line keeps fewer of its points. */
export const mostNumbers = 4_000;

/**
 * One mark on a drawing, a photo, a page or a line of maths: vectors in a layer over it, in thousandths of its width from
 * its upper left corner, so that they stay where they were made at any size.
 */
export const LayerMark = z.object({
  id: Id,
  is: z.enum(['pen', 'tick', 'cross', 'arrow', 'note']),
  /** What of the answer it lies on: see `surfaces`. */
  on: z.string().min(1).max(120),
  /** x and y by turns: the line of a pen, the two ends of an arrow, the place of the rest. */
  points: z.number().int().min(-farthest).max(farthest).array().min(2).max(mostNumbers),
  /** What a note says. */
  text: Text,
});
export type LayerMark = z.infer<typeof LayerMark>;

export const WorkMark = z.discriminatedUnion('is', [TextMark, LayerMark]);
export type WorkMark = z.infer<typeof WorkMark>;

/** What is done to the marks on an answer: from those before to those after. */
export type WorkStep = (before: readonly WorkMark[]) => readonly WorkMark[];

/** All marks of one marker on one answer. */
export const WorkMarks = WorkMark.array().max(500);
