import { z } from 'zod';
import { Id, Line, Text } from '../../basics/common';
import { questionFields, studentQuestionFields } from '../QuestionKind';

const Value = z.number().refine(Number.isFinite);

export const NumberForm = z.enum(['exact', 'plusMinus', 'percent', 'range']);
export type NumberForm = z.infer<typeof NumberForm>;

/** One accepted number or range of numbers. Several make tiers: within 2 % full points, within 5 % half. */
export const AcceptedNumber = z.object({
  id: Id,
  form: NumberForm,
  /** The number, or the lower end of a range; null while it is not filled in. In the first unit. */
  value: Value.nullable(),
  /** For `plusMinus` in the first unit, for `percent` in percent of the number, 0 or more. */
  tolerance: Value.min(0),
  /** The upper end of a range; null otherwise. */
  upTo: Value.nullable(),
  /** Share of the question's points, 0 to 1. */
  share: z.number().min(0).max(1),
  comment: Text,
});
export type AcceptedNumber = z.infer<typeof AcceptedNumber>;

export const Unit = z.object({
  id: Id,
  /** Spellings that mean it, divided by commas: "nm, M, nautical miles". */
  names: Line,
  /** How many of the first unit one of it is. */
  factor: Value.positive(),
});
export type Unit = z.infer<typeof Unit>;

export const UnitAsked = z.enum(['none', 'optional', 'required']);
export type UnitAsked = z.infer<typeof UnitAsked>;

export const NumberQuestion = z.object({
  ...questionFields,
  kind: z.literal('number'),
  accepted: AcceptedNumber.array().max(50),
  unitAsked: UnitAsked,
  /** The first is the one that the accepted numbers are in. */
  units: Unit.array().max(30),
  /** How precisely it is to be given; null: as one likes. */
  figures: z
    .object({
      of: z.enum(['significant', 'decimals']),
      count: z.number().int().min(0).max(12),
      /** Share of the points it costs to give more or fewer. */
      cost: z.number().min(0).max(1),
    })
    .nullable(),
});
export type NumberQuestion = z.infer<typeof NumberQuestion>;

export const StudentNumberQuestion = z.object({
  ...studentQuestionFields,
  kind: z.literal('number'),
  unitAsked: UnitAsked,
});
export type StudentNumberQuestion = z.infer<typeof StudentNumberQuestion>;
