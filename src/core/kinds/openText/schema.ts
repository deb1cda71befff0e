import { z } from 'zod';
import { Id, Text } from '../../model/common';
import { questionFields, studentQuestionFields } from '../QuestionKind';

/** One thing a marker looks for; negative points take off. */
export const SchemeLine = z.object({ id: Id, text: Text, points: z.number().min(-1000).max(1000) });
export type SchemeLine = z.infer<typeof SchemeLine>;

export const OpenText = z.object({
  ...questionFields,
  kind: z.literal('openText'),
  modelAnswer: Text,
  scheme: SchemeLine.array().max(26),
});
export type OpenText = z.infer<typeof OpenText>;

export const StudentOpenText = z.object({ ...studentQuestionFields, kind: z.literal('openText') });
export type StudentOpenText = z.infer<typeof StudentOpenText>;
