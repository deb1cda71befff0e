import type { TextResponse } from '../textResponse';
import type { AnswerFilling } from '../QuestionKind';

export const shortTextFilling: AnswerFilling<unknown, TextResponse> = {
  isBlank: (response) => response.text.trim() === '',
};
