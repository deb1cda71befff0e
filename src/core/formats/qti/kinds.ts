import type { KindName, Question } from '../../kinds';
import { categoriesQti } from '../../kinds/categories/qti';
import { fileQti } from '../../kinds/file/qti';
import { gapsQti } from '../../kinds/gaps/qti';
import { matchingQti } from '../../kinds/matching/qti';
import { numberQti } from '../../kinds/number/qti';
import { oneChoiceQti } from '../../kinds/oneChoice/qti';
import { openTextQti } from '../../kinds/openText/qti';
import { orderingQti } from '../../kinds/ordering/qti';
import { severalChoicesQti } from '../../kinds/severalChoices/qti';
import { shortTextQti } from '../../kinds/shortText/qti';
import { trueFalseQti } from '../../kinds/trueFalse/qti';
import { workingQti } from '../../kinds/working/qti';
import type { QtiKind } from '../../kinds/qti/ItemForm';

/** The registry: how each kind is written and read. Apart from that of the kinds, so that only packages load it. */
const forms = {
  trueFalse: trueFalseQti,
  oneChoice: oneChoiceQti,
  severalChoices: severalChoicesQti,
  number: numberQti,
  gaps: gapsQti,
  shortText: shortTextQti,
  categories: categoriesQti,
  matching: matchingQti,
  ordering: orderingQti,
  openText: openTextQti,
  file: fileQti,
  working: workingQti,
} satisfies Record<KindName, unknown>;

/** All forms, in the order in which an item is held against them: the first that fits reads it. */
export const qtiKinds = Object.values(forms) as unknown as QtiKind<Question>[];

export function qtiOf(kind: KindName): QtiKind<Question> {
  // As in the other registries: a question only ever meets the form of the kind it names.
  return forms[kind] as unknown as QtiKind<Question>;
}
