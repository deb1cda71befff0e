import { adjusted, unadjusted, type Adjustment, type MarkValues } from '../model/mark';
import type { Award } from '../scoring/scoreAttempt';

/** What a marker's act makes of a mark. What is left out stays as it was. */
export type MarkChange = Partial<MarkValues>;

type Marked = Pick<MarkValues, 'points' | 'adjustment'>;
type Keyed = Pick<Award, 'byKey'>;

/** Points given by number: what was given beside them goes, for all of it is said now. */
export const givenPoints = (points: number): MarkChange => ({ points, adjustment: undefined, aside: false });

/** No points by hand any more; over a key, what it gives holds again. */
export const clearedPoints: MarkChange = { points: null, lines: [], adjustment: undefined };

/** What an adjustment is added to: the points by hand without one, else the key's, else none. */
export const basePoints = ({ byKey }: Keyed, mark: Marked | undefined): number =>
  mark === undefined || mark.points === null ? (byKey ?? 0) : unadjusted(mark);

/** Points given or taken beside what there is; null: no longer. */
export function adjustedMark(award: Keyed, mark: Marked, adjustment: Adjustment | null): MarkChange {
  const base = basePoints(award, mark);
  if (adjustment === null) return base === award.byKey ? clearedPoints : givenPoints(base);
  return { points: adjusted(base, adjustment), adjustment, aside: false };
}

/**
 * What a comment gives or takes off beside the points there are, with what was given before it: its words are the reason.
 * Nothing where there are no points by hand yet: it would mark the answer.
 */
export function withCommentPoints(mark: Marked, comment: { text: string; points: number }): MarkChange {
  if (mark.points === null) return {};
  const before = mark.adjustment;
  const adjustment = {
    points: (before?.points ?? 0) + comment.points,
    reason: (before ? `${before.reason}; ${comment.text}` : comment.text).slice(0, 500),
  };
  return { points: adjusted(unadjusted(mark), adjustment), adjustment };
}

/** Points that some of several equal answers have, and what came with them. */
export interface GivenPoints {
  points: number;
  /** How many answers have them. */
  answers: number;
  lines: string[];
  adjustment?: Adjustment | undefined;
}

/** What an answer becomes when it gets what equal ones have. Where the key gives as much, the key does. */
export function evenedMark({ byKey }: Keyed, mark: Marked, to: GivenPoints): MarkChange {
  if (byKey === to.points) return mark.points === null ? {} : clearedPoints;
  return { points: to.points, lines: to.lines, adjustment: to.adjustment, aside: false };
}
