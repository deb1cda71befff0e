import { answersOfColumn, repeats, type SheetKind } from '../sheet/SheetKind';
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
  fromAnswers: {
    turn: 20,
    suits: (answers) => {
      const parts = answers.texts.map(partsOf);
      const together = answers.texts.filter((_, at) => (parts[at]?.length ?? 0) > 1);
      const wordy = answers.texts.some((text) => /[.!?]\s/.test(text));
      return (
        !wordy && together.length * 5 >= answers.texts.length && repeats(answersOfColumn(parts.flat()), 15)
      );
    },
    read: (empty, { texts }, newId) => ({
      ...empty,
      options: answersOfColumn(texts.flatMap(partsOf))
        .different.slice(0, 50)
        .map((text) => ({ id: newId(), text, comment: '' })),
    }),
  },
};

/** What was ticked, as forms write it: with semicolons or bars between, else with commas. */
const partsOf = (text: string): string[] =>
  text
    .split(/[;|]/.test(text) ? /[;|]/ : /,/)
    .map((part) => part.trim())
    .filter(Boolean);
