import { sum } from 'remeda';
import { kindOf, type Question } from '../kinds';
import { typedInTime, withLate } from '../attempts/late';
import { knownOf, withAnswer } from '../attempts/versions';
import type { Answers, Attempt, AttemptEvent, Sitting, Stamp } from '../model/sitting';
import { practiceEnded, practiceView, practised, type PracticeAct } from '../attempts/practice';
import { attemptState, deadlineOf, graceMs, isAside, type Terms } from '../attempts/terms';
import { withEvents } from '../attempts/watching';
import type { AttemptStatus, HandOverRequest, Noticed, PracticeReply } from './messages';
import type { ExchangeRepository } from './repository';
import { stillTaken, withAttempt, type HandedOver } from './attemptOf';

/** What is answered while a student works: answers, practice, handing in. */

/**
 * Takes answers over as they are typed. What comes after the end is kept apart from what counts, and the reply says what
 * became of each.
 */
export async function handOver(
  place: ExchangeRepository,
  joinCode: string,
  attemptId: string,
  request: HandOverRequest,
  now: number,
): Promise<AttemptStatus | null> {
  const answers = Object.keys(request.answers).length > 0;
  return withAttempt(
    place,
    joinCode,
    attemptId,
    now,
    async ({ attempt, terms, sitting, questions, keep }) => {
      if (!answers && !stillTaken(attempt, terms, now)) return attempt;
      const done = handedOver(attempt, questions, sitting, terms, request, now);
      if (done.attempt !== attempt) await keep.attempt(done.attempt);
      return done;
    },
    { tabId: request.tabId, questions: answers },
  );
}

/**
 * An attempt with what its student's side hands over; the same attempt where there is nothing of it to take.
 *
 * @param questions those of its paper; none are needed where no answers come
 */
export function handedOver(
  attempt: Attempt,
  questions: readonly Question[],
  sitting: Manner,
  terms: Terms,
  request: HandOverRequest,
  now: number,
): HandedOver {
  const given = stamped(attempt, fitting(attempt, questions, request.answers), request);
  const became: AttemptStatus['became'] = Object.fromEntries(
    Object.keys(request.answers).map((id) => [id, 'refused']),
  );
  if (!stillTaken(attempt, terms, now)) return handedOverLate(attempt, sitting, terms, given, became, now);
  const at = new Date(now).toISOString();
  let versions: Pick<Attempt, 'answers' | 'earlier'> = attempt;
  const events: AttemptEvent[] = [];
  for (const question of questions) {
    const answer = given[question.id];
    if (!answer) continue;
    const may = mayChange(attempt, question, sitting);
    const taken = withAnswer(versions, question.id, { ...answer, at }, may);
    became[question.id] = taken.became;
    if (!taken.changed) continue;
    versions = taken;
    events.push({ kind: 'answered', at, questionId: question.id });
  }
  const { answers, earlier = [] } = versions;
  const kept =
    versions === attempt ? attempt : { ...attempt, answers, ...(earlier.length > 0 && { earlier }) };
  const here = attempt.tab === undefined || attempt.tab.id === request.tabId;
  if (!here || isOld(attempt, request))
    return { attempt: events.length === 0 ? attempt : withEvents(kept, events), became };
  return {
    became,
    attempt: {
      ...withEvents(kept, [...noticedEvents(attempt, request.noticed ?? [], now), ...events]),
      comeBack: own(attempt, request.comeBack ?? attempt.comeBack),
      lastSeenAt: at,
      ...(attempt.tab &&
        request.sequence !== undefined && { tab: { ...attempt.tab, sequence: request.sequence } }),
      ...(sitting.oneByOne && {
        passed: own(attempt, [...(attempt.passed ?? []), ...(request.passed ?? [])]),
      }),
      ...(request.timeOnMs && { timeOnMs: withTime(attempt, request.timeOnMs, now) }),
    },
  };
}

