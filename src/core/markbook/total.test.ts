import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import type { MarkBook, MarkBookColumn } from '../model/markBook';
import { mergedBook } from './mergedBook';
import { roundedPercent, studentTotal, type BookCell } from './total';

const column = (id: string, part: Partial<MarkBookColumn> = {}): MarkBookColumn =>
  ({
    ...{
      id,
      kind: 'sitting',
      sittingId: id,
      categoryId: null,
      weight: 1,
      bonus: false,
      dropped: false,
      excused: [],
    },
    ...part,
  }) as MarkBookColumn; // a sitting, whatever of it is changed
const book = (part: Partial<MarkBook>): MarkBook => ({
  ...{
    id: 'book',
    title: 'Navigation',
    groupIds: [],
    columns: [],
    categories: [],
    missing: 'nothing',
    decimals: 0,
  },
  ...{ scale: null, createdAt: '', changedAt: '' },
  ...part,
});
const had = (points: number, max = 10): BookCell => ({ is: 'points', points, max });
const total = (of: MarkBook, cells: Record<string, BookCell>) =>
  studentTotal(of, new Map(Object.entries(cells)), 'amara');

describe('two students who are one', () => {
  it('have what was typed for either, and are excused where either was', () => {
    const typed = column('t', {
      kind: 'typed',
      title: 'Oral',
      max: 10,
      values: { a: 1, b: 2 },
      excused: ['b', 'c'],
    });
    const other = column('u', {
      kind: 'typed',
      title: 'Chart',
      max: 10,
      values: { b: 3 },
      excused: ['a', 'b'],
    });
    expect(mergedBook(book({ columns: [typed, other] }), 'a', 'b').columns).toMatchObject([
      { values: { a: 1 }, excused: ['a', 'c'] },
      { values: { a: 3 }, excused: ['a'] },
    ]);
  });
});

