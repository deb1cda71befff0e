import type { AnswerFilling } from '../QuestionKind';
import type { TextResponse } from '../textResponse';
import { numberFrom } from './numberFrom';
import type { NumberQuestion, StudentNumberQuestion } from './schema';

export const numberFilling: AnswerFilling<NumberQuestion | StudentNumberQuestion, TextResponse> = {
  isBlank: ({ text }) => text.trim() === '',
  // A number without the unit that is asked for.
  isHalf: (question, { text }) => question.unitAsked === 'required' && numberFrom(text)?.unit === '',
};
