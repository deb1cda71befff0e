/** How long somebody has been marking without a pause. */
export interface Stretch {
  /** Ms since 1970 of its first act and its last. */
  since: number;
  last: number;
  /** Whether it was said that a pause is due. */
  reminded: boolean;
}

/** So long without an act is a pause. */
const pauseMs = 5 * 60_000;

/**
 * A stretch of marking with one more act.
 *
 * @param before null: nothing was done yet
 * @param now ms since 1970
 * @param afterMs after how long a pause is due; null: never
 * @returns the stretch, and whether a pause is due: said once for each
 */
export function worked(
  before: Stretch | null,
  now: number,
  afterMs: number | null,
): { stretch: Stretch; due: boolean } {
  const goesOn = before !== null && now - before.last < pauseMs;
  const since = goesOn ? before.since : now;
  const reminded = goesOn && before.reminded;
  const due = !reminded && afterMs !== null && now - since >= afterMs;
  return { stretch: { since, last: now, reminded: reminded || due }, due };
}
