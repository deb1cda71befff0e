import { z } from 'zod';
import { Id, Line } from '../basics/common';

/** From where on which grade is given. */
export const GradeLine = z.object({
  grade: Line.min(1),
  /** A share of the maximum, 0 to 1, or points: the least that still has it. */
  from: z.number().min(0).max(100_000),
});
export type GradeLine = z.infer<typeof GradeLine>;

/** Grade lines that belong together: of a sitting, of a mark book, or kept to be used again. */
export const GradeScale = z.object({
  by: z.enum(['percent', 'points']),
  /** In any order; the highest that is reached counts. */
  lines: GradeLine.array().min(1).max(40),
});
export type GradeScale = z.infer<typeof GradeScale>;

/** The grade lines of a sitting. */
export const SittingGrades = GradeScale.extend({ sittingId: Id });
export type SittingGrades = z.infer<typeof SittingGrades>;

/** Grade lines kept under a name. */
export const GradeTemplate = GradeScale.extend({ id: Id, name: Line.min(1) });
export type GradeTemplate = z.infer<typeof GradeTemplate>;
