import type { Student } from '../model/people';
import { joinCodeFrom } from '../basics/joinCode';
import { countedAnswers } from '../attempts/late';
import { choicesOf } from '../attempts/versions';
import type { Attempt, Sitting } from '../model/sitting';
import { attemptState, deadlineOf, graceMs, isAside, termsFor, type Terms } from '../attempts/terms';
import type { AttemptStatus } from './messages';
import type { ExchangeKeep, ExchangePlace, ExchangeReads } from './place';

/** Where a student who asks stands: what every answer to a student begins with. */

export const studentWith = (place: ExchangeReads, joinCode: string) =>
  place.studentWith(joinCodeFrom(joinCode));

/** An access code without what typing adds. */
export const plainCode = (code: string) => code.trim().toLowerCase();

/** Whether two access codes are the same; in a time that does not tell how far they agree. */
export function sameCode(a: string, b: string): boolean {
  const [left, right] = [new TextEncoder().encode(plainCode(a)), new TextEncoder().encode(plainCode(b))];
  let differ = left.length ^ right.length;
  for (let at = 0; at < right.length; at++) differ |= (left[at] ?? 0) ^ (right[at] ?? 0);
  return differ === 0;
}

/** Whether a student is on the list of a sitting, and so may begin. */
export const isListed = (sitting: Sitting, student: Student) =>
  student.onlySittingId === sitting.id ||
  (student.archivedAt === undefined && sitting.groupIds.some((id) => student.groupIds.includes(id)));

export async function attemptsAndTermsOf(
  place: ExchangeReads,
  sitting: Sitting,
  student: Student,
  now: number,
): Promise<{ attempts: Attempt[]; terms: Terms }> {
  const attempts = await place.attemptsOf(student.id, sitting.id);
  const terms = termsFor(student, sitting, await place.allowancesOf(student.id, sitting.id), now);
  return { attempts, terms };
}

/** An attempt with what was handed over, and what became of each answer. */
export interface HandedOver {
  attempt: Attempt;
  became: AttemptStatus['became'];
}

/** Runs `work` on the student's own attempt while nobody else does; null when the attempt is not this student's. */
export async function withAttempt(
  place: ExchangePlace,
  joinCode: string,
  attemptId: string,
  now: number,
  work: (
    attempt: Attempt,
    terms: Terms,
    sitting: Sitting,
    keep: ExchangeKeep,
  ) => Promise<Attempt | HandedOver>,
  tabId?: string,
): Promise<AttemptStatus | null> {
  const student = await studentWith(place, joinCode);
  if (!student) return null;
  return place.within(student.id, async (keep) => {
    const attempt = (await place.attemptsOf(student.id)).find(({ id }) => id === attemptId);
    const sitting = attempt && (await place.sitting(attempt.sittingId));
    if (!attempt || !sitting) return null;
    const { terms } = await attemptsAndTermsOf(place, sitting, student, now);
    const done = await work(attempt, terms, sitting, keep);
    const { attempt: after, became } = 'became' in done ? done : { attempt: done, became: {} };
    // Where it goes on somewhere else, that place tells.
    if (tabId === undefined || after.tab === undefined || after.tab.id === tabId) place.seen(after, now);
    return statusOf(after, terms, now, tabId ?? after.tab?.id ?? '', became);
  });
}

/** Whether an attempt still takes answers: it runs, or its time ran out only just now. */
export function stillTaken(attempt: Attempt, terms: Terms, now: number): boolean {
  if (attempt.handedInAt !== null || attempt.collectedAt !== null || isAside(attempt)) return false;
  const deadline = deadlineOf(attempt, terms);
  return deadline === null || now < deadline + graceMs;
}

/**
 * @param tabId of the tab that asks: another one may have it by now
 * @param became of the answers that it handed over
 */
export function statusOf(
  attempt: Attempt,
  terms: Terms,
  now: number,
  tabId: string,
  became: AttemptStatus['became'] = {},
): AttemptStatus {
  const late = (attempt.late ?? []).map(({ questionId, typedAt, decision }) => ({
    questionId,
    typedAt,
    counts: decision?.counts ?? null,
  }));
  return {
    attemptId: attempt.id,
    // An attempt that was set aside is over for the student who has it open.
    state: isAside(attempt) ? 'collected' : attemptState(attempt, terms, now),
    deadline: deadlineOf(attempt, terms),
    now,
    answered: Object.keys(countedAnswers(attempt)),
    became,
    choices: choicesOf(attempt, (id) => !attempt.passed?.includes(id)),
    late,
    elsewhere: attempt.tab !== undefined && attempt.tab.id !== tabId,
    endedAt: attempt.handedInAt ?? attempt.collectedAt ?? attempt.setAsideAt ?? null,
  };
}
