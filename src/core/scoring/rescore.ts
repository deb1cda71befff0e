import type { Question } from '../kinds';
import type { HandMark } from '../model/sitting';
import { sumPoints } from './points';
import { scoreAttempt, type ScoredAttempt } from './scoreAttempt';

/** What a change of questions would do to answers already in. */
export interface RescorePreview {
  answersChanged: number;
  studentsUp: number;
  studentsDown: number;
  meanBefore: number;
  meanAfter: number;
}

/**
 * Scores every attempt with the questions as they are and as they would be, and counts what changes. Hand marks
 * hold in both.
 *
 * @param marksOf the hand marks by attempt id
 */
export function previewRescore(
  before: readonly Question[],
  after: readonly Question[],
  attempts: readonly ScoredAttempt[],
  marksOf: ReadonlyMap<string, HandMark[]>,
): RescorePreview {
  const preview = { answersChanged: 0, studentsUp: 0, studentsDown: 0 };
  const totals: [number, number][] = [];
  for (const attempt of attempts) {
    const marks = marksOf.get(attempt.id) ?? [];
    const old = scoreAttempt(before, attempt, marks);
    const next = scoreAttempt(after, attempt, marks);
    const pointsBefore = new Map(old.awards.map((award) => [award.questionId, award.points]));
    preview.answersChanged += next.awards.filter(
      (award) => pointsBefore.get(award.questionId) !== award.points,
    ).length;
    if (next.total > old.total) preview.studentsUp++;
    if (next.total < old.total) preview.studentsDown++;
    totals.push([old.total, next.total]);
  }
  const mean = (side: 0 | 1) =>
    totals.length ? sumPoints(totals.map((pair) => pair[side])) / totals.length : 0;
  return { ...preview, meanBefore: mean(0), meanAfter: mean(1) };
}