/** Answers that came after the end. By the rule of the sitting those count that were typed before it and came soon after. */
function handedOverLate(
  attempt: Attempt,
  { forgivenMs = 0 }: Manner,
  terms: Terms,
  given: Answers,
  became: AttemptStatus['became'],
  now: number,
): HandedOver {
  const at = new Date(now).toISOString();
  const deadline = deadlineOf(attempt, terms);
  // Who handed in, or was collected from, had an end that no broken connection moved.
  const byTime = attemptState(attempt, terms, now) === 'collectedByTime' && !isAside(attempt);
  const soon = byTime && deadline !== null && forgivenMs > 0 && now <= deadline + graceMs + forgivenMs;
  const before = attempt.late ?? [];
  let late = before;
  for (const [questionId, { at: typedAt, ...answer }] of Object.entries(given)) {
    const inTime = Date.parse(typedAt) >= Date.parse(attempt.startedAt) && typedInTime({ typedAt }, deadline);
    const taken = withLate(
      { ...attempt, late },
      {
        ...answer,
        questionId,
        at,
        typedAt,
        decision: soon && inTime ? { counts: true, by: 'rule', reason: '', at } : null,
      },
    );
    became[questionId] = taken.became;
    late = taken.late;
  }
  return { attempt: late === before ? attempt : { ...attempt, late }, became };
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
  place: ExchangeRepository,
  joinCode: string,
  attemptId: string,
  now: number,
): Promise<AttemptStatus | null> {
  return withAttempt(place, joinCode, attemptId, now, async ({ attempt, terms, keep }) => {
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
  place: ExchangeRepository,
  joinCode: string,
  attemptId: string,
  questionId: string,
  doing: PracticeAct,
  now: number,
): Promise<PracticeReply> {
  let view = null as ReturnType<typeof practiceView> | null;
  const status = await withAttempt(
    place,
    joinCode,
    attemptId,
    now,
    async ({ attempt, terms, sitting, questions, keep }) => {
      const question = questions.find(({ id }) => id === questionId);
      if (!sitting.practice || !question || !attempt.questionIds.includes(questionId)) return attempt;
      const may =
        stillTaken(attempt, terms, now) && fits(question, doing) && !attempt.passed?.includes(questionId);
      const at = new Date(now).toISOString();
      const changed = may ? practised(question, attempt, sitting.practice, doing, at) : attempt;
      if (changed !== attempt) await keep.attempt({ ...changed, lastSeenAt: at });
      view = practiceView(question, changed, sitting.practice);
      return changed;
    },
    { questions: true },
  );
  return view && status && { view, status };
}

/** Whether the response of a try is of the right shape for its question. */
function fits(question: Question, doing: PracticeAct): boolean {
  return doing.act !== 'try' || kindOf(question).responseSchema.safeParse(doing.response).success;
}

type Manner = Pick<Sitting, 'practice' | 'noBack' | 'oneByOne' | 'forgivenMs'>;

/** The answers that belong to this attempt and are of the right shape. */
function fitting(attempt: Attempt, questions: readonly Question[], answers: Answers): Answers {
  const fit: Answers = {};
  for (const question of questions) {
    const answer = answers[question.id];
    if (!answer || !attempt.questionIds.includes(question.id)) continue;
    const response = kindOf(question).responseSchema.safeParse(answer.response);
    if (response.success) fit[question.id] = { ...answer, response: response.data };
  }
  return fit;
}

/** Whether the answer to a question can still be changed. */
function mayChange(attempt: Attempt, question: Question, { practice, noBack, oneByOne }: Manner): boolean {
  if (oneByOne && noBack && attempt.passed?.includes(question.id)) return false;
  return !(practice && practiceEnded(question, attempt, practice));
}

/**
 * Answers that each say what their student had in view. One that does not say it (a program of another's, a file of an
 * older version) comes from the tab that asks: where the attempt is there, all that is here was in view.
 */
function stamped(attempt: Attempt, answers: Answers, { tabId, sequence = 0 }: HandOverRequest): Answers {
  const here = attempt.tab === undefined || attempt.tab.id === tabId;
  return Object.fromEntries(
    Object.entries(answers).map(([id, answer]) => {
      if (answer.stamp) return [id, { ...answer, stamp: withSelf(answer.stamp) }];
      const current = attempt.answers[id];
      const known = here && current ? knownOf([current]) : {};
      const n = Math.max(sequence, (known[tabId] ?? 0) + (sequence > 0 ? 0 : 1));
      return [id, { ...answer, stamp: { line: tabId, n, knows: { ...known, [tabId]: n } } }];
    }),
  );
}

/** A stamp knows at least itself, whatever its sender says, and nothing later of its own line. */
const withSelf = (stamp: Stamp): Stamp => ({ ...stamp, knows: { ...stamp.knows, [stamp.line]: stamp.n } });

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
  let room = Math.max(0, now - Date.parse(attempt.startedAt)) - sum(Object.values(time));
  for (const id of own(attempt, Object.keys(more))) {
    const taken = Math.max(0, Math.min(room, more[id] ?? 0));
    time[id] = (time[id] ?? 0) + taken;
    room -= taken;
  }
  return time;
}
