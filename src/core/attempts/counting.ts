import type { Attempt, Sitting } from '../model/sitting';
import { attemptState, isAside, type Terms } from './terms';

/** The attempt made last, of those that have not been set aside: the only one that can still run. */
export function lastAttempt(attempts: readonly Attempt[]): Attempt | undefined {
  return attempts
    .filter((attempt) => !isAside(attempt))
    .reduce<Attempt | undefined>(
      (last, next) => (last && last.number >= next.number ? last : next),
      undefined,
    );
}

/**
 * The attempt that counts. While one runs it is that one: nothing is settled before it is in. Of equally good ones the
 * later counts.
 *
 * @param total what an attempt has in all; only asked for where the best one counts
 */
export function countingAttempt(
  attempts: readonly Attempt[],
  { counts: rule = 'last' }: Pick<Sitting, 'counts'>,
  terms: Terms,
  now: number,
  total: (attempt: Attempt) => number,
): Attempt | undefined {
  const last = lastAttempt(attempts);
  // Where the mean counts, the last stands for all: what it has in all is theirs (`jointScorecard`).
  if (!last || rule === 'last' || rule === 'mean' || attemptState(last, terms, now) === 'working')
    return last;
  const counted = attempts.filter((attempt) => !isAside(attempt)).sort((a, b) => a.number - b.number);
  if (rule === 'first') return counted[0];
  return counted.reduce((best, next) => (total(next) >= total(best) ? next : best));
}

/** Attempts that have not been set aside, in the order in which they were made. */
export function countedAttempts(attempts: readonly Attempt[]): Attempt[] {
  return attempts.filter((attempt) => !isAside(attempt)).sort((a, b) => a.number - b.number);
}
