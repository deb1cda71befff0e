import { CommandFault } from '@/core/model/commandFault';
import type { AnswerPaper } from '@/core/model/answerPaper';
import { fullName } from '@/core/model/names';
import type { Student } from '@/core/model/people';
import type { Scan } from '@/core/model/scan';
import type { Answer, Attempt } from '@/core/model/sitting';
import { copyKey } from '@/core/intake/paper/notReadByCopy';
import { numberOnPaper } from '@/core/intake/paper/numberOnPaper';
import { paperAttempt, withSettled } from '@/core/intake/paper/paperAttempt';
import { kindOf, type Question } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import { done } from '@/words/done';
import { runCommand, type CommandName, type Recorder } from './command';
import { newId } from './ids';
import { desk } from './tables';

/** One copy of a print. */
export interface CopyPlace {
  printId: string;
  copy: number;
}

const key = ({ printId, copy }: CopyPlace) => copyKey(printId, copy);

/** Brings the pages of one file in, as one step; pages that are here already, from the same place of the same file, are not doubled. */
export const bringScans = (sittingId: string, scans: readonly Scan[], now: string) =>
  onPaper(
    { command: 'bringScans', said: done.scansImported(scans.length), about: sittingId },
    now,
    sittingId,
    async (record) => {
      const here = new Set((await scansHere(sittingId)).map(fromText));
      const fresh = scans.filter((scan) => !here.has(fromText(scan)));
      await record.addAll('scans', fresh);
      await countCopies(record, sittingId, fresh);
      return fresh;
    },
  );

/** Copies of papers that were printed elsewhere are as many as were scanned. */
async function countCopies(record: Recorder, sittingId: string, scans: readonly Scan[]): Promise<void> {
  for (const print of await desk.prints.where({ sittingId }).toArray()) {
    if (!print.foreign) continue;
    const last = Math.max(
      0,
      ...scans.flatMap(({ place }) => (place?.printId === print.id ? place.copy : [])),
    );
    const more = Array.from({ length: Math.max(0, last - print.copies.length) }, () => null);
    if (more.length > 0) await record.put('prints', { ...print, copies: [...print.copies, ...more] });
  }
}

const fromText = ({ from }: Scan) => `${from.digest} ${from.page}`;

const scansHere = (sittingId: string) => desk.scans.where({ sittingId }).toArray();

/** What was ticked in one row of boxes of one copy, as somebody saw it. */
export const settleRow = (
  sittingId: string,
  at: CopyPlace,
  row: { questionId: string; part: string; number: string },
  ticked: readonly string[],
  now: string,
) =>
  onPaper(
    { command: 'changeScans', said: done.boxesSettled(row.number), about: sittingId },
    now,
    sittingId,
    async (record) => {
      const print = await desk.prints.get(at.printId);
      if (!print) throw new CommandFault('printGone');
      const changed: Scan[] = [];
      for (const scan of await scansHere(sittingId)) {
        const { place, thrownOutAt } = scan;
        if (place?.printId !== at.printId || place.copy !== at.copy || thrownOutAt !== undefined) continue;
        const next = withSettled(print, scan, row, ticked);
        if (next === scan) continue;
        await record.put('scans', next);
        changed.push(next);
      }
      return changed;
    },
  );

/** Puts one scanned page in place of what it was taken for; `read` where it was read anew by that. */
export const placeScan = (
  scan: Scan,
  read: Pick<Scan, 'is' | 'place' | 'boxes' | 'areas' | 'picture'>,
  now: string,
) => changeScans([scan], ({ thrownOutAt: _, ...each }) => ({ ...each, ...read }), done.scanPlaced, now);

export const throwOut = (scans: readonly Scan[], now: string) =>
  changeScans(scans, (scan) => ({ ...scan, thrownOutAt: now }), done.scansThrownOut(scans.length), now);

export const takeScanBack = (scan: Scan, now: string) =>
  changeScans([scan], ({ thrownOutAt: _, ...each }) => each, done.scanTakenBack, now);

async function changeScans(scans: readonly Scan[], step: (scan: Scan) => Scan, said: string, now: string) {
  const sittingId = scans[0]?.sittingId ?? '';
  return onPaper({ command: 'changeScans', said, about: sittingId }, now, sittingId, async (record) => {
    const touched: Scan[] = [];
    for (const { id } of scans) {
      const stored = await desk.scans.get(id);
      if (!stored) throw new CommandFault('scanGone');
      const next = step(stored);
      await record.put('scans', next);
      touched.push(stored, next);
    }
    return touched;
  });
}

