import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keyPoints, nothingKeyed } from './keyedPoints';

/** Types keys over a row of answers "0", "1", "2"… and gives what each got, with where the marker is at the end. */
function typedOver(keys: string, max: number, goesOn = true) {
  const given = new Map<string, number>();
  let [state, at] = [nothingKeyed, 0];
  for (const key of keys) {
    if (key === '↵') {
      at++;
      state = nothingKeyed;
      continue;
    }
    const next = keyPoints(state, key, String(at), { points: max }, goesOn);
    if (next.typed.refused === null && next.typed.points !== null)
      given.set(next.on ?? '', next.typed.points);
    if (next.moves) at++;
    state = next;
  }
  return { given: Object.fromEntries(given), at };
}

describe('points that go on by themselves', () => {
  it('a digit gives and goes on', () => {
    expect(typedOver('2013', 3)).toEqual({ given: { 0: 2, 1: 0, 2: 1, 3: 3 }, at: 4 });
  });

  it('a point behind a digit belongs to the answers just left', () => {
    expect(typedOver('2.51', 3)).toEqual({ given: { 0: 2.5, 1: 1 }, at: 2 });
    expect(typedOver('1,253', 3)).toEqual({ given: { 0: 1.25, 1: 3 }, at: 2 });
    expect(typedOver('1.75', 3)).toEqual({ given: { 0: 1.75 }, at: 1 });
    // ".2" is a quarter already: what is not its 5 is for the next.
    expect(typedOver('1.21', 3)).toEqual({ given: { 0: 1.25, 1: 1 }, at: 2 });
    expect(typedOver('.52', 3)).toEqual({ given: { 0: 0.5, 1: 2 }, at: 2 });
  });

  it('a slash makes a half of it, and what comes next is for the next', () => {
    expect(typedOver('2/1/3/0', 4)).toEqual({ given: { 0: 2.5, 1: 1.5, 2: 3.5, 3: 0 }, at: 4 });
    expect(typedOver('/5', 5)).toEqual({ given: { 0: 0.5, 1: 5 }, at: 2 });
    expect(typedOver('4/', 4)).toEqual({ given: { 0: 4 }, at: 1 });
  });

  it('waits where a longer number can be given', () => {
    expect(typedOver('1', 12)).toEqual({ given: { 0: 1 }, at: 0 });
    expect(typedOver('10', 12)).toEqual({ given: { 0: 10 }, at: 1 });
    expect(typedOver('1↵0', 12)).toEqual({ given: { 0: 1, 1: 0 }, at: 2 });
    expect(typedOver('37', 12)).toEqual({ given: { 0: 3, 1: 7 }, at: 2 });
  });

  it('gives nothing that cannot be given, and stays', () => {
    expect(typedOver('9', 3)).toEqual({ given: {}, at: 0 });
    expect(typedOver('92', 3)).toEqual({ given: { 0: 2 }, at: 1 });
  });

  it('without it, all keys are for where the marker is', () => {
    expect(typedOver('2', 3, false)).toEqual({ given: { 0: 2 }, at: 0 });
    expect(typedOver('2.5↵1', 3, false)).toEqual({ given: { 0: 2.5, 1: 1 }, at: 1 });
  });

  it('whole points typed one after another are those of the answers in their order', () => {
    fc.assert(
      fc.property(
        fc
          .integer({ min: 1, max: 9 })
          .chain((max) =>
            fc.tuple(fc.constant(max), fc.array(fc.integer({ min: 0, max }), { maxLength: 30 })),
          ),
        ([max, each]) => {
          expect(typedOver(each.join(''), max).given).toEqual(
            Object.fromEntries(each.map((points, index) => [String(index), points])),
          );
        },
      ),
    );
  });
});
