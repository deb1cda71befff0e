import { z } from 'zod';
import { pairsFields, studentPairsFields } from '../pairs';

export const Matching = z.object({ ...pairsFields, kind: z.literal('matching') });
export type Matching = z.infer<typeof Matching>;

export const StudentMatching = z.object({ ...studentPairsFields, kind: z.literal('matching') });
export type StudentMatching = z.infer<typeof StudentMatching>;
