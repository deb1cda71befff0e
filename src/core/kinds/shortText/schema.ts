import { z } from 'zod';
import { Id, Text } from '../../basics/common';
import { Forgive } from '../forgiving';
import { questionFields, studentQuestionFields } from '../QuestionKind';

export const AcceptedAnswer = z.object({
  id: Id,
  text: Text,
  /** Share of the question's points, 0 to 1. */
  share: z.number().min(0).max(1),
  comment: Text,
  /** `containsAll`: every word or phrase of the text must be in the answer. Otherwise the answer is the text. */
  match: z.enum(['is', 'containsAll']).optional(),
});
export type AcceptedAnswer = z.infer<typeof AcceptedAnswer>;

export const ShortText = z.object({
  ...questionFields,
  kind: z.literal('shortText'),
  accepted: AcceptedAnswer.array().max(200),
  forgive: Forgive,
  /** Whether a slip of the keys is accepted by itself; otherwise it is put forward to the marker. */
  acceptsNearMisses: z.boolean().optional(),
});
export type ShortText = z.infer<typeof ShortText>;

export const StudentShortText = z.object({ ...studentQuestionFields, kind: z.literal('shortText') });
export type StudentShortText = z.infer<typeof StudentShortText>;
