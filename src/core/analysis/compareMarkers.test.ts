import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { markOf } from '../../../tests/unit/samples';
import type { HandMark } from '../model/mark';
import {
  agreementOf,
  differing,
  differingAnswers,
  markedTwice,
  markersMet,
  settledValues,
} from './compareMarkers';

const by = (markerId: string, attemptId: string, points: number | null, part: Partial<HandMark> = {}) =>
  markOf({ markerId, attemptId, points, ...part });
const marks = [
  by('teacher', 'a1', 3, { lines: ['l1', 'l2'], comment: 'Good' }),
  by('m1', 'a1', 1, { lines: ['l2'], comment: 'Which chart?' }),
  by('teacher', 'a2', 2),
  by('m1', 'a2', 2),
  by('m2', 'a2', 1.5),
  by('m1', 'a3', null),
  by('teacher', 'a3', 1),
];

describe('two markers over the same answers', () => {
  it('are held against each other where both gave points', () => {
    const twice = markedTwice(marks, 'teacher', 'm1');
    expect(twice.map(({ attemptId }) => attemptId)).toEqual(['a1', 'a2']);
    expect(agreementOf(twice)).toMatchObject({ answers: 2, exact: 0.5, meanDifference: 1 });
    expect(differing(twice).map(({ attemptId }) => attemptId)).toEqual(['a1']);
    expect(markersMet(marks, ['teacher', 'm1', 'm2'])).toEqual([
      { first: 'teacher', second: 'm1', answers: 2 },
      { first: 'teacher', second: 'm2', answers: 1 },
      { first: 'm1', second: 'm2', answers: 1 },
    ]);
  });

  it('equal answers with the same two values are one thing to settle', () => {
    const same = ['b1', 'b2'].flatMap((id) => [by('teacher', id, 1), by('m1', id, 0)]);
    const found = differingAnswers(markedTwice([...marks, ...same], 'teacher', 'm1'), ({ attemptId }) => ({
      id: attemptId.slice(0, 1),
      text: `answer ${attemptId}`,
    }));
    expect(found.map(({ text, pairs }) => [text, pairs.length])).toEqual([
      ['answer a1', 1],
      ['answer b1', 2],
    ]);
  });

  it('settled by the mean both comments stay, and the lines that both saw', () => {
    const [pair] = markedTwice(marks, 'teacher', 'm1');
    if (!pair) throw new Error('no pair');
    expect(settledValues(pair, 'mean')).toEqual({
      ...{ points: 2, lines: ['l2'], comment: 'Good\nWhich chart?', aside: false },
    });
    expect(settledValues(pair, 'second')).toMatchObject({ points: 1, comment: 'Which chart?' });
  });

  it('the mean lies between what they gave, and is kept to a hundredth', () => {
    const points = fc.integer({ min: 0, max: 400 }).map((each) => each / 100);
    fc.assert(
      fc.property(points, points, (a, b) => {
        const pair = { questionId: 'q4', attemptId: 'a', first: by('m1', 'a', a), second: by('m2', 'a', b) };
        const mean = settledValues(pair, 'mean').points ?? NaN;
        expect(mean).toBeGreaterThanOrEqual(Math.min(a, b));
        expect(mean).toBeLessThanOrEqual(Math.max(a, b));
        expect(Math.round(mean * 100)).toBeCloseTo(mean * 100, 9);
      }),
    );
  });
});
