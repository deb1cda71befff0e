import type { Attempt } from '../model/sitting';
import { lastAttempt } from './counting';
import { attemptState, isAside, type Terms } from './terms';

/** What happens when a student asks to start: go on with the running attempt, a new one, or not at all. */
export type StartDecision =
  | { outcome: 'resume'; attempt: Attempt }
  | { outcome: 'new'; number: number }
  | { outcome: 'refused'; why: 'notYet' | 'over' | 'closedToStarts' | 'noAttemptLeft' };

/**
 * Decides on a start. Never a second running attempt: while one runs, it is the one that goes on, even when the
 * sitting is closed to new starts. Attempts that were set aside use none up.
 *
 * @param attempts this student's attempts in this sitting
 */
export function startDecision(attempts: readonly Attempt[], terms: Terms, now: number): StartDecision {
  const last = lastAttempt(attempts);
  if (last && attemptState(last, terms, now) === 'working') return { outcome: 'resume', attempt: last };
  if (terms.start !== 'open') return { outcome: 'refused', why: terms.start };
  const made = attempts.filter((attempt) => !isAside(attempt)).length;
  if (made >= terms.attempts) return { outcome: 'refused', why: 'noAttemptLeft' };
  return { outcome: 'new', number: Math.max(0, ...attempts.map((attempt) => attempt.number)) + 1 };
}
