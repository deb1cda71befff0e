import { kindOf, type Question } from '../kinds';
import { itemsOf } from '../kinds/items';
import type { Answers, Attempt, AttemptEvent, Sitting } from '../model/sitting';
import { practiceEnded, practiceView, practised, type PracticeAct } from '../running/practice';
import { deadlineOf, type Terms } from '../running/terms';
import { withEvents } from '../running/watching';
import type { AttemptStatus, HandOverRequest, Noticed, PracticeReply } from './messages';
import type { ExchangePlace } from './place';
import { stillTaken, withAttempt } from './standing';

/** What is answered while a student works: answers, practice, handing in. */

/** Takes answers over as they are typed. Those that come after time is up are not taken, and the reply says so. */
export async function handOver(
  place: ExchangePlace,
  joinCode: string,
  attemptId: string,
  request: HandOverRequest,
  now: number,
): Promise<AttemptStatus | null> {
  return withAttempt(
    place,
    joinCode,
    attemptId,
    now,
    async (attempt, terms, sitting, keep) => {
      if (!stillTaken(attempt, terms, now)) return attempt;
      const answers = Object.keys(request.answers).length > 0;
      const questions = answers ? await questionsOf(place, attempt, sitting) : [];
      const changed = handedOver(attempt, questions, sitting, request, now);
      if (changed !== attempt) await keep.attempt(changed);
      return changed;
    },
    request.tabId,
  );
}

/**
 * An attempt that still takes answers, with what its student's side hands over; the same attempt where there is nothing
 * of it to take.
 *
 * @param questions those of its paper; none are needed where no answers come
 */
export function handedOver(
  attempt: Attempt,
  questions: readonly Question[],
  sitting: Manner,
  request: HandOverRequest,
  now: number,
): Attempt {
  if (isOld(attempt, request)) return attempt;
  const at = new Date(now).toISOString();
  const answers = validAnswers(attempt, questions, sitting, request.answers, at);
  const here = attempt.tab === undefined || attempt.tab.id === request.tabId;
  // What another tab still had on its way is taken, unless this question was answered anew since.
  const taken = here ? answers : olderThan(attempt, answers);
  const events: AttemptEvent[] = Object.keys(taken).map((questionId) => ({
    kind: 'answered',
    at,
    questionId,
  }));
  const kept = { ...attempt, answers: { ...attempt.answers, ...taken } };
  if (!here) return events.length === 0 ? attempt : withEvents(kept, events);
  return {
    ...withEvents(kept, [...noticedEvents(attempt, request.noticed ?? [], now), ...events]),
    comeBack: own(attempt, request.comeBack ?? attempt.comeBack),
    lastSeenAt: at,
    ...(attempt.tab &&
      request.sequence !== undefined && { tab: { ...attempt.tab, sequence: request.sequence } }),
    ...(sitting.oneByOne && {
      passed: own(attempt, [...(attempt.passed ?? []), ...(request.passed ?? [])]),
    }),
    ...(request.timeOnMs && { timeOnMs: withTime(attempt, request.timeOnMs, now) }),
  };
}

/**
 * Whether something newer from the same tab was taken already: this was held up on its way, or comes a second time. What
 * is in it was in the newer one too, as nothing of it had been acknowledged.
 */
function isOld({ tab }: Attempt, { tabId, sequence }: HandOverRequest): boolean {
  if (tab?.id !== tabId || tab.sequence === undefined || sequence === undefined) return false;
  return sequence <= tab.sequence;
}

export async function handIn(
  place: ExchangePlace,
  joinCode: string,
  attemptId: string,
  now: number,
): Promise<AttemptStatus | null> {
  return withAttempt(place, joinCode, attemptId, now, async (attempt, terms, _sitting, keep) => {
    const changed = handedIn(attempt, terms, now);
    if (changed !== attempt) await keep.attempt(changed);
    return changed;
  });
}

