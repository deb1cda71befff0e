import type { Attempt } from '../model/sitting';
import { endOf, type Terms } from './terms';

/** When an attempt was begun; null where that is not known: its answers came from elsewhere, and nothing says so. */
export const begunAt = ({ source, startedAt, handedInAt }: Attempt): string | null =>
  source !== undefined && startedAt === handedInAt ? null : startedAt;

/**
 * How long an attempt has taken so far, or took, without what it stood still, in ms. Null where it is not
 * known when it was begun.
 *
 * @param now ms since 1970
 */
export function timeTaken(attempt: Attempt, terms: Terms, now: number): number | null {
  const begun = begunAt(attempt);
  if (begun === null) return null;
  const ms = (endOf(attempt, terms, now) ?? now) - Date.parse(begun) - (attempt.pausedMs ?? 0);
  return Math.max(0, ms);
}
