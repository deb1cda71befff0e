/** Why the last copy could not be made. */
export type CopyFault = 'permission' | 'gone' | 'full' | 'unreachable' | 'notPaired' | 'unpaired' | 'failed';
/** A change is in a copy after so long. */
export const restMs = 2 * 60_000;
/** On the server, where only what changed is sent, sooner: the desk may be taken over from another computer. */
export const sentAfterMs = 8_000;
/** What takes long is not done all the time: a copy rests so many times as long as it took. */
const restsOf = 20;

/**
 * When the next copy of a place has to be made, ms since 1970; null while nothing has changed.
 *
 * @param changedAt since when the desk has changed beyond the last copy, ms since 1970
 * @param ended when the last try ended, and how long it took
 * @param afterMs how long it rests after a change
 */
export function copyDue(
  changedAt: number | null,
  ended: { at: number; tookMs: number } | null,
  afterMs: number = restMs,
): number | null {
  if (changedAt === null) return null;
  return Math.max(changedAt + afterMs, ended ? ended.at + restsOf * ended.tookMs : 0);
}
