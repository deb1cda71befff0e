import { z } from 'zod';
import { Id } from '../basics/common';

/** Shares of marking on the classroom server: it holds them sealed, and opens none. */

/** The most that a share or its marks may be as text, in letters. */
export const mostShareText = 60 * 1024 * 1024;
const Sealed = z.string().min(1).max(mostShareText);
const Code = z.string().min(8).max(100);

/** The desk puts a share there, under the code that opens it. */
export const PutShare = z.object({ code: Code, text: Sealed });
/** A marker asks for the share of a code. */
export const AskShare = z.object({ code: Code });
/** A marker puts the marks of a share there: all of them, in place of those before. */
export const PutMarks = z.object({ code: Code, text: Sealed });
/** A share as its marker gets it. */
export const GotShare = z.object({ id: Id, text: Sealed });

/** Marks that markers put there since the desk last asked. */
export const MarksNews = z.object({
  rev: z.number().int().min(0),
  marks: z.object({ shareId: Id, text: Sealed }).array(),
});
export type MarksNews = z.infer<typeof MarksNews>;
