import type { PickedResponse, StudentOption } from './options';
import type { PaperKind } from './paper/PaperKind';

const row = 'options';

/** Options to tick, one or several. */
export const choicePaper = <S>(
  optionsOf: (question: S) => readonly StudentOption[],
  most: number,
): PaperKind<S, PickedResponse> => ({
  rows: (question) => [
    {
      id: row,
      label: '',
      as: 'list',
      boxes: optionsOf(question).map(({ id, text }) => ({ id, label: text })),
    },
  ],
  areas: () => [],
  fromTicks: (_question, ticks) => {
    const picked = [...(ticks[row] ?? [])];
    return picked.length > most ? null : { picked };
  },
});
