import { done, type Several } from '@/words/done';
import { CommandFault } from '@/core/model/commandFault';
import { Student } from '@/core/model/people';
import {
  Allowance,
  type AllowanceWish,
  type Attempt,
  type AttemptEvent,
  type Sitting,
} from '@/core/model/sitting';
import {
  attemptState,
  endOf,
  isAside,
  leftAtEnd,
  settled,
  termsFor,
  type Terms,
} from '@/core/attempts/terms';
import { lastAttempt } from '@/core/attempts/counting';
import { dropUnusedFiles, tablesOfFiles } from './assets';
import { dropProgress, runCommand, type Recorder } from './command';
import { hangingOn, type Command } from './commandTables';
import { newId } from './ids';
import { dropOwned } from './owners';
import { desk } from './tables';

/** One student by id, or several at once: one step, to be undone as one. */
export type Who = string | readonly string[];

/** Gives one student something beyond the rules of a sitting; what was given before stays. */
export async function giveAllowance(
  sittingId: string,
  who: Who,
  wish: AllowanceWish,
  reason: string,
  now: string,
) {
  return forStudents(
    'giveAllowance',
    sittingId,
    who,
    done.allowance(wish),
    now,
    async ({ record, studentId }) => {
      await record.add(
        'allowances',
        Allowance.parse({ ...wish, ...placed(sittingId, studentId, reason, now) }),
      );
    },
  );
}

/** Gives one student another attempt. One that still runs is collected first, so that never two run. */
export async function giveAttempt(sittingId: string, who: Who, reason: string, now: string) {
  return forStudents(
    'giveAttempt',
    sittingId,
    who,
    done.anotherAttempt,
    now,
    async ({ record, running, studentId }) => {
      if (running) await record.put('attempts', collected(running, reason, now));
      await record.add(
        'allowances',
        Allowance.parse({ kind: 'attempt', ...placed(sittingId, studentId, reason, now) }),
      );
    },
  );
}

/**
 * Lets a student start afresh: the attempt that counts is kept aside, with all its answers. Where the sitting is closed
 * to new starts, this student may start all the same.
 */
export async function startAfresh(sittingId: string, who: Who, reason: string, now: string) {
  return forStudents(
    'startAfresh',
    sittingId,
    who,
    done.startedAgain,
    now,
    async ({ record, last, sitting, studentId }) => {
      if (!last) throw new CommandFault('noAttemptToSetAside');
      await record.put('attempts', aside(last, reason, now));
      if (sitting.closedToStartsAt !== null)
        await record.add(
          'allowances',
          Allowance.parse({ kind: 'lateStart', ...placed(sittingId, studentId, reason, now) }),
        );
    },
  );
}

/**
 * Lets a student go on with an attempt that has ended: the same answers, and the time that was left when it ended.
 *
 * @throws {Error} in words, when there was no time left: then more minutes are what helps
 */
export async function carryOn(sittingId: string, who: Who, reason: string, now: string) {
  return forStudents('carryOn', sittingId, who, done.carriedOn, now, async ({ record, last, terms }) => {
    const at = Date.parse(now);
    const end = last && endOf(last, terms, at);
    if (!last || end === null || end === undefined) throw new CommandFault('noAttemptEnded');
    if (leftAtEnd(last, terms, at) === 0) throw new CommandFault('noTimeLeft');
    await record.put('attempts', {
      ...withEvent(last, 'carriedOn', reason, now),
      handedInAt: null,
      collectedAt: null,
      pausedMs: (last.pausedMs ?? 0) + Math.max(0, at - end),
    } satisfies Attempt);
  });
}

/** Takes running attempts in as they stand; who is not working is left alone. */
export async function collectFrom(sittingId: string, who: Who, reason: string, now: string) {
  return forStudents('collectFrom', sittingId, who, done.collected, now, async ({ record, running }) => {
    if (running) await record.put('attempts', collected(running, reason, now));
  });
}

/** Takes the attempt that counts out of all figures, and keeps it. */
export async function setAside(sittingId: string, who: Who, reason: string, now: string) {
  return forStudents('setAside', sittingId, who, done.setAside, now, async ({ record, last }) => {
    if (!last) throw new CommandFault('noAttemptToSetAside');
    await record.put('attempts', aside(last, reason, now));
  });
}

/**
 * Makes an attempt count again. Only the one made last can run: an earlier one comes back ended, and where a later one
 * comes back, what was last until then ends.
 */
