import type { SheetKind } from '../sheet/SheetKind';
import type { OpenText } from './schema';

export const openTextSheet: SheetKind<OpenText> = {
  turn: 50,
  suits: ({ options, key }) => options.length === 0 && key === '',
  read: (empty, { key }) => ({ ...empty, modelAnswer: key }),
  cells: ({ modelAnswer }) => ({ options: [], key: modelAnswer }),
  fromAnswers: {
    turn: 40,
    // Sentences: eight words or more on the whole.
    suits: ({ texts }) => texts.length > 0 && texts.join(' ').split(/\s+/).length >= 8 * texts.length,
    read: (empty) => empty,
  },
};
