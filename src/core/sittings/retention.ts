import type { Sitting } from '../model/sitting';

/** For how many months after its last sitting closed the answers of a course are kept, by the course's name; absent: until they are deleted. */
export type Retention = Readonly<Record<string, number>>;

/** When a sitting was over; while it may go on without an end, when it opened. */
export const overAt = ({ closesAt, opensAt }: Pick<Sitting, 'closesAt' | 'opensAt'>): string =>
  closesAt ?? opensAt;

/**
 * When the time set for a course is over.
 *
 * @param closedAt when its last sitting closed, an instant
 * @param months calendar months, in UTC; where the month then has no such day, its last one
 */
export function dueAt(closedAt: string, months: number): string {
  const from = new Date(closedAt);
  const to = new Date(closedAt);
  to.setUTCDate(1);
  to.setUTCMonth(to.getUTCMonth() + months);
  const days = new Date(Date.UTC(to.getUTCFullYear(), to.getUTCMonth() + 1, 0)).getUTCDate();
  to.setUTCDate(Math.min(from.getUTCDate(), days));
  return to.toISOString();
}