/** Says whose one copy is. */
export async function nameCopy(sittingId: string, at: CopyPlace, studentId: string, now: string) {
  const student = await desk.students.get(studentId);
  if (!student) throw new CommandFault('studentGone');
  const said = done.copyNamed(fullName(student), at.copy);
  return onPaper({ command: 'nameCopy', said, about: sittingId }, now, sittingId, async (record) => {
    const print = await desk.prints.get(at.printId);
    if (!print) throw new CommandFault('printGone');
    if (print.copies.some((each, index) => each === studentId && index + 1 !== at.copy))
      throw new CommandFault('copyTaken');
    await record.put('prints', { ...print, copies: print.copies.with(at.copy - 1, studentId) });
    const own = await attemptOf(sittingId, at);
    if (own) await record.put('attempts', { ...own, studentId });
    return [{ place: { ...at, page: 1 } }];
  });
}

/** Says whose papers are that nobody is named for yet, all at once. */
export const nameCopies = (
  sittingId: string,
  named: readonly (CopyPlace & { studentId: string })[],
  now: string,
) =>
  onPaper(
    { command: 'nameCopy', said: done.copiesNamed(named.length), about: sittingId },
    now,
    sittingId,
    async (record) => {
      for (const print of await desk.prints.where({ sittingId }).toArray()) {
        const own = named.filter(
          ({ printId, copy }) => printId === print.id && print.copies[copy - 1] === null,
        );
        const copies = [...print.copies];
        for (const { copy, studentId } of own) copies[copy - 1] = studentId;
        if (own.length > 0) await record.put('prints', { ...print, copies });
      }
      return named.map(({ printId, copy }) => ({ place: { printId, copy, page: 1 } }));
    },
  );

/**
 * Runs a command over scans, and makes the attempts anew of the copies whose pages were touched: what they say is never stored
 * otherwise than by its pages.
 */
async function onPaper(
  name: CommandName,
  now: string,
  sittingId: string,
  work: (record: Recorder) => Promise<readonly Pick<Scan, 'place'>[]>,
) {
  return runCommand(name, now, async (record) => {
    const touched = [...(await work(record)), ...(await nameByPages(record, sittingId))];
    const copies = new Map(touched.flatMap(({ place }) => (place ? [[key(place), place] as const] : [])));
    await makeAttempts(record, sittingId, [...copies.values()], now);
  });
}

/** Papers without a name on which a number is ticked, or a code sticks, are those of the student who has it: of the sitting's groups, and with no other paper. */
async function nameByPages(record: Recorder, sittingId: string): Promise<Pick<Scan, 'place'>[]> {
  const prints = (await desk.prints.where({ sittingId }).toArray()).filter(
    ({ digits, foreign }) => digits !== undefined || foreign,
  );
  if (prints.length === 0) return [];
  const named: Pick<Scan, 'place'>[] = [];
  const sitting = await desk.sittings.get(sittingId);
  const scans = await scansHere(sittingId);
  const taken = new Set(prints.flatMap(({ copies }) => copies));
  for (const print of prints) {
    let next = print;
    for (const scan of scans) {
      const { place, thrownOutAt } = scan;
      if (place?.printId !== print.id || thrownOutAt !== undefined || next.copies[place.copy - 1] !== null)
        continue;
      const [student, another] = (await sayingStudents(print, scan)).filter(
        ({ archivedAt, groupIds }) =>
          archivedAt === undefined && groupIds.some((id) => sitting?.groupIds.includes(id)),
      );
      if (!student || another || taken.has(student.id)) continue;
      taken.add(student.id);
      named.push({ place });
      next = { ...next, copies: next.copies.with(place.copy - 1, student.id) };
    }
    if (next !== print) await record.put('prints', next);
  }
  return named;
}

/** Whom a page names by a code that sticks on it, or by the number that is ticked. */
async function sayingStudents(print: AnswerPaper, scan: Scan): Promise<Student[]> {
  if (scan.sticker !== undefined) return desk.students.where({ id: scan.sticker }).toArray();
  const number = numberOnPaper(print, scan);
  return number === null ? [] : desk.students.where({ number }).toArray();
}

