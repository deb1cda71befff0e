import { z } from 'zod';
import { pairsFields, studentPairsFields } from '../pairs';

export const Categories = z.object({ ...pairsFields, kind: z.literal('categories') });
export type Categories = z.infer<typeof Categories>;

export const StudentCategories = z.object({ ...studentPairsFields, kind: z.literal('categories') });
export type StudentCategories = z.infer<typeof StudentCategories>;
