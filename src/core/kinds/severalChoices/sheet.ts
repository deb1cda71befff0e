import type { SheetKind } from '../sheet/SheetKind';
import { choicesOf, keyPlaces, optionCells } from '../choiceSheet';
import type { SeveralChoices } from './schema';

export const severalChoicesSheet: SheetKind<SeveralChoices> = {
  turn: 30,
  suits: (cells) => cells.options.length > 0 && keyPlaces(cells).length > 1,
  read: (empty, cells, newId) => {
    const { options, right } = choicesOf(cells, newId);
    return { ...empty, options, key: right };
  },
  cells: ({ options, key }) => optionCells(options, key),
};
