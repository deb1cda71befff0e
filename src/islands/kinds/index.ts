import type { KindName, Response, StudentQuestion } from '@/core/kinds';
import type { KindView } from './KindView';
import { categoriesView } from './categories';
import { fileView } from './file';
import { gapsView } from './gaps';
import { matchingView } from './matching';
import { numberView } from './number';
import { oneChoiceView } from './oneChoice';
import { openTextView } from './openText';
import { orderingView } from './ordering';
import { severalChoicesView } from './severalChoices';
import { shortTextView } from './shortText';
import { trueFalseView } from './trueFalse';
import { workingView } from './working';

/** The registry of views: a line a kind, as in core/kinds. */
const views = {
  oneChoice: oneChoiceView,
  severalChoices: severalChoicesView,
  trueFalse: trueFalseView,
  shortText: shortTextView,
  number: numberView,
  gaps: gapsView,
  matching: matchingView,
  ordering: orderingView,
  categories: categoriesView,
  openText: openTextView,
  working: workingView,
  file: fileView,
} satisfies Record<KindName, unknown>;

/** The views of a question's kind. */
export function viewOf(question: { kind: KindName }): KindView<StudentQuestion, Response> {
  // As in core: a question only ever meets the views of the kind it names.
  return views[question.kind] as unknown as KindView<StudentQuestion, Response>;
}
