import { keptProgress } from '@/core/analysis/keptProgress';
import { sittingTotals, type SittingTotals } from '@/core/markbook/sittingTotals';
import { GradeTemplate, type GradeScale } from '@/core/model/gradeScale';
import { MarkBook, type MarkBookColumn } from '@/core/model/markBook';
import { byRegister } from '@/core/model/names';
import { seatsOf } from '@/core/seats/seats';
import { done } from '@/words/done';
import { runCommand } from './command';
import { newId } from './ids';
import { keepProgress, sittingRecords, studentsIn } from './queries';
import { desk } from './tables';

/** A column that counts like any other. */
const newColumn = () => ({
  ...{ id: newId(), categoryId: null, weight: 1, bonus: false, dropped: false, excused: [] },
});
export const sittingColumn = (sittingId: string): MarkBookColumn => ({
  ...{ ...newColumn(), kind: 'sitting', sittingId },
});
/** One to type in, out of ten to begin with. */
export const typedColumn = (title: string): MarkBookColumn => ({
  ...{ ...newColumn(), kind: 'typed', title, max: 10, values: {} },
});

/** A mark book over these groups, with every sitting of theirs in the order in which they were. */
export async function createMarkBook(title: string, groupIds: readonly string[], now: string) {
  const sittings = await desk.sittings
    .where('groupIds')
    .anyOf([...groupIds])
    .distinct()
    .filter(({ rehearsal, share }) => rehearsal !== true && share !== true)
    .toArray();
  const book = MarkBook.parse({
    ...{ id: newId(), title, groupIds, categories: [], missing: 'nothing', decimals: 0, scale: null },
    columns: sittings.sort((a, b) => a.opensAt.localeCompare(b.opensAt)).map(({ id }) => sittingColumn(id)),
    ...{ createdAt: now, changedAt: now },
  });
  const name = { command: 'createMarkBook' as const, said: done.markBookCreated(title), about: book.id };
  return runCommand(name, now, async (record) => {
    await record.add('markBooks', book);
    return book.id;
  });
}

/**
 * @param base as the book was when it was opened: what was changed elsewhere since stays
 * @param joins names a run of typing, so that it is one step to undo
 */
export async function changeMarkBook(
  book: MarkBook,
  said: string,
  now: string,
  base?: MarkBook,
  joins?: string,
) {
  const name = { command: 'changeMarkBook' as const, said, about: book.id, ...(joins && { joins }) };
  return runCommand(name, now, (record) =>
    record.putChanged('markBooks', MarkBook.parse({ ...book, changedAt: now }), base),
  );
}

export async function deleteMarkBook({ id, title }: MarkBook, now: string) {
  const name = { command: 'deleteMarkBook' as const, said: done.markBookDeleted(title), about: id };
  return runCommand(name, now, (record) => record.remove('markBooks', [id]));
}

export async function setSittingGrades(
  sittingId: string,
  scale: GradeScale | null,
  now: string,
  joins?: string,
) {
  const name = {
    command: 'changeGrades' as const,
    said: done.gradesChanged,
    about: sittingId,
    ...(joins && { joins }),
  };
  return runCommand(name, now, (record) =>
    scale ? record.put('grades', { ...scale, sittingId }) : record.remove('grades', [sittingId]),
  );
}

export async function keepGradeTemplate(name: string, scale: GradeScale, now: string) {
  return runCommand({ command: 'keepGradeTemplate', said: done.gradesSaved(name) }, now, async (record) => {
    const same = await desk.gradeTemplates.filter((each) => each.name === name).first();
    await record.put('gradeTemplates', GradeTemplate.parse({ ...scale, name, id: same?.id ?? newId() }));
  });
}

export async function removeGradeTemplate({ id, name }: GradeTemplate, now: string) {
  return runCommand({ command: 'removeGradeTemplate', said: done.gradesDeleted(name) }, now, (record) =>
    record.remove('gradeTemplates', [id]),
  );
}

/** A mark book with whom it is over, and what is known of its sittings: those that are stale have to be computed. */
export async function markBookRows(id: string, now: number) {
  const book = await desk.markBooks.get(id);
  if (!book) return null;
  const ids = book.columns.flatMap((column) => (column.kind === 'sitting' ? [column.sittingId] : []));
  const [students, groups, sittings, totals, progress, scales] = await Promise.all([
    studentsIn(book.groupIds),
    desk.groups.bulkGet(book.groupIds),
    desk.sittings.bulkGet(ids),
    desk.totals.bulkGet(ids),
    desk.progress.bulkGet(ids),
    desk.grades.bulkGet(ids),
  ]);
  const holds = (of: SittingTotals | undefined, index: number): of is SittingTotals =>
    of?.error !== undefined &&
    of.of === progress[index]?.key &&
    (of.validUntil === null || of.validUntil > now);
  return {
    book,
    students: students.sort(byRegister),
    groups: groups.filter((group) => group !== undefined),
    sittings: sittings.filter((sitting) => sitting !== undefined),
    scales: new Map(scales.flatMap((scale) => (scale ? [[scale.sittingId, scale] as const] : []))),
    totals: new Map(totals.flatMap((of, index) => (holds(of, index) ? [[of.sittingId, of] as const] : []))),
    stale: ids.filter((sittingId, index) => sittings[index] && !holds(totals[index], index) && sittingId),
  };
}
export type MarkBookRows = NonNullable<Awaited<ReturnType<typeof markBookRows>>>;

/** Computes what students have in a sitting, and keeps it with its progress. */
export async function keepSittingTotals(sittingId: string, now: number): Promise<void> {
  const records = await sittingRecords(sittingId);
  if (!records) return;
  const known = await desk.progress.get(sittingId);
  if (!known?.key || (known.validUntil !== null && known.validUntil <= now))
    await keepProgress([keptProgress(records, now)]);
  const key = (await desk.progress.get(sittingId))?.key;
  if (key)
    await desk.totals.put(sittingTotals(records.sitting, records.questions, seatsOf(records, now), key, now));
}

/** Every mark book, by title. */
export const markBooks = () => desk.markBooks.toCollection().sortBy('title');
