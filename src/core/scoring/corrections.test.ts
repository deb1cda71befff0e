import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { at, attemptOf, markOf, paperQuestions, samples } from '../../../tests/unit/samples';
import { correctionOf } from '../model/mark';
import type { Response } from '../kinds';
import { gradeCounts, gradeOf } from './gradeOf';
import { scoreAttempt } from './scoreAttempt';

const answer = (response: Response) => ({ response, at });
const texts = ['secret-118', 'SECRET-half', '', 'south'];

describe('a correction', () => {
  it('wins back its share of what was missing, never takes anything, and changes nothing where there were no points', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...texts),
        fc.constantFrom(...texts),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.option(fc.integer({ min: 0, max: 8 }).map((n) => n / 4)),
        fc.option(fc.integer({ min: 0, max: 8 }).map((n) => n / 4)),
        (old, next, share, given, again) => {
          const answers = { q3: answer({ text: old }), q4: answer({ text: 'iron' }) };
          const attempt = attemptOf({ handedInAt: at, answers });
          const corrections = {
            q3: { ...answer({ text: next }), share },
            q4: { ...answer({ text: 'iron nearby' }), share },
          };
          const marks = [
            markOf({ points: given }),
            markOf({ questionId: correctionOf('q4'), points: again }),
          ];
          const before = scoreAttempt(paperQuestions, attempt, marks);
          const after = scoreAttempt(paperQuestions, { ...attempt, corrections }, marks);
          expect(after.max).toBe(before.max);
          expect(after.waiting).toBe(before.waiting);
          const pointsOf = (card: typeof before, id: string) =>
            card.awards.find(({ questionId }) => questionId === id)?.points ?? null;
          for (const { id } of paperQuestions) {
            const [had, has] = [pointsOf(before, id), pointsOf(after, id)];
            if (had === null) expect(has).toBeNull();
            else expect(has).toBeGreaterThanOrEqual(had);
          }
          const max = samples.shortText.points;
          const right = scoreAttempt(
            paperQuestions,
            { ...attempt, answers: { ...answers, q3: answer({ text: next }) } },
            marks,
          );
          const [had, could] = [pointsOf(before, 'q3') ?? 0, pointsOf(right, 'q3') ?? 0];
          expect(pointsOf(after, 'q3')).toBeCloseTo(had + Math.max(0, could - had) * share, 1);
          expect(pointsOf(after, 'q3')).toBeLessThanOrEqual(max);
          if (given !== null && again !== null)
            expect(pointsOf(after, 'q4')).toBeCloseTo(given + Math.max(0, again - given) * share, 1);
        },
      ),
    );
  });
});

describe('grades', () => {
  const scale = {
    by: 'percent' as const,
    lines: [
      { grade: 'C', from: 0.5 },
      { grade: 'A', from: 0.85 },
      { grade: 'B', from: 0.7 },
    ],
  };

  it('the highest line that is reached counts; on the line is reached, a hair below is not', () => {
    const of = (points: number, max = 20) => gradeOf(scale, { points, max });
    expect([of(20), of(17), of(16.99), of(14), of(10), of(9.75)]).toEqual(['A', 'A', 'B', 'B', 'C', null]);
    // A third of a point has no exact number: 0.7 of 30 is 21, whatever the floating point says.
    expect(of(21, 30)).toBe('B');
    expect(of(0, 0)).toBeNull();
    expect(gradeOf({ ...scale, by: 'points' }, { points: 0.85, max: 20 })).toBe('A');
  });

  it('everyone has one grade or none, and better points never a lower one', () => {
    const anyScale = fc.record({
      by: fc.constantFrom('percent' as const, 'points' as const),
      lines: fc.uniqueArray(
        fc.record({
          grade: fc.constantFrom('1', '2', '3', '4', '5', '6'),
          from: fc.integer({ min: 0, max: 100 }).map((n) => n / 100),
        }),
        { minLength: 1, selector: ({ grade }) => grade },
      ),
    });
    const results = fc.array(fc.integer({ min: 0, max: 80 }).map((n) => ({ points: n / 4, max: 20 })));
    fc.assert(
      fc.property(anyScale, results, (any, all) => {
        const counted = gradeCounts(any, all);
        expect(sumBy(counted, ({ count }) => count)).toBe(all.length);
        const fromOf = (grade: string | null) => any.lines.find((line) => line.grade === grade)?.from ?? -1;
        const sorted = [...all].sort((a, b) => a.points - b.points).map((each) => fromOf(gradeOf(any, each)));
        expect([...sorted].sort((a, b) => a - b)).toEqual(sorted);
      }),
    );
  });
});
