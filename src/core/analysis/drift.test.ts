import { describe, expect, it } from 'vitest';
import { at, markOf } from '../../../tests/unit/samples';
import type { HandMark } from '../model/mark';
import { drift } from './drift';

describe('points in the order of marking', () => {
  const minute = (n: number) => new Date(Date.parse(at) + n * 60_000).toISOString();
  const turn = (n: number, points: number): HandMark =>
    markOf({
      ...{ attemptId: `a${n}`, points, at: minute(n) },
      history: [{ at: minute(n), by: 'teacher', why: '', before: null }],
    });

  it('are told when the last third differs from the first by more than chance would make', () => {
    const falling = drift(
      [3, 3, 3, 2.5, 2, 2, 1, 1, 1].map((points, n) => turn(n, points)),
      4,
    );
    expect(falling.thirds).toEqual({ first: 0.75, last: 0.25, more: -0.5 });
    expect(falling.telling).toBe(true);
    expect(
      drift(
        [1, 3, 2, 2, 1, 3, 3, 1, 2].map((points, n) => turn(n, points)),
        4,
      ).telling,
    ).toBe(false);
  });

  it('say nothing of a few', () => {
    expect(drift([turn(0, 1), turn(1, 4)], 4)).toMatchObject({ thirds: null, telling: false });
    expect(drift([], 4).turns).toEqual([]);
  });

  it('what was marked at once is one turn, and the running mean is over the last ten', () => {
    const twelve = Array.from({ length: 12 }, (_, n) => turn(n, n < 2 ? 0 : 4));
    const { turns } = drift([...twelve, { ...turn(3, 4), attemptId: 'b' }], 4);
    expect(turns).toHaveLength(12);
    expect(turns[1]?.running).toBe(0);
    expect(turns.at(-1)?.running).toBe(1);
  });

  // Welch's standard error of a difference, worked by hand: shares 1 .5 .75 and .25 .5 0 have s = .25 each, so that
  // se = sqrt((.0625 + .0625) / 3) = .2041; the difference .5 is 2.45 of them.
  it('the error is Welch’s', () => {
    const shares = [4, 2, 3, 2, 2, 2, 1, 2, 0];
    expect(
      drift(
        shares.map((points, n) => turn(n, points)),
        4,
      ).telling,
    ).toBe(true);
    const nearer = [4, 2, 3, 2, 2, 2, 2, 3, 1];
    // The difference is .25: 1.22 of them.
    expect(
      drift(
        nearer.map((points, n) => turn(n, points)),
        4,
      ).telling,
    ).toBe(false);
  });
});
