import { z } from 'zod';
import { Id, Text } from '../basics/common';

/**
 * One mark on the text of a student's answer. It lies over the text, which never changes, and is about letters of it: where
 * those are others by now, the mark stands by itself.
 */
export const WorkMark = z.object({
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
export type WorkMark = z.infer<typeof WorkMark>;

/** All marks of one marker on one answer. */
export const WorkMarks = WorkMark.array().max(500);
