import { omit } from 'remeda';
import { CommandFault } from '@/core/model/commandFault';
import { fullName, registerName } from '@/core/model/names';
import type { Student } from '@/core/model/people';
import { forgottenAmong, forgottenDigest, forgottenIn, forgottenKey } from '@/core/people/forgotten';
import { sameAnswers } from '@/core/marking/sameAnswers';
import { seatsOf } from '@/core/seats/seats';
import { done } from '@/words/done';
import { dropUnusedFiles } from './assets';
import { dropOwned } from './owners';
import { sittingRecords } from './queries';
import { sitDesk } from './sitTables';
import { desk } from './tables';

/** A student asks to be forgotten: what is known of somebody goes, and nothing brings it back. */

/** Copies of the desk that were made before this moment hold somebody who is forgotten: they go with the next one. */
const copiesSinceKey = 'copiesSince';

export const copiesSince = async (): Promise<string | null> => {
  const found = await desk.settings.get(copiesSinceKey);
  return typeof found?.value === 'string' ? found.value : null;
};

export const forgetCopiesBefore = (now: string) => desk.settings.put({ key: copiesSinceKey, value: now });

/** The digests of those who were forgotten here. */
export const forgottenHere = async (): Promise<Set<string>> =>
  forgottenIn((await desk.settings.bulkGet([forgottenKey])).filter((row) => row !== undefined));

/** Whom of these students this desk has forgotten. */
export const areForgotten = async (studentIds: Iterable<string>): Promise<Set<string>> =>
  forgottenAmong(studentIds, await forgottenHere());

/**
 * Whoever was forgotten on one of two computers and came back with the other's desk is forgotten again.
 *
 * @param digests of those who were forgotten on either of them
 * @param first what is done before they go, where any of them is there
 */
export async function forgetAgain(
  digests: ReadonlySet<string>,
  now: string,
  first: (studentIds: ReadonlySet<string>) => Promise<void>,
): Promise<void> {
  if (digests.size === 0) return;
  await desk.settings.put({ key: forgottenKey, value: [...digests] });
  const back = await forgottenAmong((await desk.students.toCollection().primaryKeys()) as string[], digests);
  if (back.size > 0) await first(back);
  for (const id of back) await forgetStudent(id, now);
}

/** What there is of a student on this desk. */
export interface StudentHoldings {
  sittings: number;
  attempts: number;
  marks: number;
  /** Scanned pages. */
  pages: number;
  messages: number;
}

/** Counts what forgetting a student would delete. */
export async function holdingsOf(studentId: string): Promise<StudentHoldings> {
  const attempts = await desk.attempts.where({ studentId }).toArray();
  const ids = attempts.map(({ id }) => id);
  return {
    sittings: new Set(attempts.map(({ sittingId }) => sittingId)).size,
    attempts: attempts.length,
    marks: await desk.marks.where('attemptId').anyOf(ids).count(),
    pages: (await pagesOf(studentId)).length,
    messages: await desk.outbox.filter((message) => message.studentId === studentId).count(),
  };
}

/**
 * Forgets a student: name, codes, answers, files, scanned pages, marks, results and messages go from the desk, what the record of changes
 * holds of them too, and from what this browser keeps as the student's own device. Entries of the record that held them can't be undone any more. Figures are
 * worked out without this student from then on. Copies that were made before go once the next one is made.
 *
 * @throws {CommandFault} studentGone
 */
export async function forgetStudent(studentId: string, now: string): Promise<{ said: string }> {
  const said = done.studentForgotten;
  const digest = await forgottenDigest(studentId);
  let joinCode = '';
  await desk.transaction('rw', desk.tables, async () => {
    const student = await desk.students.get(studentId);
    if (!student) throw new CommandFault('studentGone');
    ({ joinCode } = student);
    const attempts = await desk.attempts.where({ studentId }).toArray();
    const scans = await pagesOf(studentId);
    const files = [
      ...attempts.flatMap(({ files: own = [] }) => own.map(({ id }) => id)),
      ...scans.map(({ picture }) => picture.id),
    ];
    const known = [studentId, ...attempts.map(({ id }) => id), ...scans.map(({ id }) => id)];
    await desk.scans.bulkDelete(scans.map(({ id }) => id));
    await desk.prints.toCollection().modify((print) => {
      print.copies = print.copies.map((id) => (id === studentId ? null : id));
    });
    // What lies on a server is known by these, and goes with them once it is gone there.
    if (!(await desk.pairing.get('now'))) await desk.carried.bulkDelete(attempts.map(({ id }) => id));
    await desk.readPages.clear();
    await dropOwned('students', studentId);
    await desk.students.delete(studentId);
    await leaveMarkBooks(studentId);
    await leaveShares(new Set(known));
    await dropUnusedFiles(files);
    for (const sittingId of new Set(attempts.map((attempt) => attempt.sittingId)))
      await leavePiles(sittingId, Date.parse(now));
    await leaveLog(student, known);
    await desk.progress.clear();
    await desk.totals.clear();
    await forgetCopiesBefore(now);
    await desk.settings.put({ key: forgottenKey, value: [...(await forgottenHere()).add(digest)] });
    await desk.log.add({
      ...{ at: now, who: 'teacher', command: 'forgetStudent', said, about: null },
      ...{ rows: 0, undoneAt: null },
    });
  });
  await leaveStudentsSide(joinCode);
  return { said };
}

