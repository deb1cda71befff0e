import type { QtiKind } from '../qti/ItemForm';
import { pairsForm, pairsIn } from '../pairsQti';
import type { Categories } from './schema';

/** Read before matching: targets that take several items, and do. */
export const categoriesQti: QtiKind<Categories> = {
  turn: 70,
  write: pairsForm,
  read: (source) => {
    const pairs = pairsIn(source);
    return pairs?.sorting ? { kind: 'categories', ...pairs.fields } : null;
  },
};
