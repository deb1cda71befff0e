/** Why the last copy could not be made. */
export type CopyFault = 'permission' | 'gone' | 'full' | 'unreachable' | 'notPaired' | 'unpaired' | 'failed';
/** How long a place rests: after a change, and so many times as long as the last copy took. */
export interface Rests {
  changeMs: number;
  times: number;
}
/** What takes long is not done all the time. */
export const fullRests: Rests = { changeMs: 2 * 60_000, times: 20 };
/** On the server, where only what changed is sent, sooner: the desk may be taken over from another computer. */
export const sentRests: Rests = { changeMs: 8_000, times: 5 };

/**
 * When the next copy of a place has to be made, ms since 1970; null while nothing has changed.
 *
 * @param changedAt since when the desk has changed beyond the last copy, ms since 1970
 * @param ended when the last try ended, and how long it took
 */
export function copyDue(
  changedAt: number | null,
  ended: { at: number; tookMs: number } | null,
  { changeMs, times }: Rests = fullRests,
): number | null {
  if (changedAt === null) return null;
  return Math.max(changedAt + changeMs, ended ? ended.at + times * ended.tookMs : 0);
}