/** The scanned pages that are a student's: of a copy printed or named for them, or with their code sticker. */
export async function pagesOf(studentId: string) {
  const copies = new Set(
    (await desk.prints.toArray()).flatMap(({ id, copies: all }) =>
      all.flatMap((owner, at) => (owner === studentId ? [`${id} ${at + 1}`] : [])),
    ),
  );
  return desk.scans
    .filter(
      ({ place, sticker }) =>
        sticker === studentId || (place !== null && copies.has(`${place.printId} ${place.copy}`)),
    )
    .toArray();
}

async function leaveMarkBooks(studentId: string): Promise<void> {
  await desk.markBooks.toCollection().modify((book) => {
    for (const column of book.columns) {
      column.excused = column.excused.filter((id) => id !== studentId);
      if (column.kind === 'typed') column.values = omit(column.values, [studentId]);
    }
  });
}

/** A share without any answer left stays as it is known to its marker. */
async function leaveShares(known: ReadonlySet<string>): Promise<void> {
  await desk.shares.toCollection().modify((share) => {
    for (const given of share.answers) given.attemptIds = given.attemptIds.filter((id) => !known.has(id));
  });
}

/** Piles keep wordings: those that nobody else wrote go. */
async function leavePiles(sittingId: string, now: number): Promise<void> {
  const piles = await desk.piles.where({ sittingId }).toArray();
  const records = piles.length > 0 ? await sittingRecords(sittingId) : null;
  if (!records) return;
  const seats = seatsOf(records, now);
  const left = new Map<string, Set<string>>();
  for (const pile of piles) {
    const question = records.questions.find(({ id }) => id === pile.questionId);
    if (!left.has(pile.questionId))
      left.set(pile.questionId, new Set(question ? sameAnswers(question, seats).map(({ id }) => id) : []));
    const members = pile.members.filter((text) => left.get(pile.questionId)?.has(text));
    if (members.length === 0) await desk.piles.delete(pile.id);
    else if (members.length < pile.members.length) await desk.piles.put({ ...pile, members });
  }
}

/** The record of changes keeps that something was done, not to whom; what it holds of their rows goes. */
async function leaveLog(student: Student, known: readonly string[]): Promise<void> {
  await dropChangesOf([...known, student.joinCode]);
  const names = [fullName(student), registerName(student), student.email].filter(Boolean);
  await desk.log.toCollection().modify((entry) => {
    if (names.some((name) => entry.said.includes(name))) entry.said = done.aboutForgotten;
    if (known.some((id) => entry.where?.includes(id))) delete entry.where;
    if (entry.about === student.id) entry.about = null;
  });
}

/**
 * What the record of changes holds of rows that name these goes: such acts can't be undone any more.
 *
 * @param acts whose changes go whatever they name, by their numbers
 */
export async function dropChangesOf(ids: readonly string[], acts: readonly number[] = []): Promise<void> {
  const holding = [...acts];
  const needles = ids.map((id) => JSON.stringify(id).slice(1, -1));
  await desk.logChanges.each(({ seq, changes }) => {
    const text = JSON.stringify(changes);
    if (needles.some((needle) => text.includes(needle))) holding.push(seq);
  });
  await desk.logChanges.bulkDelete(holding);
  await desk.log
    .where('seq')
    .anyOf(holding)
    .modify((entry) => {
      entry.rows = 0;
    });
}

/** Where this browser was the student's own device, too. */
async function leaveStudentsSide(joinCode: string): Promise<void> {
  const held = await sitDesk.attempts.filter((attempt) => attempt.joinCode === joinCode).toArray();
  const ids = new Set(held.map(({ attemptId }) => attemptId));
  await sitDesk.transaction('rw', sitDesk.tables, async () => {
    for (const table of sitDesk.tables)
      await table
        .filter(
          (row: { joinCode?: string; studentId?: string; attemptId?: string }) =>
            // Of attempts at what came by hand the join code stands for the id.
            row.joinCode === joinCode ||
            row.studentId === joinCode ||
            (row.attemptId !== undefined && ids.has(row.attemptId)),
        )
        .delete();
  });
}
