import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apart } from './apart';

type Place = [number, number];
const distance = ([x, y]: Place, [u, v]: Place) => Math.hypot(x - u, y - v);
const movedBy = (places: readonly Place[], moves: readonly Place[]) =>
  places.map(([x, y], index): Place => [x + (moves[index]?.[0] ?? 0), y + (moves[index]?.[1] ?? 0)]);

describe('marks that would lie on one another', () => {
  it('go apart, those of one place too; those that stand free stay', () => {
    const places: Place[] = [
      [100, 50],
      [100, 50],
      [110, 60],
      [300, 50],
    ];
    const moves = apart(places, 25);
    const after = movedBy(places, moves);
    for (const [index, one] of after.entries())
      for (const other of after.slice(index + 1)) expect(distance(one, other)).toBeGreaterThan(23);
    expect(moves[3]).toEqual([0, 0]);
    // No further than it needs.
    for (const move of moves) expect(Math.hypot(...move)).toBeLessThan(25);
  });

  it('nothing moves where all stand free, whatever they are', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(40), { maxLength: 30 }), (columns) => {
        const places = columns.map((column): Place => [column * 26, (column * 37) % 200]);
        expect(apart(places, 25)).toEqual(places.map(() => [0, 0]));
      }),
    );
  });

  it('a class of questions spread over the map does not cover its numbers', () => {
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.nat(600), fc.nat(240)), { maxLength: 24 }), (places) => {
        const after = movedBy(places, apart(places, 25));
        for (const [index, one] of after.entries())
          for (const other of after.slice(index + 1)) expect(distance(one, other)).toBeGreaterThan(12);
      }),
    );
  });
});
