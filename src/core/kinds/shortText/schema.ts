import { z } from 'zod';
import { Id, Text } from '../../model/common';
import { questionFields, studentQuestionFields } from '../QuestionKind';

export const AcceptedAnswer = z.object({
  id: Id,
  text: Text,
  /** Share of the question's points, 0 to 1. */
  share: z.number().min(0).max(1),
  comment: Text,
});
export type AcceptedAnswer = z.infer<typeof AcceptedAnswer>;

export const ShortText = z.object({
  ...questionFields,
  kind: z.literal('shortText'),
  accepted: AcceptedAnswer.array().max(200),
  forgive: z.object({ case: z.boolean(), spaces: z.boolean(), accents: z.boolean() }),
});
export type ShortText = z.infer<typeof ShortText>;

export const StudentShortText = z.object({ ...studentQuestionFields, kind: z.literal('shortText') });
export type StudentShortText = z.infer<typeof StudentShortText>;
