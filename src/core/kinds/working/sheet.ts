import type { SheetKind } from '../sheet/SheetKind';
import type { Working } from './schema';

/** Only where the row names the kind: an open text looks the same. */
export const workingSheet: SheetKind<Working> = {
  turn: 100,
  suits: () => false,
  read: (empty, { key }) => ({ ...empty, modelAnswer: key }),
  cells: ({ modelAnswer }) => ({ options: [], key: modelAnswer }),
};
