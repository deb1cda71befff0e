import type { KindName, Question, Response, StudentQuestion } from '@/core/kinds';
import type { KindView } from './KindView';
import { oneChoiceView } from './oneChoice';
import { openTextView } from './openText';
import { severalChoicesView } from './severalChoices';
import { shortTextView } from './shortText';

/** The registry of views: a line a kind, as in core/kinds. */
const views = {
  oneChoice: oneChoiceView,
  severalChoices: severalChoicesView,
  shortText: shortTextView,
  openText: openTextView,
} satisfies Record<KindName, unknown>;

/** The views of a question's kind. */
export function viewOf(question: { kind: KindName }): KindView<Question, StudentQuestion, Response> {
  // As in core: a question only ever meets the views of the kind it names.
  return views[question.kind] as unknown as KindView<Question, StudentQuestion, Response>;
}
