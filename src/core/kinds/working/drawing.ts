import { z } from 'zod';
import { fitsASheet, highest } from './strokes';

/** Points of one line, x and y by turns, in units of the sheet. */
export const Stroke = z.number().int().min(0).max(highest).array().min(2);
export type Stroke = z.infer<typeof Stroke>;

/** All lines of a drawing, in the order drawn; bounded, so that an answer stays a row of a table. */
export const Drawing = Stroke.array().refine(fitsASheet);
export type Drawing = z.infer<typeof Drawing>;
