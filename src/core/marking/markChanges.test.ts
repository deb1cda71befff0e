import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { adjustedMark, basePoints, evenedMark, givenPoints, withCommentPoints } from './markChanges';

const bonus = { points: 1, reason: 'A sketch' };
const byHand = { byKey: null };

describe('an adjustment', () => {
  it('is added to the points by hand, else to the key’s, else to none', () => {
    expect(adjustedMark(byHand, { points: 3 }, bonus)).toMatchObject({ points: 4, adjustment: bonus });
    expect(adjustedMark({ byKey: 2 }, { points: null }, bonus).points).toBe(3);
    expect(adjustedMark(byHand, { points: null }, bonus).points).toBe(1);
    expect(adjustedMark(byHand, { points: 1 }, { points: -2, reason: 'x' }).points).toBe(0);
  });

  it('takes the place of the one before, and taken back leaves what there was', () => {
    const once = { points: 4, adjustment: bonus };
    expect(adjustedMark(byHand, once, { points: -1, reason: 'x' }).points).toBe(2);
    expect(adjustedMark(byHand, once, null)).toMatchObject({ points: 3, adjustment: undefined });
    // Over a key, the key holds again.
    expect(adjustedMark({ byKey: 3 }, once, null).points).toBeNull();
  });

  it('goes when points are given by number: more than the maximum never stays without its reason', () => {
    expect('adjustment' in givenPoints(2) && givenPoints(2).adjustment).toBeUndefined();
  });

  it('comes back the same however often it is put on and taken off', () => {
    const quarters = fc.integer({ min: 0, max: 40 }).map((n) => n / 4);
    fc.assert(
      fc.property(quarters, quarters, (base, points) => {
        const on = adjustedMark(byHand, { points: base }, { points, reason: 'x' });
        const mark = { points: on.points ?? null, adjustment: on.adjustment };
        expect(basePoints(byHand, mark)).toBe(base);
        expect(adjustedMark(byHand, mark, null).points).toBe(base);
      }),
    );
  });
});

describe('points of a comment', () => {
  it('add up with those of others, with all the reasons', () => {
    const first = withCommentPoints({ points: 3 }, { text: 'Units?', points: -0.5 });
    expect(first).toEqual({ points: 2.5, adjustment: { points: -0.5, reason: 'Units?' } });
    const mark = { points: first.points ?? null, adjustment: first.adjustment };
    expect(withCommentPoints(mark, { text: 'Rounded', points: -0.25 })).toEqual({
      points: 2.25,
      adjustment: { points: -0.75, reason: 'Units?; Rounded' },
    });
  });

  it('never mark an answer that has none yet', () => {
    expect(withCommentPoints({ points: null }, { text: 'Units?', points: -0.5 })).toEqual({});
  });
});

describe('evening out', () => {
  const to = { points: 5, answers: 1, lines: ['l1'], adjustment: bonus };
  it('takes the reason along with points above the maximum', () => {
    expect(evenedMark(byHand, { points: 3 }, to)).toMatchObject({
      points: 5,
      lines: ['l1'],
      adjustment: bonus,
    });
  });

  it('leaves to the key what the key gives', () => {
    expect(evenedMark({ byKey: 5 }, { points: null }, to)).toEqual({});
    expect(evenedMark({ byKey: 5 }, { points: 1 }, to).points).toBeNull();
  });
});
