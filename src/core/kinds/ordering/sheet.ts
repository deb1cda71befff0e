import type { SheetKind } from '../sheet/SheetKind';
import type { Ordering } from './schema';

/** Its options in the right order; only where the row names the kind, for a choice without a key looks the same. */
export const orderingSheet: SheetKind<Ordering> = {
  turn: 90,
  suits: () => false,
  read: (empty, { options }, newId) => ({ ...empty, items: options.map((text) => ({ id: newId(), text })) }),
  cells: ({ items }) => ({ options: items.map(({ text }) => text), key: '' }),
};
