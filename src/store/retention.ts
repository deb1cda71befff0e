import { z } from 'zod';
import { keyOfRow } from '@/core/model/desk';
import type { Scan } from '@/core/model/scan';
import type { TableName } from '@/core/model/tables';
import type { LogEntry } from '@/core/model/log';
import type { Attempt } from '@/core/model/sitting';
import { sittingsByCourse } from '@/core/sittings/deskOrder';
import { dueAt, overAt, type Retention } from '@/core/sittings/retention';
import { done } from '@/words/done';
import { dropLeftFiles, dropUnusedFiles } from './assets';
import { runCommand } from './command';
import { forgetCopiesBefore, dropChangesOf } from './forget';
import { changesOf } from './logEntries';
import { allOwned } from './owners';
import { desk } from './tables';

/** How long the answers of a course are kept, and how they go. */

const retentionKey = 'retention';

export async function retention(): Promise<Retention> {
  const found = await desk.settings.get(retentionKey);
  return z.record(z.string(), z.number().int().min(1).max(1200)).catch({}).parse(found?.value);
}

/** @param months null: until they are deleted */
export async function setRetention(course: string, months: number | null): Promise<void> {
  const { [course]: _, ...others } = await retention();
  const value = months === null ? others : { ...others, [course]: months };
  await desk.settings.put({ key: retentionKey, value });
}

/** The answers of one course. */
export interface CourseAnswers {
  /** Empty: sittings of no course. */
  course: string;
  sittingIds: string[];
  attempts: number;
  /** When the last sitting closed. */
  closedAt: string;
  /** For how many months after that they are kept; null: until they are deleted. */
  months: number | null;
  /** When that is over. */
  dueAt: string | null;
}

/** The answers of every course, in the order of their names. */
export async function coursesHere(): Promise<CourseAnswers[]> {
  const kept = await retention();
  const courses = sittingsByCourse(await desk.sittings.toArray(), await desk.groups.toArray());
  const all = [...courses].map(async ([course, sittings]): Promise<CourseAnswers> => {
    const sittingIds = sittings.map(({ id }) => id);
    const attempts = await desk.attempts.where('sittingId').anyOf(sittingIds).count();
    const closedAt = sittings.map(overAt).sort().at(-1) ?? '';
    const months = kept[course] ?? null;
    return {
      course,
      sittingIds,
      attempts,
      closedAt,
      months,
      dueAt: months === null ? null : dueAt(closedAt, months),
    };
  });
  return (await Promise.all(all)).sort((a, b) => a.course.localeCompare(b.course, 'en'));
}

/** The courses whose time is over and of which there are answers. Costs nothing where no time is set. */
export async function coursesDue(now: number): Promise<CourseAnswers[]> {
  if (Object.keys(await retention()).length === 0) return [];
  return (await coursesHere()).filter(
    (each) => each.attempts > 0 && each.dueAt !== null && Date.parse(each.dueAt) <= now,
  );
}

/** What a sitting keeps: that it was, with its rules, what was printed, its repairs and grade lines. */
const stay: readonly TableName[] = ['prints', 'releasePlans', 'repairs', 'grades'];

/**
 * Deletes the answers of sittings, with all that hangs on them: marks, comments, results, exceptions, requests, messages,
 * scanned pages. Papers and sittings stay. It can be undone until the next copy of the desk is made.
 *
 * @param course as it is named on record
 */
export async function deleteAnswers(course: string, sittingIds: readonly string[], now: string) {
  const said = done.answersDeleted(course);
  return runCommand({ command: 'deleteAnswers', said }, now, async (record) => {
    for (const sittingId of sittingIds)
      for (const { table, row } of await allOwned('sittings', sittingId))
        if (!stay.includes(table)) await record.remove(table, keyOfRow(table, row));
  });
}

const isWaiting = ({ command, undoneAt, rows }: LogEntry) =>
  command === 'deleteAnswers' && undoneAt === null && rows > 0;

/** Whether answers were deleted that can still be brought back. */
export const deletionsWait = async (): Promise<boolean> =>
  (await desk.log.where('command').equals('deleteAnswers').filter(isWaiting).count()) > 0;

/** Before a copy of the desk is made: what was deleted and not brought back goes for good, from the record and from older copies too. */
export async function finishDeletions(): Promise<void> {
  for (const { seq = 0, at } of await desk.log
    .where('command')
    .equals('deleteAnswers')
    .filter(isWaiting)
    .toArray())
    await desk.transaction('rw', desk.tables, async () => {
      const gone = (await changesOf(desk, seq)).filter((change) => change.how === 'removed');
      const of = <T>(table: TableName) =>
        gone.filter((change) => change.table === table).map(({ row }) => row as T); // rows of that table, as they were
      const attempts = of<Attempt>('attempts');
      const files = attempts.flatMap((attempt) => attempt.files ?? []);
      const pages = of<Scan>('scans').map(({ picture }) => picture);
      await dropChangesOf(
        attempts.map(({ id }) => id),
        [seq],
      );
      await dropUnusedFiles([...files, ...pages].map(({ id }) => id));
      await forgetCopiesBefore(at);
    });
  await dropLeftFiles();
}
