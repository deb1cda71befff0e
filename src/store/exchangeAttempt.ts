import type { AttemptStatus, HandOverRequest, Noticed, PracticeReply } from '@/carriers/Carrier';
import { kindOf, type Question } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import type { Answers, Attempt, AttemptEvent, Sitting } from '@/core/model/sitting';
import { practiceEnded, practiceView, practised, type PracticeAct } from '@/core/running/practice';
import { deadlineOf } from '@/core/running/terms';
import { withEvents } from '@/core/running/watching';
import { keepAttempt, stillTaken, withAttempt } from './exchangePlace';
import { desk } from './tables';

/** What the desk answers while a student works: answers, practice, handing in. */

/** Takes answers over as they are typed. Those that come after time is up are not taken, and the reply says so. */
export async function handOver(
  joinCode: string,
  attemptId: string,
  request: HandOverRequest,
  now: number,
): Promise<AttemptStatus | null> {
  const work = async (attempt: Attempt, sitting: Sitting) => {
    const at = new Date(now).toISOString();
    const answers = await validAnswers(attempt, sitting, request.answers, at);
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
      ...(sitting.oneByOne && {
        passed: own(attempt, [...(attempt.passed ?? []), ...(request.passed ?? [])]),
      }),
      ...(request.timeOnMs && { timeOnMs: withTime(attempt, request.timeOnMs, now) }),
    };
  };
  return withAttempt(
    joinCode,
    attemptId,
    now,
    async (attempt, terms, sitting) => {
      if (!stillTaken(attempt, terms, now)) return attempt;
      const changed = await work(attempt, sitting);
      if (changed !== attempt) await keepAttempt(changed);
      return changed;
    },
    request.tabId,
  );
}

export async function handIn(
  joinCode: string,
  attemptId: string,
  now: number,
): Promise<AttemptStatus | null> {
  return withAttempt(joinCode, attemptId, now, async (attempt, terms) => {
    if (!stillTaken(attempt, terms, now)) return attempt;
    const deadline = deadlineOf(attempt, terms);
    const at = new Date(deadline === null ? now : Math.min(now, deadline)).toISOString();
    const changed: Attempt = { ...withEvents(attempt, [{ kind: 'handedIn', at }]), handedInAt: at };
    await keepAttempt(changed);
    return changed;
  });
}

/** One act of practice, and what the question says to it. */
export async function practise(
  joinCode: string,
  attemptId: string,
  questionId: string,
  doing: PracticeAct,
  now: number,
): Promise<PracticeReply> {
  let view = null as ReturnType<typeof practiceView> | null;
  const status = await withAttempt(joinCode, attemptId, now, async (attempt, terms, sitting) => {
    const question = (await questionsOf(attempt, sitting)).find(({ id }) => id === questionId);
    if (!sitting.practice || !question || !attempt.questionIds.includes(questionId)) return attempt;
    const may =
      stillTaken(attempt, terms, now) && fits(question, doing) && !attempt.passed?.includes(questionId);
    const at = new Date(now).toISOString();
    const changed = may ? practised(question, attempt, sitting.practice, doing, at) : attempt;
    if (changed !== attempt) await keepAttempt({ ...changed, lastSeenAt: at });
    view = practiceView(question, changed, sitting.practice);
    return changed;
  });
  return view && status && { view, status };
}

/** Whether the response of a try is of the right shape for its question. */
function fits(question: Question, doing: PracticeAct): boolean {
  return doing.act !== 'try' || kindOf(question).responseSchema.safeParse(doing.response).success;
}

async function questionsOf(attempt: Attempt, sitting: Sitting): Promise<Question[]> {
  const paper = await desk.paperVersions.get([sitting.paperId, attempt.paperVersion]);
  return itemsOf(paper?.questions ?? []);
}

/** The answers that belong to this attempt, are of the right shape and can still be changed. */
async function validAnswers(
  attempt: Attempt,
  sitting: Sitting,
  answers: Answers,
  at: string,
): Promise<Answers> {
  const valid: Answers = {};
  if (Object.keys(answers).length === 0) return valid;
  const { practice, noBack, oneByOne } = sitting;
  for (const question of await questionsOf(attempt, sitting)) {
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
