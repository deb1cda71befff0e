import { z } from 'zod';
import { Id, Text } from '../basics/common';

/** One thing a marker looks for; negative points take off. */
export const SchemeLine = z.object({ id: Id, text: Text, points: z.number().min(-1000).max(1000) });
export type SchemeLine = z.infer<typeof SchemeLine>;
