import type { Question } from '../kinds';
import type { Attempt, HandMark, Sitting } from '../model/sitting';
import { jointScorecard, scoreAttempt, type Scorecard } from '../scoring/scoreAttempt';
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

/** What of a student's attempts counts, and what it scored. */
export interface Counting {
  attempt: Attempt;
  /** The attempts whose marks matter: all of them, where the best or the mean counts and none runs. */
  toMark: Attempt[];
  scorecard: Scorecard;
}

/**
 * What counts of a student's attempts at a sitting: the one answer for desk, student, figures and files. Null where there is
 * none.
 *
 * @param marksOf the hand marks of an attempt
 */
export function countingOf(
  questions: readonly Question[],
  attempts: readonly Attempt[],
  marksOf: (attempt: Attempt) => readonly HandMark[],
  sitting: Pick<Sitting, 'counts'>,
  terms: Terms,
  now: number,
): Counting | null {
  const scored = (each: Attempt) => scoreAttempt(questions, each, marksOf(each));
  const attempt = countingAttempt(attempts, sitting, terms, now, (each) => scored(each).total);
  if (!attempt) return null;
  const several = sitting.counts === 'best' || sitting.counts === 'mean';
  const running = attemptState(attempt, terms, now) === 'working';
  const toMark = several && !running ? countedAttempts(attempts) : [attempt];
  const scorecard = jointScorecard(scored(attempt), toMark.map(scored), sitting.counts === 'mean');
  return { attempt, toMark, scorecard };
}
