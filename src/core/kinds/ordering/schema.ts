import { z } from 'zod';
import { Id } from '../../basics/common';
import { PairItem } from '../pairs';
import { questionFields, studentQuestionFields } from '../QuestionKind';

export const OrderRule = z.enum(['exact', 'places', 'neighbours', 'pairs']);
export type OrderRule = z.infer<typeof OrderRule>;

export const Ordering = z.object({
  ...questionFields,
  kind: z.literal('ordering'),
  /** In the right order: this order is the key. */
  items: PairItem.array().max(50),
  rule: OrderRule,
  /** The items stand mixed, as each student gets them turned: the key is not here. */
  keyless: z.literal(true).optional(),
});
export type Ordering = z.infer<typeof Ordering>;

export const StudentOrdering = z.object({
  ...studentQuestionFields,
  kind: z.literal('ordering'),
  items: PairItem.array(),
});
export type StudentOrdering = z.infer<typeof StudentOrdering>;

/** The items' ids in the order the student put them; empty: not answered. */
export const OrderResponse = z.object({ order: Id.array().max(50) });
export type OrderResponse = z.infer<typeof OrderResponse>;
