import { fillOf, type AnswerFill } from '../kinds/fillings';
import type { Question } from '../kinds';
import type { Answer } from '../model/sitting';

/** How far an answer has come; on paper, what is written counts although nobody has typed it. */
export function answerFill(question: Question, answer: Answer | undefined): AnswerFill {
  const fill = fillOf(question, answer?.response);
  return fill === 'open' && isWritten(answer) ? 'done' : fill;
}

/** Whether there is ink on paper where an answer stands. */
export const isWritten = (answer: Answer | undefined): boolean =>
  answer?.pictures?.some(({ empty, boxes }) => !empty && !boxes) ?? false;
