import { z } from 'zod';
import { Id, Text } from '../../model/common';
import { questionFields, studentQuestionFields } from '../QuestionKind';
import { SchemeLine } from '../schemeLine';

export const OpenText = z.object({
  ...questionFields,
  kind: z.literal('openText'),
  modelAnswer: Text,
  scheme: SchemeLine.array().max(26),
  /** The question this is the working of, where it is one. Only made, never stored: see `itemsOf`. */
  workingOf: Id.optional(),
});
export type OpenText = z.infer<typeof OpenText>;

export const StudentOpenText = z.object({
  ...studentQuestionFields,
  kind: z.literal('openText'),
  workingOf: Id.optional(),
});
export type StudentOpenText = z.infer<typeof StudentOpenText>;
