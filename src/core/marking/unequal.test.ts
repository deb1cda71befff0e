import { describe, expect, it } from 'vitest';
import { courseText, markOf, openQuestion } from '../../../tests/unit/samples';
import { textSeats } from '../../../tests/unit/textSeats';
import type { HandMark } from '../model/mark';
import { arranged } from './piles/arrange';
import { sameAnswers } from './sameAnswers';
import { farApart, unequalAnswers } from './unequal';

const texts = ['Iron', 'iron.', 'iron', 'metal', 'steel', ''];
const seatsWith = (marks: HandMark[]) => textSeats(texts, marks);
const mark = (n: number, points: number, lines: string[] = []) =>
  markOf({ attemptId: `a${n}`, points, lines });

describe('equal answers with unequal points', () => {
  it('are listed with each value and how many have it, the most given first', () => {
    const found = unequalAnswers(
      [openQuestion],
      seatsWith([mark(0, 2, ['l1']), mark(1, 1), mark(2, 2, ['l1'])]),
    );
    expect(found.map(({ number, group, given }) => [number, group.text, given])).toEqual([
      [
        '1',
        'Iron',
        [
          { points: 2, answers: 2, lines: ['l1'] },
          { points: 1, answers: 1, lines: [] },
        ],
      ],
    ]);
  });

  it('take along what was given beside the lines', () => {
    const adjustment = { points: 1, reason: 'A sketch' };
    const [first] = unequalAnswers([openQuestion], seatsWith([{ ...mark(0, 5), adjustment }, mark(1, 1)]));
    expect(first?.given.map((each) => [each.points, each.adjustment])).toEqual([
      [5, adjustment],
      [1, undefined],
    ]);
  });

  it('of a key are those that a marker gave something else', () => {
    const scored = (marks: HandMark[]) =>
      unequalAnswers([courseText], textSeats(['wrong', 'wrong'], marks, courseText)).length;
    expect(scored([])).toBe(0);
    expect(scored([markOf({ attemptId: 'a0', questionId: courseText.id, points: 1 })])).toBe(1);
  });

  it('are none while the others only wait', () => {
    expect(unequalAnswers([openQuestion], seatsWith([mark(0, 2)]))).toEqual([]);
    expect(unequalAnswers([openQuestion], seatsWith([mark(0, 2), mark(1, 2), mark(2, 2)]))).toEqual([]);
  });
});

describe('similar answers far apart', () => {
  const far = (marks: HandMark[]) => {
    const groups = sameAnswers({ ...openQuestion }, seatsWith(marks));
    return farApart(openQuestion, arranged(groups, [], [['metal', 'steel']]));
  };

  it('are those of a pile with more than a quarter of the points between them', () => {
    expect(far([mark(3, 0), mark(4, 2)]).map(({ apart, members }) => [apart, members.length])).toEqual([
      [2, 2],
    ]);
    expect(far([mark(3, 2), mark(4, 1.75)])).toEqual([]);
    expect(far([mark(3, 2)])).toEqual([]);
  });
});
