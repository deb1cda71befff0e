import type { AnswerFilling } from '../QuestionKind';
import type { Ordering, OrderResponse, StudentOrdering } from './schema';

export const orderingFilling: AnswerFilling<Ordering | StudentOrdering, OrderResponse> = {
  isBlank: ({ order }) => order.length === 0,
  isHalf: ({ items }, { order }) => order.length < items.length,
};
