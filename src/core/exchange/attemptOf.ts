import type { Question } from '../kinds';
import { itemsOf } from '../kinds/items';
import type { Student } from '../model/people';
import { joinCodeFrom } from '../basics/joinCode';
import { countedAnswers } from '../attempts/late';
import { choicesOf } from '../attempts/versions';
import type { Attempt, Sitting } from '../model/sitting';
import { attemptState, deadlineOf, graceMs, isAside, termsFor, type Terms } from '../attempts/terms';
import type { AttemptStatus } from './messages';
import type { ExchangeKeep, ExchangeRepository, ExchangeReads } from './repository';

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

/** What an act on an attempt goes by. */
export interface AttemptAct {
  attempt: Attempt;
  terms: Terms;
  sitting: Sitting;
  /** Those of its paper; none where they were not asked for. */
  questions: readonly Question[];
  keep: ExchangeKeep;
}

/** The student's own attempt with what it goes by; null when it is not this student's. */
export async function ownAttempt(
  place: ExchangeReads,
  joinCode: string,
  attemptId: string,
  now: number,
): Promise<(Pick<AttemptAct, 'attempt' | 'terms' | 'sitting'> & { student: Student }) | null> {
  const student = await studentWith(place, joinCode);
  if (!student) return null;
  const attempt = (await place.attemptsOf(student.id)).find(({ id }) => id === attemptId);
  const sitting = attempt && (await place.sitting(attempt.sittingId));
  if (!attempt || !sitting) return null;
  const { terms } = await attemptsAndTermsOf(place, sitting, student, now);
  return { student, attempt, sitting, terms };
}

/**
 * Runs `work` on the student's own attempt while nobody else changes it; null when the attempt is not this student's. What
 * it goes by is read before, so that only attempts are held meanwhile.
 *
 * @param more from which tab it comes; whether the questions are needed; what is kept beside the attempt
 */
export async function withAttempt(
  place: ExchangeRepository,
  joinCode: string,
  attemptId: string,
  now: number,
  work: (act: AttemptAct) => Promise<Attempt | HandedOver>,
  more: { tabId?: string; questions?: boolean; keeps?: 'attempt' | 'file' } = {},
): Promise<AttemptStatus | null> {
  const known = await ownAttempt(place, joinCode, attemptId, now);
  if (!known) return null;
  const { student, sitting, terms } = known;
  const paper = more.questions
    ? await place.paperVersion(sitting.paperId, known.attempt.paperVersion)
    : undefined;
  const questions = itemsOf(paper?.questions ?? []);
  const { tabId } = more;
  return place.within(student.id, more.keeps ?? 'attempt', async (keep) => {
    const attempt = (await place.attemptsOf(student.id)).find(({ id }) => id === attemptId);
    if (!attempt) return null;
    const done = await work({ attempt, terms, sitting, questions, keep });
    const { attempt: after, became } = 'became' in done ? done : { attempt: done, became: {} };
    return toldTo(place, after, terms, now, tabId, became);
  });
}

/** How an attempt stands, for the tab that asks; where it goes on somewhere else, that place says who is there. */
export function toldTo(
  place: ExchangeRepository,
  attempt: Attempt,
  terms: Terms,
  now: number,
  tabId: string | undefined,
  became: AttemptStatus['became'] = {},
): AttemptStatus {
  if (tabId === undefined || attempt.tab === undefined || attempt.tab.id === tabId) place.seen(attempt, now);
  return statusOf(attempt, terms, now, tabId ?? attempt.tab?.id ?? '', became);
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
