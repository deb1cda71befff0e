import type { SheetKind } from '../sheet/SheetKind';
import { choicesOf, optionCells } from '../choiceSheet';
import type { OneChoice } from './schema';

export const oneChoiceSheet: SheetKind<OneChoice> = {
  turn: 40,
  suits: ({ options }) => options.length > 0,
  read: (empty, cells, newId) => {
    const { options, right } = choicesOf(cells, newId);
    return { ...empty, options, key: right[0] ?? null };
  },
  cells: ({ options, key }) => optionCells(options, [key]),
};
