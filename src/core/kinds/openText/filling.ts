import type { TextResponse } from '../textResponse';
import type { OpenText, StudentOpenText } from './schema';
import type { AnswerFilling } from '../QuestionKind';

export const openTextFilling: AnswerFilling<OpenText | StudentOpenText, TextResponse> = {
  isBlank: (response) => response.text.trim() === '',
  workingOf: (question) => question.workingOf,
};
