import { z } from 'zod';
import { Id } from '../../model/common';
import { Option, StudentOption } from '../options';
import { questionFields, studentQuestionFields } from '../QuestionKind';

export const PartPointsRule = z.enum(['allOrNothing', 'rightMinusWrong', 'everyOption']);
export type PartPointsRule = z.infer<typeof PartPointsRule>;

export const SeveralChoices = z.object({
  ...questionFields,
  kind: z.literal('severalChoices'),
  options: Option.array().max(50),
  /** The right options; empty while there is no key. */
  key: Id.array().max(50),
  rule: PartPointsRule,
});
export type SeveralChoices = z.infer<typeof SeveralChoices>;

export const StudentSeveralChoices = z.object({
  ...studentQuestionFields,
  kind: z.literal('severalChoices'),
  options: StudentOption.array(),
});
export type StudentSeveralChoices = z.infer<typeof StudentSeveralChoices>;
