import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, openQuestion, sittingOf, studentOf } from '../../../tests/unit/samples';
import type { HandMark } from '../model/mark';
import { seatsOf } from '../seats/seats';
import { arranged } from './piles/arrange';
import { sameAnswers } from './sameAnswers';
import { farApart, unequalAnswers } from './unequal';

const texts = ['Iron', 'iron.', 'iron', 'metal', 'steel', ''];
const seatsWith = (marks: HandMark[]) =>
  seatsOf(
    {
      sitting: sittingOf({ closesAt: null, timeLimitMs: null }),
      questions: [openQuestion],
      students: texts.map((_, n) => studentOf({ id: `s${n}` })),
      allowances: [],
      attempts: texts.map((text, n) =>
        attemptOf({
          ...{ id: `a${n}`, studentId: `s${n}`, questionIds: ['q4'], handedInAt: at },
          answers: { q4: { response: { text }, at } },
        }),
      ),
      marks,
      releases: [],
      openings: [],
    },
    Date.parse(at) + 1000,
  );
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
