import { z } from 'zod';
import { keyOfRow } from '@/core/model/desk';
import type { TableName } from '@/core/model/tables';
import { courseOf } from '@/core/sittings/deskOrder';
import { dueAt, overAt, type Retention } from '@/core/sittings/retention';
import { done } from '@/words/done';
import { dropUnusedFiles } from './assets';
import { runCommand } from './command';
import { forgetCopiesBefore, dropChangesOf } from './forget';
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
  const groups = await desk.groups.toArray();
  const courses = new Map<string, CourseAnswers>();
  for (const sitting of await desk.sittings.toArray()) {
    if (sitting.rehearsal === true || sitting.share === true) continue;
    const own = groups.filter(({ id }) => sitting.groupIds.includes(id));
    const course = courseOf({ sitting, groups: own }).course ?? '';
    const before = courses.get(course);
    const over = overAt(sitting);
    const closedAt = before && before.closedAt > over ? before.closedAt : over;
    const months = kept[course] ?? null;
    courses.set(course, {
      ...{ course, closedAt, months, dueAt: months === null ? null : dueAt(closedAt, months) },
      sittingIds: [...(before?.sittingIds ?? []), sitting.id],
      attempts: (before?.attempts ?? 0) + (await desk.attempts.where({ sittingId: sitting.id }).count()),
    });
  }
  return [...courses.values()].sort((a, b) => a.course.localeCompare(b.course, 'en'));
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

const deletedKey = 'answersDeleted';
const Deleted = z
  .object({ seq: z.number(), attemptIds: z.string().array(), fileIds: z.string().array() })
  .array()
  .catch([]);

/**
 * Deletes the answers of sittings, with all that hangs on them: marks, comments, results, exceptions, requests, messages,
 * scanned pages. Papers and sittings stay. It can be undone until the next copy of the desk is made.
 *
 * @param course as it is named on record
 */
export async function deleteAnswers(course: string, sittingIds: readonly string[], now: string) {
  const said = done.answersDeleted(course);
  const deleted = await runCommand({ command: 'deleteAnswers', said }, now, async (record) => {
    const attemptIds: string[] = [];
    const fileIds: string[] = [];
    for (const sittingId of sittingIds) {
      for (const attempt of await desk.attempts.where({ sittingId }).toArray()) {
        attemptIds.push(attempt.id);
        fileIds.push(...(attempt.files ?? []).map(({ id }) => id));
      }
      fileIds.push(...(await desk.scans.where({ sittingId }).toArray()).map(({ picture }) => picture.id));
      for (const { table, row } of await allOwned('sittings', sittingId))
        if (!stay.includes(table)) await record.remove(table, keyOfRow(table, row));
    }
    return { attemptIds, fileIds };
  });
  if (deleted.seq !== null) {
    const before = Deleted.parse((await desk.settings.get(deletedKey))?.value);
    await desk.settings.put({ key: deletedKey, value: [...before, { seq: deleted.seq, ...deleted.result }] });
  }
  return deleted;
}

/** Before a copy of the desk is made: what was deleted and not brought back goes for good, from the record and from older copies too. */
export async function finishDeletions(): Promise<void> {
  const deleted = Deleted.parse((await desk.settings.get(deletedKey))?.value);
  if (deleted.length === 0) return;
  for (const { seq, attemptIds, fileIds } of deleted) {
    const entry = await desk.log.get(seq);
    if (!entry || entry.undoneAt !== null) continue;
    await desk.transaction('rw', desk.tables, async () => {
      await dropChangesOf(attemptIds, [seq]);
      await dropUnusedFiles(fileIds);
      await forgetCopiesBefore(entry.at);
    });
  }
  await desk.settings.delete(deletedKey);
}
