import { sumBy } from 'remeda';
import type { Seat } from '../seats/seats';
import { inFigures, isIn } from '../seats/seats';
import { sumPoints } from '../basics/points';
import { totalShare } from '../scoring/scoreAttempt';

/**
 * What a change of questions would do to students who are in: over their attempts that count, and nobody else's. The means
 * are over those that figures are over.
 */
export interface RescorePreview {
  students: number;
  answersChanged: number;
  /** By the share of the points, as the maximum may change too. */
  studentsUp: number;
  studentsDown: number;
  before: MeanTotal;
  after: MeanTotal;
}

/** A mean of totals, in points; of how many on the mean; and as a share of what has points, 0 to 1. */
export interface MeanTotal {
  points: number;
  max: number;
  share: number;
}

/**
 * Compares a sitting as it is scored with how it would be.
 *
 * @param before its seats as they are
 * @param after the same seats, in the same order, with the changed questions
 */
export function previewRescore(before: readonly Seat[], after: readonly Seat[]): RescorePreview {
  const preview = { students: 0, answersChanged: 0, studentsUp: 0, studentsDown: 0 };
  const pairs = before.flatMap((seat, index) => {
    const [old, next] = [seat.scorecard, after[index]?.scorecard];
    return isIn(seat) && old && next ? [{ seat, old, next }] : [];
  });
  for (const { old, next } of pairs) {
    preview.students++;
    const points = new Map(old.awards.map((award) => [award.questionId, award.points]));
    preview.answersChanged += next.awards.filter(
      (award) => points.get(award.questionId) !== award.points,
    ).length;
    const change = (totalShare(next) ?? 0) - (totalShare(old) ?? 0);
    if (change > 1e-9) preview.studentsUp++;
    if (change < -1e-9) preview.studentsDown++;
  }
  const meanOf = (side: 'old' | 'next'): MeanTotal => {
    const cards = pairs.filter(({ seat }) => inFigures([seat]).length > 0).map((pair) => pair[side]);
    const n = Math.max(1, cards.length);
    return {
      points: sumPoints(cards.map(({ total }) => total)) / n,
      max: sumPoints(cards.map(({ max }) => max)) / n,
      share: sumBy(cards, (card) => totalShare(card) ?? 0) / n,
    };
  };
  return { ...preview, before: meanOf('old'), after: meanOf('next') };
}
