import { z } from 'zod';
import { Id } from '../../basics/common';
import { Option, StudentOption } from '../options';
import { questionFields, studentQuestionFields } from '../QuestionKind';

export const PartPointsRule = z.enum(['allOrNothing', 'rightMinusWrong', 'everyOption', 'weights']);
export type PartPointsRule = z.infer<typeof PartPointsRule>;

export const SeveralChoices = z.object({
  ...questionFields,
  kind: z.literal('severalChoices'),
  options: Option.array().max(50),
  /** Whether each student gets the options in an order of their own. */
  shuffle: z.boolean().optional(),
  /** The right options; empty while there is no key. */
  key: Id.array().max(50),
  rule: PartPointsRule,
  /** For the rule `weights`: what picking an option gives or takes, as a share of the points, by option id. */
  weights: z.record(Id, z.number().min(-1).max(1)).optional(),
});
export type SeveralChoices = z.infer<typeof SeveralChoices>;

export const StudentSeveralChoices = z.object({
  ...studentQuestionFields,
  kind: z.literal('severalChoices'),
  options: StudentOption.array(),
});
export type StudentSeveralChoices = z.infer<typeof StudentSeveralChoices>;