export async function restoreAttempt(attemptId: string, reason: string, now: string) {
  const attempt = await desk.attempts.get(attemptId);
  return forStudents(
    'restoreAttempt',
    attempt?.sittingId ?? '',
    attempt?.studentId ?? '',
    done.attemptRestored,
    now,
    async ({ record, last, terms }) => {
      const kept = await desk.attempts.get(attemptId);
      if (!kept || !isAside(kept)) throw new CommandFault('notSetAside');
      const back: Attempt = { ...withEvent(kept, 'takenBack', reason, now), setAsideAt: null };
      const ended = (each: Attempt) =>
        attemptState(each, terms, Date.parse(now)) === 'working'
          ? collected(each, reason, now)
          : settled(each, terms, Date.parse(now));
      const earlier = last !== undefined && last.number > back.number;
      await record.put('attempts', earlier ? ended(back) : back);
      if (last && !earlier) await record.put('attempts', ended(last));
    },
  );
}

/**
 * Deletes attempts for good, with their answers, files and marks; nothing brings them back, and the log keeps only that it
 * was done. The caller names what goes, and asks first.
 */
export async function deleteAttempts(attemptIds: readonly string[], now: string) {
  const tables = [...hangingOn('attempts'), 'releases', 'openings', 'students', ...tablesOfFiles];
  return desk.transaction('rw', [...tables, 'log', 'progress'], async () => {
    const attempts = (await desk.attempts.bulkGet([...attemptIds])).filter((each) => each !== undefined);
    const [first] = attempts;
    if (!first) throw new CommandFault('attemptGone');
    for (const attempt of attempts) await deleteAttempt(attempt);
    const { sittingId } = first;
    await dropProgress(desk, sittingId);
    const student = await desk.students.get(first.studentId);
    const said = done.attemptsDeleted(attempts, student);
    const entry = { at: now, who: 'teacher', command: 'deleteAttempts', said, about: sittingId };
    await desk.log.add({ ...entry, rows: 0, undoneAt: null });
    return { said };
  });
}

async function deleteAttempt(attempt: Attempt): Promise<void> {
  const { id, sittingId, studentId } = attempt;
  await dropOwned('attempts', id);
  await desk.attempts.delete(id);
  // What was let out of it, and when it was looked at, is about nothing any more.
  if ((await desk.attempts.where({ sittingId, studentId }).count()) === 0) {
    await desk.releases.delete([sittingId, studentId]);
    await desk.openings.delete([sittingId, studentId]);
  }
  await dropUnusedFiles((attempt.files ?? []).map((file) => file.id));
}

/** Percent of every time limit that a student has more from now on, in all sittings; null: no more. */
export async function giveLasting(studentId: string, percent: number | null, reason: string, now: string) {
  const student = await desk.students.get(studentId);
  if (!student) throw new CommandFault('studentGone');
  const { extraPercent: _, ...rest } = student;
  const said = done.lastingTime(student, percent, reason);
  return runCommand({ command: 'giveLasting', said, about: studentId }, now, (record) =>
    record.put('students', Student.parse({ ...rest, ...(percent !== null && { extraPercent: percent }) })),
  );
}

interface Place {
  record: Recorder;
  studentId: string;
  sitting: Sitting;
  terms: Terms;
  /** The attempt made last, and the same while it runs. */
  last: Attempt | undefined;
  running: Attempt | undefined;
}

/** One act for one student alone, or for several: one transaction over where each of them stands. */
async function forStudents(
  command: Command,
  sittingId: string,
  who: Who,
  words: Several,
  now: string,
  work: (place: Place) => Promise<void>,
) {
  const ids = typeof who === 'string' ? [who] : who;
  const [first] = ids.length === 1 ? await desk.students.bulkGet([...ids]) : [];
  const said = done.several(words, first ? [first] : [], ids.length);
  return runCommand({ command, said, about: sittingId }, now, async (record) => {
    const sitting = await desk.sittings.get(sittingId);
    for (const studentId of ids) {
      const student = await desk.students.get(studentId);
      if (!sitting || !student) throw new CommandFault('sittingOrStudentGone');
      const place = { sittingId, studentId };
      const allowances = await desk.allowances.where(place).toArray();
      const terms = termsFor(student, sitting, allowances, Date.parse(now));
      const last = lastAttempt(await desk.attempts.where(place).toArray());
      const runs = last && attemptState(last, terms, Date.parse(now)) === 'working';
      await work({ record, studentId, sitting, terms, last, running: runs ? last : undefined });
    }
  });
}

const placed = (sittingId: string, studentId: string, reason: string, at: string) => ({
  id: newId(),
  sittingId,
  studentId,
  reason,
  at,
});

const withEvent = (attempt: Attempt, kind: AttemptEvent['kind'], reason: string, at: string): Attempt => ({
  ...attempt,
  events: [...attempt.events, { kind, at, reason }],
});

const collected = (attempt: Attempt, reason: string, now: string): Attempt => ({
  ...withEvent(attempt, 'collected', reason, now),
  collectedAt: now,
});

const aside = (attempt: Attempt, reason: string, now: string): Attempt => ({
  ...withEvent(attempt, 'setAside', reason, now),
  setAsideAt: now,
});
