import { z } from 'zod';
import { Id } from '../../basics/common';
import { Option, StudentOption } from '../options';
import { questionFields, studentQuestionFields } from '../QuestionKind';

export const OneChoice = z.object({
  ...questionFields,
  kind: z.literal('oneChoice'),
  options: Option.array().max(50),
  /** Whether each student gets the options in an order of their own. */
  shuffle: z.boolean().optional(),
  /** The right option; null while there is no key. */
  key: Id.nullable(),
  /** Options that are taken as well, each for its share of the points. */
  also: z
    .object({ id: Id, share: z.number().min(0).max(1) })
    .array()
    .max(50)
    .optional(),
});
export type OneChoice = z.infer<typeof OneChoice>;

export const StudentOneChoice = z.object({
  ...studentQuestionFields,
  kind: z.literal('oneChoice'),
  options: StudentOption.array(),
});
export type StudentOneChoice = z.infer<typeof StudentOneChoice>;
