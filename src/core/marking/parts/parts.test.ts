import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { answerParts } from '../near/parts';
import { linesByParts } from './linesByParts';
import { pointsByParts } from './pointsByParts';

describe('the parts of answers', () => {
  const first = (answers: string[]) => answerParts(answers, 'en');

  it('are sentences, told by what ends them and not by a decimal point', () => {
    expect(first(['Range 4.2 m today. Not safe!  Why ever; high  pressure\nlow water'])[0]).toHaveLength(5);
    expect(first(['', ' … '])).toEqual([[], ['…']]);
  });

  it('are found within a sentence where another answer has them by themselves', () => {
    const [both, chart, card] = first([
      'it is on the chart you read it from the deviation card',
      'It is on the chart.',
      'You read it from the deviation card',
    ]);
    expect(both).toEqual([...(chart ?? []), ...(card ?? [])]);
  });

  it('are one up to slips and endings, and not where one denies, or another number stands', () => {
    const [right, slip, denied, more] = first([
      'The deviation changes with the heading.',
      'The deviaton changes with the heading.',
      'The deviation does not change with the heading.',
      'The deviation changes with the heading by 5 degrees.',
    ]);
    expect(slip).toEqual(right);
    expect(denied).not.toEqual(right);
    expect(more).not.toEqual(right);
  });
});

describe('lines by parts', () => {
  const told = (...marked: [string, string][]) =>
    linesByParts(
      marked.map(([parts, lines]) => ({ parts: [...parts], lines: [...lines] })),
      ['A', 'B'],
    );

  it('follow where one answer leaves no other cause', () => {
    const lines = told(['xy', 'AB'], ['x', 'A']);
    // y must be what meets B; whether it meets A as well is open.
    expect(lines(['x'])).toEqual(['A']);
    expect(lines(['y'])).toBeNull();
    expect(told(['xy', 'AB'], ['x', 'A'], ['y', 'B'])(['y', 'x'])).toEqual(['A', 'B']);
  });

  it('are open for a sentence nobody has marked, and where two could be the cause', () => {
    expect(told(['xy', 'A'])(['x'])).toBeNull();
    expect(told(['x', 'A'])(['x', 'z'])).toBeNull();
    expect(told(['x', ''], ['xy', 'A'])(['y', 'x'])).toEqual(['A']);
  });

  it('say nothing where the marks contradict one another', () => {
    expect(told(['x', 'A'], ['x', 'B'], ['y', ''])(['y'])).toBeNull();
  });

  it('whatever parts meet: what is put forward is right', () => {
    const parts = ['a', 'b', 'c', 'd', 'e'];
    const meets = fc.record(Object.fromEntries(parts.map((part) => [part, fc.subarray(['A', 'B', 'C'])])));
    const answer = fc.subarray(parts, { minLength: 1 });
    fc.assert(
      fc.property(meets, fc.array(answer, { maxLength: 12 }), answer, (truth, marked, asked) => {
        const linesOf = (all: readonly string[]) =>
          ['A', 'B', 'C'].filter((line) => all.some((part) => truth[part]?.includes(line)));
        const tell = linesByParts(
          marked.map((each) => ({ parts: each, lines: linesOf(each) })),
          ['A', 'B', 'C'],
        );
        expect([null, linesOf(asked)]).toContainEqual(tell(asked));
      }),
    );
  });
});

describe('points by parts', () => {
  it('follow from answers that differ in one', () => {
    const points = pointsByParts(
      [
        { parts: ['a', 'b'], points: 2 },
        { parts: ['a', 'c'], points: 1 },
        { parts: ['d', 'b'], points: 3 },
      ],
      5,
    );
    expect(points(['d', 'c'])).toBe(2);
    expect(points(['a'])).toBeNull();
    expect(points(['a', 'new'])).toBeNull();
  });

  it('are no proof of their parts where a bound may have cut them', () => {
    const all = pointsByParts(
      [
        { parts: ['a', 'b'], points: 3 },
        { parts: ['a'], points: 1 },
      ],
      3,
    );
    expect(all(['b'])).toBeNull();
  });

  it('are left open where marks contradict one another', () => {
    const points = pointsByParts(
      [
        { parts: ['a'], points: 1 },
        { parts: ['a'], points: 2 },
        { parts: ['b'], points: 1 },
      ],
      4,
    );
    expect(points(['a', 'b'])).toBeNull();
    expect(points(['b'])).toBe(1);
  });

  it('whatever parts are worth: what is put forward is right', () => {
    const parts = ['a', 'b', 'c', 'd', 'e'];
    const worths = fc.record(
      Object.fromEntries(parts.map((part) => [part, fc.integer({ min: 0, max: 8 }).map((n) => n / 4)])),
    );
    const answer = fc.subarray(parts, { minLength: 1 });
    fc.assert(
      fc.property(
        worths,
        fc.array(answer, { maxLength: 12 }),
        answer,
        fc.integer({ min: 1, max: 10 }),
        (worth, marked, asked, max) => {
          const pointsOf = (all: readonly string[]) =>
            Math.min(
              max,
              sumBy(all, (part) => worth[part] ?? 0),
            );
          // One sentence alone that reaches the maximum may be worth more: the rest of a sum is cut with it.
          const tell = pointsByParts(
            marked.map((each) => ({ parts: each, points: pointsOf(each) })),
            max,
          );
          expect([null, pointsOf(asked)]).toContain(tell(asked));
        },
      ),
    );
  });
});
