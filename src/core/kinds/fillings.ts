import { fileFilling } from './file/filling';
import { gapsFilling } from './gaps/filling';
import type { KindName, Question, Response, StudentQuestion } from './index';
import { numberFilling } from './number/filling';
import { oneChoiceFilling } from './oneChoice/filling';
import { openTextFilling } from './openText/filling';
import { orderingFilling } from './ordering/filling';
import { pairsFilling } from './pairsFilling';
import type { AnswerFilling } from './QuestionKind';
import { severalChoicesFilling } from './severalChoices/filling';
import { shortTextFilling } from './shortText/filling';
import { trueFalseFilling } from './trueFalse/filling';
import { workingFilling } from './working/filling';

/**
 * Of each kind how far an answer has come, apart from all else there is to know of it: a student's page comes over a
 * phone's line, and asks nothing more.
 */
const fillings = {
  oneChoice: oneChoiceFilling,
  severalChoices: severalChoicesFilling,
  trueFalse: trueFalseFilling,
  shortText: shortTextFilling,
  number: numberFilling,
  gaps: gapsFilling,
  matching: pairsFilling,
  ordering: orderingFilling,
  categories: pairsFilling,
  openText: openTextFilling,
  working: workingFilling,
  file: fileFilling,
} satisfies Record<KindName, unknown>;

/** How far an answer has come. */
export type AnswerFill = 'open' | 'half' | 'done';

/** How far an answer has come: the same to its student, on the receipt and to the teacher. */
export function fillOf(
  question: Question | StudentQuestion,
  response: Response | null | undefined,
): AnswerFill {
  // A question only ever meets the kind it names, so the wider types are safe here.
  const filling = fillings[question.kind] as AnswerFilling<Question | StudentQuestion, Response>;
  if (response === undefined || response === null || filling.isBlank(response)) return 'open';
  return filling.isHalf?.(question, response) ? 'half' : 'done';
}
