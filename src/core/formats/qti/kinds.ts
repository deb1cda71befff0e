import { kindNames, type KindName, type Question, type QuestionOf } from '../../kinds';
import type { QtiKind } from '../../kinds/qti/ItemForm';
import { qtiForms } from '../../kinds/registry/qtiForms';

const forms: { [K in KindName]: QtiKind<QuestionOf<K>> } = qtiForms;

export function qtiOf(kind: KindName): QtiKind<Question> {
  // As in the other registries: a question only ever meets the form of the kind it names.
  return forms[kind] as unknown as QtiKind<Question>;
}

/** All forms, in the order in which an item is held against them: the first that fits reads it. */
export const qtiKinds = kindNames.map(qtiOf).sort((a, b) => a.turn - b.turn);
