import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../tests/unit/samples';
import type { Question } from '../kinds';
import { seatsOf } from '../seats/seats';
import { answerFigures } from './answerFigures';
import { correlation, pointBiserial } from './correlation';
import { facility } from './facility';
import { mean } from './mean';
import { quantile } from './quantile';
import { mostMissedFirst, questionFigures, studentsUnder, totalFigures } from './sittingFigures';
import { spread } from './spread';
import { standardDeviation } from './standardDeviation';

describe('figures', () => {
  // Hyndman & Fan 1996, type 7, by hand: of 1 2 3 4 the quarter lies at place 0.75, so 1.75.
  it('quantiles interpolate between neighbours', () => {
    expect(quantile([4, 1, 3, 2], 0.25)).toBe(1.75);
    expect(quantile([4, 1, 3, 2], 0.5)).toBe(2.5);
    expect(quantile([7], 0.9)).toBe(7);
  });

  // Worked by hand: squares of 2 4 4 4 5 5 7 9 about 5 sum to 32, over 7.
  it('the standard deviation divides by n − 1', () => {
    expect(standardDeviation([2, 4, 4, 4, 5, 5, 7, 9])).toBeCloseTo(Math.sqrt(32 / 7), 12);
    expect(standardDeviation([3])).toBeNull();
  });

  it('refuse what has no answer', () => {
    expect(() => mean([])).toThrow(RangeError);
    expect(() => quantile([], 0.5)).toThrow(RangeError);
    expect(() => quantile([1], 1.1)).toThrow(RangeError);
    expect(facility([], 1)).toBeNull();
    expect(facility([1, 0.5, 0], 1)).toBe(0.5);
  });

  // By hand: of 1 2 3 4 the last two chosen: means 3.5 and 1.5, deviation √1.25, half of them: 2 / √1.25 × √(½ × ½).
  it('the point-biserial correlation is Pearson’s of zeros and ones', () => {
    const spreadOf = (values: readonly number[]) => {
      const centre = mean(values);
      return { mean: centre, squares: sumBy(values, (value) => (value - centre) ** 2) };
    };
    expect(pointBiserial([2, 3], [1, 2, 3, 4], spreadOf([1, 2, 3, 4]))).toBeCloseTo(1 / Math.sqrt(1.25), 12);
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.boolean(), fc.integer({ min: 0, max: 400 })), { minLength: 2 }),
        (rows) => {
          const values = rows.map(([, value]) => value / 4);
          const chosen = rows.flatMap(([picked], place) => (picked ? [place] : []));
          const wanted = correlation(
            rows.map(([picked]) => Number(picked)),
            values,
          );
          const found = pointBiserial(chosen, values, spreadOf(values));
          if (wanted === null) expect(found).toBeNull();
          else expect(found).toBeCloseTo(wanted, 9);
        },
      ),
    );
  });

  it('every result is in one bar of the spread', () => {
    expect(spread([0, 0.1, 0.3, 0.95, 1]).map((bar) => bar.count)).toEqual([1, 1, 0, 1, 0, 0, 0, 0, 0, 2]);
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 1, noNaN: true })),
        (shares) => sumBy(spread(shares), (bar) => bar.count) === shares.length,
      ),
    );
  });
});

describe('the figures of a sitting', () => {
  const answersOf = (picked: string, text: string) => ({
    q1: { response: { picked: [picked] }, at },
    q3: { response: { text }, at },
  });
  const given = [
    ['b', 'secret-118'],
    ['c', 'west'],
    ['c', 'West '],
    ['a', 'secret half'],
  ] as const;
  const seats = seatsOf(
    {
      sitting: sittingOf(),
      questions: paperQuestions,
      students: given.map((_, index) => studentOf({ id: `s${index}` })),
      allowances: [],
      attempts: given.map(([picked, text], index) =>
        attemptOf({
          id: `a${index}`,
          studentId: `s${index}`,
          handedInAt: at,
          answers: answersOf(picked, text),
        }),
      ),
      marks: [markOf({ attemptId: 'a0', points: 3 })],
      releases: [],
      openings: [],
    },
    Date.parse(at),
  );
  const figures = questionFigures(paperQuestions, seats);

  it('say how many are not wholly marked', () => {
    // Totals 1 + 2 + 3 = 6, 0, 0 and 0 of 8; the accepted half is "secret-half", which "secret half" is not.
    expect(totalFigures(seats)).toMatchObject({
      n: 4,
      mean: 1.5,
      median: 0,
      highest: 6,
      max: 8,
      unfinished: 3,
    });
  });

  it('count what each option drew, and the commonest wrong answers first', () => {
    const of = (place: number) => answerFigures(paperQuestions[place] as Question, seats).categories;
    expect(of(0).map((category) => category.count)).toEqual([1, 1, 2]);
    const said = of(2).filter((category) => !category.offered);
    expect(said.map((category) => [category.label, category.count])).toEqual([
      ['west', 2],
      ['secret half', 1],
    ]);
  });

  it('are of the answers that have points', () => {
    expect(figures[3]).toMatchObject({ given: 4, scored: 1, blank: 4, facility: 1 });
    expect(figures[0]).toMatchObject({ facility: 0.25, blank: 0 });
  });

  it('put the most missed first, and what has no figure last', () => {
    expect(mostMissedFirst(figures).map((row) => row.number)).toEqual(['2', '1', '3', '4']);
  });

  it('name the students under a line, lowest first', () => {
    expect(studentsUnder(seats, 0.7).map((seat) => seat.student.id)).toEqual(['s1', 's2', 's3']);
  });
});