/** The attempt handed in, at the latest when its time was up; the same attempt where it is over already. */
export function handedIn(attempt: Attempt, terms: Terms, now: number): Attempt {
  if (!stillTaken(attempt, terms, now)) return attempt;
  const deadline = deadlineOf(attempt, terms);
  const at = new Date(deadline === null ? now : Math.min(now, deadline)).toISOString();
  return { ...withEvents(attempt, [{ kind: 'handedIn', at }]), handedInAt: at };
}

/** One act of practice, and what the question says to it. */
export async function practise(
  place: ExchangePlace,
  joinCode: string,
  attemptId: string,
  questionId: string,
  doing: PracticeAct,
  now: number,
): Promise<PracticeReply> {
  let view = null as ReturnType<typeof practiceView> | null;
  const status = await withAttempt(place, joinCode, attemptId, now, async (attempt, terms, sitting, keep) => {
    const question = (await questionsOf(place, attempt, sitting)).find(({ id }) => id === questionId);
    if (!sitting.practice || !question || !attempt.questionIds.includes(questionId)) return attempt;
    const may =
      stillTaken(attempt, terms, now) && fits(question, doing) && !attempt.passed?.includes(questionId);
    const at = new Date(now).toISOString();
    const changed = may ? practised(question, attempt, sitting.practice, doing, at) : attempt;
    if (changed !== attempt) await keep.attempt({ ...changed, lastSeenAt: at });
    view = practiceView(question, changed, sitting.practice);
    return changed;
  });
  return view && status && { view, status };
}

/** Whether the response of a try is of the right shape for its question. */
function fits(question: Question, doing: PracticeAct): boolean {
  return doing.act !== 'try' || kindOf(question).responseSchema.safeParse(doing.response).success;
}

async function questionsOf(place: ExchangePlace, attempt: Attempt, sitting: Sitting): Promise<Question[]> {
  const paper = await place.paperVersion(sitting.paperId, attempt.paperVersion);
  return itemsOf(paper?.questions ?? []);
}

type Manner = Pick<Sitting, 'practice' | 'noBack' | 'oneByOne'>;

/** The answers that belong to this attempt, are of the right shape and can still be changed. */
function validAnswers(
  attempt: Attempt,
  questions: readonly Question[],
  { practice, noBack, oneByOne }: Manner,
  answers: Answers,
  at: string,
): Answers {
  const valid: Answers = {};
  for (const question of questions) {
    const answer = answers[question.id];
    if (!answer || !attempt.questionIds.includes(question.id)) continue;
    if (oneByOne && noBack && attempt.passed?.includes(question.id)) continue;
    if (practice && practiceEnded(question, attempt, practice)) continue;
    const response = kindOf(question).responseSchema.safeParse(answer.response);
    if (response.success) valid[question.id] = { response: response.data, at };
  }
  return valid;
}

/** Answers to questions that nobody has answered since the attempt went on in another tab. */
function olderThan(attempt: Attempt, answers: Answers): Answers {
  const since = attempt.tab?.since ?? '';
  return Object.fromEntries(
    Object.entries(answers).filter(([id]) => {
      const kept = attempt.answers[id];
      return kept === undefined || kept.at < since;
    }),
  );
}

const own = (attempt: Attempt, ids: readonly string[]) =>
  [...new Set(ids)].filter((id) => attempt.questionIds.includes(id));

/** What the student's side noticed, at the time by the clock that rules. */
function noticedEvents(attempt: Attempt, noticed: readonly Noticed[], now: number): AttemptEvent[] {
  const from = Date.parse(attempt.startedAt);
  return noticed.map(({ kind, agoMs }) => ({
    kind,
    at: new Date(Math.max(from, now - agoMs)).toISOString(),
  }));
}

/** Time at each question with more of it; together never more than there was. */
function withTime(attempt: Attempt, more: Record<string, number>, now: number): Record<string, number> {
  const time = { ...attempt.timeOnMs };
  let room =
    Math.max(0, now - Date.parse(attempt.startedAt)) - Object.values(time).reduce((a, b) => a + b, 0);
  for (const id of own(attempt, Object.keys(more))) {
    const taken = Math.max(0, Math.min(room, more[id] ?? 0));
    time[id] = (time[id] ?? 0) + taken;
    room -= taken;
  }
  return time;
}
