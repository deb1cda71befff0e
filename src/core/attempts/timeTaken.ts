import type { Attempt } from '../model/sitting';
import { endOf, type Terms } from './terms';

/**
 * How long an attempt has taken so far, or took, without what it stood still, in ms. Null where that is not known: its answers
 * came from elsewhere and nothing says when they were begun.
 *
 * @param now ms since 1970
 */
export function timeTaken(attempt: Attempt, terms: Terms, now: number): number | null {
  if (attempt.source !== undefined && attempt.startedAt === attempt.handedInAt) return null;
  const ms = (endOf(attempt, terms, now) ?? now) - Date.parse(attempt.startedAt) - (attempt.pausedMs ?? 0);
  return Math.max(0, ms);
}
