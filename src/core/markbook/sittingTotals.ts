import { sumBy } from 'remeda';
import { maySit } from '../handback/lastMaySit';
import { reliability } from '../analysis/reliability';
import { matrixOf } from '../analysis/seatsMatrix';
import type { Question } from '../kinds';
import { inFigures, isIn, seatHolds, type Seat } from '../seats/seats';
import type { Sitting } from '../model/sitting';
import type { BookCell } from './total';

/** What each student has in one sitting: a cache of its seats. */
export interface SittingTotals {
  sittingId: string;
  /** The progress it was computed with: with another, it no longer holds. */
  of: string;
  /** Ms since 1970; null: until something changes. */
  validUntil: number | null;
  cells: Record<string, BookCell>;
  /** The standard error of one result, as a share of the maximum; null: it can't be told. */
  error: number | null;
}

/** What a student has in a sitting, for a mark book. */
export function bookCell(seat: Seat): BookCell {
  const { scorecard } = seat;
  if (!isIn(seat) || !scorecard) return maySit(seat) ? { is: 'ahead' } : { is: 'missing' };
  return scorecard.final
    ? { is: 'points', points: scorecard.total, max: scorecard.max }
    : { is: 'open', points: scorecard.total, max: scorecard.scoredMax };
}

/** The cells of a sitting, by student. */
export function sittingTotals(
  sitting: Sitting,
  questions: readonly Question[],
  seats: readonly Seat[],
  of: string,
  now: number,
): SittingTotals {
  const until = seats.reduce((least, seat) => Math.min(least, seatHolds(seat, sitting, now)), Infinity);
  return {
    ...{ sittingId: sitting.id, of },
    validUntil: Number.isFinite(until) ? until : null,
    cells: Object.fromEntries(seats.map((seat) => [seat.student.id, bookCell(seat)])),
    error: resultError(questions, seats),
  };
}

function resultError(questions: readonly Question[], seats: readonly Seat[]): number | null {
  const matrix = matrixOf(questions, inFigures([...seats]).filter(isIn));
  const max = sumBy(matrix.questions, (question) => question.max);
  const trust = reliability(matrix);
  return trust && max > 0 ? trust.standardError / max : null;
}
