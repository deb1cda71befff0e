import { z } from 'zod';
import { Id, Text } from '../../basics/common';
import { Forgive } from '../forgiving';
import { Option, StudentOption } from '../options';
import { questionFields, studentQuestionFields } from '../QuestionKind';
import { AcceptedAnswer } from '../shortText/schema';

/** One gap: typed in against accepted answers, or picked from options. */
export const Gap = z.object({
  id: Id,
  /** Stands for it in the text, as [1]. */
  number: z.number().int().min(1).max(999),
  filledBy: z.enum(['typing', 'picking']),
  accepted: AcceptedAnswer.array().max(100),
  options: Option.array().max(30),
  /** The right option; null while there is no key. */
  key: Id.nullable(),
});
export type Gap = z.infer<typeof Gap>;

export const Gaps = z.object({
  ...questionFields,
  kind: z.literal('gaps'),
  /** The text with its gaps as [1], [2]… */
  text: Text,
  gaps: Gap.array().max(50),
  forgive: Forgive,
});
export type Gaps = z.infer<typeof Gaps>;

export const StudentGap = z.object({
  id: Id,
  number: z.number().int(),
  /** What can be picked; null where it is typed. */
  options: StudentOption.array().nullable(),
});
export type StudentGap = z.infer<typeof StudentGap>;

export const StudentGaps = z.object({
  ...studentQuestionFields,
  kind: z.literal('gaps'),
  text: Text,
  gaps: StudentGap.array(),
});
export type StudentGaps = z.infer<typeof StudentGaps>;

/** What is in each gap, by its id: the text typed, or the id of the option picked. */
export const GapsResponse = z.object({ gaps: z.record(Id, z.string().max(2_000)) });
export type GapsResponse = z.infer<typeof GapsResponse>;
