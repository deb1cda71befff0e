import type { AttemptStatus } from '@/carriers/Carrier';
import { joinCodeFrom, type Student } from '@/core/model/people';
import type { Attempt, Sitting } from '@/core/model/sitting';
import { attemptState, deadlineOf, graceMs, isAside, termsFor, type Terms } from '@/core/running/terms';
import { dropStandings } from './command';
import { desk } from './tables';

/** Where a student who asks stands: what every answer of the teacher's end begins with. */

export async function studentWith(joinCode: string): Promise<Student | undefined> {
  return desk.students.where('joinCode').equals(joinCodeFrom(joinCode)).first();
}

/** An access code without what typing adds. */
export const plainCode = (code: string) => code.trim().toLowerCase();

/** Whether a student is on the list of a sitting, and so may begin. */
export const isListed = (sitting: Sitting, student: Student) =>
  student.onlySittingId === sitting.id ||
  (student.archivedAt === undefined && sitting.groupIds.some((id) => student.groupIds.includes(id)));

export async function standingOfStudent(sitting: Sitting, student: Student, now: number) {
  const place = { sittingId: sitting.id, studentId: student.id };
  const attempts = await desk.attempts.where(place).toArray();
  const terms = termsFor(student, sitting, await desk.allowances.where(place).toArray(), now);
  return { attempts, terms };
}

/** Runs `work` on the student's own attempt in one transaction; null when the attempt is not this student's. */
export async function withAttempt(
  joinCode: string,
  attemptId: string,
  now: number,
  work: (attempt: Attempt, terms: Terms, sitting: Sitting) => Promise<Attempt>,
  tabId?: string,
): Promise<AttemptStatus | null> {
  return desk.transaction('rw', desk.tables, async () => {
    const student = await studentWith(joinCode);
    const attempt = await desk.attempts.get(attemptId);
    const sitting = attempt && (await desk.sittings.get(attempt.sittingId));
    if (!student || !attempt || !sitting || attempt.studentId !== student.id) return null;
    const { terms } = await standingOfStudent(sitting, student, now);
    const after = await work(attempt, terms, sitting);
    return statusOf(after, terms, now, tabId ?? after.tab?.id ?? '');
  });
}

export function stillTaken(attempt: Attempt, terms: Terms, now: number): boolean {
  if (attempt.handedInAt !== null || attempt.collectedAt !== null || isAside(attempt)) return false;
  const deadline = deadlineOf(attempt, terms);
  return deadline === null || now < deadline + graceMs;
}

export async function keepAttempt(attempt: Attempt): Promise<void> {
  await desk.attempts.put(attempt);
  await dropStandings(desk, attempt.sittingId);
}

/** @param tabId of the tab that asks: another one may have it by now */
export function statusOf(attempt: Attempt, terms: Terms, now: number, tabId: string): AttemptStatus {
  return {
    attemptId: attempt.id,
    // An attempt that was set aside is over for the student who has it open.
    state: isAside(attempt) ? 'collected' : attemptState(attempt, terms, now),
    deadline: deadlineOf(attempt, terms),
    now,
    answered: Object.keys(attempt.answers),
    elsewhere: attempt.tab !== undefined && attempt.tab.id !== tabId,
    endedAt: attempt.handedInAt ?? attempt.collectedAt ?? attempt.setAsideAt ?? null,
  };
}
