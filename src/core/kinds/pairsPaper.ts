import { optionLetter } from './optionLetter';
import type { PairsResponse, StudentPairsQuestion } from './pairs';
import type { PaperKind } from './paper/PaperKind';

/** A row for each item, with a box under the letter of each target. */
export const pairsPaper: PaperKind<Pick<StudentPairsQuestion, 'items' | 'targets'>, PairsResponse> = {
  above: ({ targets }) => targets.map(({ text }, index) => `${optionLetter(index)}  ${text}`),
  rows: ({ items, targets }) =>
    items.map(({ id, text }) => ({
      ...{ id, label: text, as: 'line' },
      boxes: targets.map((target, index) => ({ id: target.id, label: optionLetter(index) })),
    })),
  areas: () => [],
  fromTicks: ({ items }, ticks) => {
    if (items.some(({ id }) => (ticks[id]?.length ?? 0) > 1)) return null;
    const pairs = items.flatMap(({ id }) => {
      const [target] = ticks[id] ?? [];
      return target === undefined ? [] : [[id, target] as const];
    });
    return { pairs: Object.fromEntries(pairs) };
  },
};
