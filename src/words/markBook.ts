import { sumBy } from 'remeda';
import { counted } from '@/core/basics/counted';
import type { MarkBook } from '@/core/model/markBook';
import type { Standing } from '@/core/markbook/total';
import { listed } from './releases';

/** Why a column counts for a student as it does. */
export const standingWords: Record<Standing, string> = {
  counts: 'counts',
  bonus: 'adds as bonus',
  countsAsNothing: 'not sat, counts as nothing',
  dropped: 'column doesn’t count',
  excused: 'excused',
  missing: 'not sat, left out',
  notAmongBest: 'not among the best',
  open: 'not wholly marked yet',
  ahead: 'still to be sat',
  notGiven: 'not given to this student',
  nothingToAddTo: 'bonus, with nothing to add to yet',
};

const share = (weight: number, all: number) =>
  all > 0 ? `${Math.round((weight / all) * 1000) / 10}%` : '0%';

/**
 * How totals come about, in a sentence: "The total is made of Quizzes (40%, the best 2 of 3) and Exam (60%)."
 *
 * @param titleOf what a column is called
 */
export function bookSentence(book: MarkBook, titleOf: (id: string) => string): string {
  const { categories, columns, missing, decimals } = book;
  const counting = columns.filter(({ dropped }) => !dropped);
  const known = new Set(categories.map(({ id }) => id));
  const alone = counting.filter(({ categoryId }) => !known.has(categoryId ?? ''));
  const used = categories.filter(({ id }) =>
    counting.some(({ categoryId, bonus }) => categoryId === id && !bonus),
  );
  const plain = alone.filter(({ bonus }) => !bonus);
  const all = sumBy([...used, ...plain], ({ weight }) => weight);
  if (used.length + plain.length === 0) return 'No column counts yet.';
  const parts = [
    ...used.map(({ id, name, weight, best }) => {
      const own = counting.filter(({ categoryId, bonus }) => categoryId === id && !bonus).length;
      const only = best !== null && best < own ? `, the best ${best} of ${own}` : '';
      return `${name} (${share(weight, all)}${only})`;
    }),
    ...(used.length === 0 && plain.every(({ weight }) => weight === plain[0]?.weight)
      ? [
          plain.length === 1
            ? titleOf(plain[0]?.id ?? '')
            : `${counted(plain.length, 'column')} of equal weight`,
        ]
      : plain.map(({ id, weight }) => `${titleOf(id)} (${share(weight, all)})`)),
  ];
  const bonus = counting.filter((column) => column.bonus);
  return [
    `The total is made of ${listed(parts)}.`,
    bonus.length > 0
      ? `${listed(bonus.map(({ id }) => titleOf(id)))} only ${bonus.length === 1 ? 'adds' : 'add'}.`
      : '',
    missing === 'nothing' ? 'What wasn’t sat counts as nothing.' : 'What wasn’t sat is left out.',
    'What is still to be sat or marked doesn’t count yet.',
    `Totals are rounded once, to ${decimals === 0 ? 'whole percent' : `${counted(decimals, 'decimal')} of a percent`}.`,
  ]
    .filter(Boolean)
    .join(' ');
}