describe('the total of a mark book', () => {
  const quizzes = { id: 'quizzes', name: 'Quizzes', weight: 40, best: 2 };
  const exam = { id: 'exam', name: 'Exam', weight: 60, best: null };
  const course = book({
    categories: [quizzes, exam],
    columns: [
      column('q1', { categoryId: 'quizzes' }),
      column('q2', { categoryId: 'quizzes' }),
      column('q3', { categoryId: 'quizzes' }),
      column('e', { categoryId: 'exam' }),
    ],
  });

  // Worked by hand: the best two of 50, 90 and 70 % are 80 %; 0.4 × 80 + 0.6 × 60 = 68 %.
  it('is the mean of its categories by their weights, each of the best where only so many count', () => {
    const steps = total(course, { q1: had(5), q2: had(9), q3: had(7), e: had(12, 20) });
    expect(steps.percent).toBe(68);
    expect(steps.units[0]?.columns.map(({ standing }) => standing)).toEqual([
      'notAmongBest',
      'counts',
      'counts',
    ]);
  });

  it('what was not sat counts as nothing or not at all; what is open or ahead waits, and excused is out', () => {
    const cells = {
      q1: had(8),
      q2: { is: 'missing' } as BookCell,
      e: { is: 'open', points: 3, max: 20 } as BookCell,
    };
    expect(
      total({ ...course, categories: [{ ...quizzes, best: null }, exam] }, { ...cells, q3: { is: 'ahead' } })
        .percent,
    ).toBe(40);
    expect(total({ ...course, missing: 'leftOut' }, cells).percent).toBe(80);
    const [first, second, ...rest] = course.columns;
    const excused = [first, { ...second, excused: ['amara'] }, ...rest] as MarkBookColumn[];
    expect(total({ ...course, columns: excused, missing: 'nothing' }, { ...cells, q3: had(8) }).percent).toBe(
      80,
    );
    expect(
      total(course, { q1: { is: 'ahead' }, q2: { is: 'ahead' }, q3: { is: 'ahead' }, e: { is: 'ahead' } })
        .percent,
    ).toBeNull();
  });

  // Worked by hand: 7 of 10, and a bonus of half weight worth 4 of 10: 70 + 0.5 × 40 = 90 %.
  it('bonus only adds, and has nothing to add to where nothing counts', () => {
    const withBonus = book({ columns: [column('a'), column('b', { bonus: true, weight: 0.5 })] });
    expect(total(withBonus, { a: had(7), b: had(4) }).percent).toBe(90);
    expect(total(withBonus, { a: had(7) }).percent).toBe(70);
    expect(total(withBonus, { a: { is: 'ahead' }, b: had(4) }).percent).toBeNull();
    const within = book({
      categories: [{ ...quizzes, best: 1 }],
      columns: [
        column('a', { categoryId: 'quizzes' }),
        column('b', { categoryId: 'quizzes', bonus: true, weight: 0.5 }),
      ],
    });
    expect(total(within, { a: had(7), b: had(4) }).percent).toBe(90);
  });

  it('is rounded once, half up, and graded as it is shown', () => {
    expect(roundedPercent(0.695, 0)).toBe(70);
    expect(roundedPercent(0.6949, 0)).toBe(69);
    expect(roundedPercent(1.005, 1)).toBe(100.5);
    const scale = { by: 'percent' as const, lines: [{ grade: 'pass', from: 0.7 }] };
    expect(total(book({ columns: [column('a')], scale }), { a: had(695, 1000) }).grade).toBe('pass');
    expect(
      total(book({ columns: [column('a')], scale, decimals: 1 }), { a: had(695, 1000) }).grade,
    ).toBeNull();
  });

  it('is what a plain computation gives, and never leaves what the columns had', () => {
    const anyCell: fc.Arbitrary<BookCell> = fc.oneof(
      fc.integer({ min: 0, max: 20 }).map((n) => had(n / 2)),
      fc.constantFrom<BookCell>(
        { is: 'missing' },
        { is: 'ahead' },
        { is: 'notGiven' },
        { is: 'open', points: 1, max: 10 },
      ),
    );
    const anyColumn = fc.record({
      categoryId: fc.constantFrom('quizzes', 'exam', null),
      weight: fc.integer({ min: 0, max: 4 }),
      dropped: fc.boolean(),
      cell: anyCell,
    });
    fc.assert(
      fc.property(
        fc.array(anyColumn, { maxLength: 8 }),
        fc.option(fc.integer({ min: 1, max: 3 })),
        fc.constantFrom('nothing' as const, 'leftOut' as const),
        (all, best, missing) => {
          const columns = all.map(({ cell: _, ...part }, index) => column(`c${index}`, part));
          const cells = Object.fromEntries(all.map(({ cell }, index) => [`c${index}`, cell]));
          const categories = [{ ...quizzes, best }, exam];
          const { total: computed } = total(book({ columns, categories, missing }), cells);
          // Plainly: lists of [weight, share], a mean each, and a mean of those.
          const shares = all.flatMap(({ categoryId, weight, dropped, cell }) => {
            if (dropped || cell.is === 'open' || cell.is === 'ahead' || cell.is === 'notGiven') return [];
            if (cell.is === 'missing') return missing === 'nothing' ? [{ categoryId, weight, share: 0 }] : [];
            return [{ categoryId, weight, share: cell.points / cell.max }];
          });
          const mean = (list: readonly { weight: number; share: number }[]) => {
            const weights = sumBy(list, ({ weight }) => weight);
            return weights > 0 ? sumBy(list, ({ weight, share }) => weight * share) / weights : null;
          };
          const units: { weight: number; share: number }[] = shares.filter(
            ({ categoryId }) => categoryId === null,
          );
          for (const { id, weight, best: most } of categories) {
            const own = shares
              .filter(({ categoryId }) => categoryId === id)
              .sort((a, b) => b.share - a.share || b.weight - a.weight)
              .slice(0, most ?? Infinity);
            const share = mean(own);
            if (share !== null) units.push({ weight, share });
          }
          const plain = mean(units);
          if (plain === null) expect(computed).toBeNull();
          else expect(computed).toBeCloseTo(plain, 12);
        },
      ),
    );
  });
});
