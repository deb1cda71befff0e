/** What a student is told of the time, once each. */
export type TimeWarning = 'half' | 'five' | 'one';

const minuteMs = 60_000;

/**
 * The warning that holds: half of the time, five minutes, one minute. Half is left out where it would come with the five
 * minutes. Null before the first, and where there is no limit.
 *
 * @param totalMs how long the student has in all
 */
export function timeWarning(leftMs: number | null, totalMs: number | null): TimeWarning | null {
  if (leftMs === null) return null;
  if (leftMs <= minuteMs) return 'one';
  if (leftMs <= 5 * minuteMs) return 'five';
  const half = totalMs === null ? 0 : totalMs / 2;
  return half > 6 * minuteMs && leftMs <= half ? 'half' : null;
}
