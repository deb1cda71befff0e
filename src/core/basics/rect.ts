import { z } from 'zod';

/** Where on a page something stands, in mm from its upper left corner. */
export const Rect = z.object({ x: z.number(), y: z.number(), w: z.number(), h: z.number() });
export type Rect = z.infer<typeof Rect>;

/** The smallest rectangle around some, with a margin, in the unit of the rectangles. */
export function around(rects: readonly Rect[], margin = 0): Rect {
  const left = Math.min(...rects.map(({ x }) => x)) - margin;
  const top = Math.min(...rects.map(({ y }) => y)) - margin;
  return {
    x: left,
    y: top,
    w: Math.max(...rects.map(({ x, w }) => x + w)) + margin - left,
    h: Math.max(...rects.map(({ y, h }) => y + h)) + margin - top,
  };
}
