import { z } from 'zod';

/** A way to show the working. */
export const WorkingWay = z.enum(['words', 'maths', 'drawing', 'photo']);
export type WorkingWay = z.infer<typeof WorkingWay>;