/** The attempts of some copies, from the pages that are there now. A copy that is nobody's yet has none. */
async function makeAttempts(
  record: Recorder,
  sittingId: string,
  copies: readonly CopyPlace[],
  now: string,
): Promise<void> {
  const sitting = await desk.sittings.get(sittingId);
  if (!sitting) throw new CommandFault('sittingOrStudentGone');
  const [scans, attempts, prints] = await Promise.all([
    scansHere(sittingId),
    desk.attempts.where({ sittingId }).toArray(),
    desk.prints.where({ sittingId }).toArray(),
  ]);
  const byCopy = new Map(
    attempts.flatMap((attempt) =>
      attempt.copy ? [[copyKey(attempt.copy.printId, attempt.copy.number), attempt] as const] : [],
    ),
  );
  const scansByCopy = new Map<string, Scan[]>();
  for (const scan of scans)
    if (scan.place) scansByCopy.set(key(scan.place), [...(scansByCopy.get(key(scan.place)) ?? []), scan]);
  const questionsOf = new Map<number, ReturnType<typeof itemsOf>>();
  for (const { paperVersion } of prints) {
    const paper = await desk.paperVersions.get([sitting.paperId, paperVersion]);
    if (paper) questionsOf.set(paperVersion, itemsOf(paper.questions));
  }
  for (const at of copies) {
    const print = prints.find(({ id }) => id === at.printId);
    const questions = print && questionsOf.get(print.paperVersion);
    if (!print || !questions) continue;
    const before = byCopy.get(key(at)) ?? null;
    const studentId = before?.studentId ?? print.copies[at.copy - 1] ?? null;
    if (studentId === null) continue;
    const others = attempts.filter((attempt) => attempt.studentId === studentId && attempt !== before);
    const attempt = paperAttempt(print, at.copy, questions, scansByCopy.get(key(at)) ?? [], before, {
      ...{ id: newId(), sittingId, studentId, paperVersion: print.paperVersion, now },
      number: Math.max(0, ...others.map(({ number }) => number)) + 1,
    });
    if (attempt && !sameAttempt(attempt, before)) await record.put('attempts', attempt);
  }
}

/** Whether nothing of it is new but when it was looked at. */
const sameAttempt = (attempt: Attempt, before: Attempt | null) =>
  before !== null &&
  JSON.stringify({ ...attempt, lastSeenAt: '' }) === JSON.stringify({ ...before, lastSeenAt: '' });

async function attemptOf(sittingId: string, at: CopyPlace): Promise<Attempt | undefined> {
  const all = await desk.attempts.where({ sittingId }).toArray();
  return all.find(({ copy }) => copy?.printId === at.printId && copy.number === at.copy);
}

/**
 * What stands on paper in words, typed by the teacher, once for all that say the same. It is scored by the key from then on; a blank
 * text takes it back.
 *
 * @returns whether the words can be an answer to the question
 */
export async function typeAnswers(
  question: Question,
  attemptIds: readonly string[],
  text: string,
  now: string,
): Promise<boolean> {
  const response = text.trim() ? kindOf(question).fromText(question, text) : null;
  if (text.trim() && !response) return false;
  const sittingId = (await desk.attempts.get(attemptIds[0] ?? ''))?.sittingId ?? '';
  await onPaper(
    { command: 'typeAnswers', said: done.answersTyped(attemptIds.length), about: sittingId },
    now,
    sittingId,
    async (record) => {
      const touched: Pick<Scan, 'place'>[] = [];
      for (const attempt of await desk.attempts.bulkGet([...attemptIds])) {
        const answer = attempt?.answers[question.id];
        if (!attempt?.copy || !answer) continue;
        const { typed: _, ...was } = answer;
        const next: Answer = response ? { ...was, response, at: now, typed: true } : { ...was, at: now };
        await record.put('attempts', { ...attempt, answers: { ...attempt.answers, [question.id]: next } });
        const { printId, number } = attempt.copy;
        touched.push({ place: { printId, copy: number, page: 1 } });
      }
      return touched;
    },
  );
  return true;
}

/** Takes the pictures of pages away for good; what was read of them stays. */
export async function throwPicturesAway(scans: readonly Scan[], now: string): Promise<void> {
  const name = {
    command: 'changeScans',
    said: done.picturesThrownAway(scans.length),
    about: scans[0]?.sittingId ?? '',
    lasting: true,
  } as const;
  await runCommand(name, now, async (record) => {
    for (const { id } of scans) {
      const stored = await desk.scans.get(id);
      if (stored) await record.put('scans', { ...stored, pictureGoneAt: now });
    }
  });
  // Two pages may be the same picture, of which one stays.
  const still = new Set(
    (await desk.scans.toArray()).flatMap(({ picture, pictureGoneAt }) =>
      pictureGoneAt === undefined ? [picture.id] : [],
    ),
  );
  await desk.assets.bulkDelete(scans.flatMap(({ picture: { id } }) => (still.has(id) ? [] : [id])));
}
