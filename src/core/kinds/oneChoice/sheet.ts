import { repeats, type SheetKind } from '../sheet/SheetKind';
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
  fromAnswers: {
    turn: 30,
    // Numbers of several digits are worked out rather than chosen.
    suits: (answers) =>
      repeats(answers) &&
      answers.different.filter((text) => /^-?\d+[.,]?\d+/.test(text)).length * 2 < answers.different.length,
    read: (empty, { different }, newId) => ({
      ...empty,
      options: different.slice(0, 50).map((text) => ({ id: newId(), text, comment: '' })),
    }),
  },
};
