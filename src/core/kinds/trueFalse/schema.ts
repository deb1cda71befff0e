import { z } from 'zod';
import { Text } from '../../basics/common';
import { questionFields, studentQuestionFields } from '../QuestionKind';

export const TrueFalse = z.object({
  ...questionFields,
  kind: z.literal('trueFalse'),
  /** Which of the two is right; null while there is no key. */
  key: z.boolean().nullable(),
  /** For whoever picks it. */
  commentTrue: Text,
  commentFalse: Text,
});
export type TrueFalse = z.infer<typeof TrueFalse>;

export const StudentTrueFalse = z.object({ ...studentQuestionFields, kind: z.literal('trueFalse') });
export type StudentTrueFalse = z.infer<typeof StudentTrueFalse>;
