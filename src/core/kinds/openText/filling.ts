import type { TextResponse } from '../textResponse';
import type { AnswerFilling } from '../QuestionKind';

export const openTextFilling: AnswerFilling<unknown, TextResponse> = {
  isBlank: (response) => response.text.trim() === '',
};
