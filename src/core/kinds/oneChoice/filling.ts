import type { PickedResponse } from '../options';
import type { AnswerFilling } from '../QuestionKind';

export const oneChoiceFilling: AnswerFilling<unknown, PickedResponse> = {
  isBlank: (response) => response.picked.length === 0,
};
