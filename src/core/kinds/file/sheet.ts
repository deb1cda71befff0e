import type { SheetKind } from '../sheet/SheetKind';
import type { FileQuestion } from './schema';

/** Only where the row names the kind: an open text looks the same. */
export const fileSheet: SheetKind<FileQuestion> = {
  turn: 110,
  suits: () => false,
  read: (empty, { key }) => ({ ...empty, modelAnswer: key }),
  cells: ({ modelAnswer }) => ({ options: [], key: modelAnswer }),
};
