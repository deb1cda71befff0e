import type { PairsResponse, StudentPairsQuestion } from './pairs';
import type { AnswerFilling } from './QuestionKind';

export const pairsFilling: AnswerFilling<Pick<StudentPairsQuestion, 'items'>, PairsResponse> = {
  isBlank: ({ pairs }) => Object.keys(pairs).length === 0,
  isHalf: ({ items }, { pairs }) => items.some(({ id }) => !pairs[id]),
};
