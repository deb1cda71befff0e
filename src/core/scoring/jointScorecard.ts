import { sumBy } from 'remeda';
import { roundPoints } from '../basics/points';
import type { Scorecard } from './scoreAttempt';

/**
 * The scorecard of an attempt that stands for several: it is open while any of them is, for that may change which
 * is the best, or the mean.
 *
 * @param mean whether the mean of all is its total: of their shares, on its own maximum
 */
export function jointScorecard(card: Scorecard, all: readonly Scorecard[], mean: boolean): Scorecard {
  if (all.length < 2) return card;
  const sum = (of: (each: Scorecard) => number) => sumBy(all, of);
  return {
    ...card,
    waiting: sum((each) => each.waiting),
    noKey: sum((each) => each.noKey),
    notRead: sum((each) => each.notRead),
    final: all.every((each) => each.final),
    ...(mean && meanOf(card, all)),
  };
}

/** The mean of several attempts: of the points given so far and of what they are of, on the maximum of the one that stands for all. */
function meanOf(
  card: Scorecard,
  all: readonly Scorecard[],
): Pick<Scorecard, 'total' | 'scoredMax' | 'meanOf'> {
  const mean = (of: (each: Scorecard) => number) =>
    roundPoints((sumBy(all, (each) => (each.max > 0 ? of(each) / each.max : 0)) / all.length) * card.max);
  return {
    total: mean(({ total }) => total),
    scoredMax: mean(({ scoredMax }) => scoredMax),
    meanOf: all.map(({ attemptId, total, max }) => ({ attemptId, total, max })),
  };
}
