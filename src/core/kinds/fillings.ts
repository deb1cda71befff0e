import type { KindName, Question, Response, ResponseOf, StudentQuestion, StudentQuestionOf } from './index';
import type { AnswerFilling } from './QuestionKind';
import { fillings } from './registry/fillings';

const fillingsOf: { [K in KindName]: AnswerFilling<StudentQuestionOf<K>, ResponseOf<K>> } = fillings;

/** What a student's page asks of a kind, apart from all else there is to know of it: it comes over a phone's connection. */
function fillingOf(question: Question | StudentQuestion) {
  // A question only ever meets the kind it names, so the wider types are safe here.
  return fillingsOf[question.kind] as AnswerFilling<Question | StudentQuestion, Response>;
}

/** The question that a question is the working of; undefined where it is none. */
export function workingOf(question: Question | StudentQuestion): string | undefined {
  return fillingOf(question).workingOf?.(question);
}

/** How far an answer has come. */
export type AnswerFill = 'open' | 'half' | 'done';

/** How far an answer has come: the same to its student, on the receipt and to the teacher. */
export function fillOf(
  question: Question | StudentQuestion,
  response: Response | null | undefined,
): AnswerFill {
  const filling = fillingOf(question);
  if (response === undefined || response === null || filling.isBlank(response)) return 'open';
  return filling.isHalf?.(question, response) ? 'half' : 'done';
}
