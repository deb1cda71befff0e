import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sum, sumBy } from 'remeda';
import { chanceFrom } from '../basics/chance';
import type { MarkBook, MarkBookColumn } from '../model/markBook';
import { studentTotal, type BookCell } from './total';
import { totalError } from './totalError';

const column = (id: string, part: Partial<MarkBookColumn> = {}): MarkBookColumn =>
  ({
    ...{ id, kind: 'sitting', sittingId: id, categoryId: null, weight: 1 },
    ...{ bonus: false, dropped: false, excused: [], ...part },
  }) as MarkBookColumn;
const book = (columns: MarkBookColumn[], part: Partial<MarkBook> = {}) => ({
  ...{ columns, categories: [], missing: 'nothing' as const, decimals: 0 as const, scale: null, ...part },
});
const cell = (points: number): BookCell => ({ is: 'points', points, max: 10 });

describe('the standard error of a total', () => {
  it('of two equal results is that of one over the root of two', () => {
    const steps = studentTotal(
      book([column('a'), column('b')]),
      new Map([
        ['a', cell(5)],
        ['b', cell(7)],
      ]),
      's',
    );
    const told = totalError(
      steps,
      new Map([
        ['a', 0.1],
        ['b', 0.1],
      ]),
    );
    expect(told?.error).toBeCloseTo(0.1 / Math.SQRT2, 12);
    expect(told?.exact).toBe(0);
  });

  it('counts only what counts: not what is dropped, excused or not among the best', () => {
    const columns = [
      column('a', { categoryId: 'quizzes' }),
      column('b', { categoryId: 'quizzes' }),
      column('c', { dropped: true }),
      column('d', { weight: 3 }),
    ];
    const of = book(columns, { categories: [{ id: 'quizzes', name: 'Quizzes', weight: 1, best: 1 }] });
    const cells = new Map([
      ['a', cell(4)],
      ['b', cell(9)],
      ['c', cell(1)],
      ['d', cell(6)],
    ]);
    const told = totalError(
      studentTotal(of, cells, 's'),
      new Map([
        ['a', 0.5],
        ['b', 0.08],
        ['c', 0.9],
        ['d', 0.04],
      ]),
    );
    // By hand: √((1/4 · 0.08)² + (3/4 · 0.04)²).
    expect(told?.error).toBeCloseTo(Math.hypot(0.02, 0.03), 12);
  });

  it('takes what has none as exact and says so; without any it can’t be told', () => {
    const steps = studentTotal(
      book([column('a'), column('b')]),
      new Map([
        ['a', cell(5)],
        ['b', cell(7)],
      ]),
      's',
    );
    expect(totalError(steps, new Map([['a', 0.2]]))).toEqual({ error: 0.1, exact: 1 });
    expect(totalError(steps, new Map())).toBeNull();
  });

  it('is how far totals lie apart that differ by such errors alone', () => {
    // Simulated: the definition itself is the check.
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1000 }),
        fc.array(fc.integer({ min: 1, max: 5 }), { minLength: 2, maxLength: 4 }),
        (seed, weights) => {
          const chance = chanceFrom(seed);
          const columns = weights.map((weight, at) => column(`c${at}`, { weight }));
          const errors = new Map(columns.map(({ id }, at) => [id, 0.02 + 0.02 * at]));
          const drawn = () =>
            studentTotal(
              book(columns),
              new Map(
                columns.map(({ id }) => [id, cell(10 * (0.5 + chance.normal() * (errors.get(id) ?? 0)))]),
              ),
              's',
            );
          const totals = Array.from({ length: 1500 }, () => drawn().total ?? 0);
          const mean = sum(totals) / totals.length;
          const spread = Math.sqrt(sumBy(totals, (each) => (each - mean) ** 2) / totals.length);
          const ratio = spread / (totalError(drawn(), errors)?.error ?? 0);
          expect(ratio).toBeGreaterThan(0.92);
          expect(ratio).toBeLessThan(1.08);
        },
      ),
      { numRuns: 5 },
    );
  });
});
