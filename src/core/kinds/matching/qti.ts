import type { QtiKind } from '../qti/ItemForm';
import { pairsForm, pairsIn } from '../pairsQti';
import type { Matching } from './schema';

export const matchingQti: QtiKind<Matching> = {
  turn: 80,
  write: pairsForm,
  read: (source) => {
    const pairs = pairsIn(source);
    return pairs && { kind: 'matching', ...pairs.fields };
  },
};
