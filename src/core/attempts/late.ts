import type { Answer, Answers, Attempt, LateAnswer } from '../model/sitting';
import { knows, sameTyping } from './versions';

/** Answers that came after the end: kept apart from what counts, until the teacher lets them count or not. */

/** No more of them are kept of one attempt: a device cannot fill the desk. */
const mostLate = 500;

/** The part of an attempt that says what was answered. */
export type Answered = Pick<Attempt, 'answers' | 'late'>;

/**
 * The answers that count: those that came in time, and the late ones that were let count over them. Of several late ones
 * to one question the one decided last.
 */
export function countedAnswers({ answers, late = [] }: Answered): Answers {
  const counting = late.filter(({ decision }) => decision?.counts === true);
  if (counting.length === 0) return answers;
  const all: Answers = { ...answers };
  for (const { questionId, decision: _, typedAt: _t, ...answer } of counting.sort(byDecision))
    all[questionId] = answer;
  return all;
}

const byDecision = (a: LateAnswer, b: LateAnswer) =>
  (a.decision?.at ?? '').localeCompare(b.decision?.at ?? '');

/** The answer to one question that counts. */
export function countedAnswer(attempt: Answered, questionId: string): Answer | undefined {
  return attempt.late === undefined || attempt.late.length === 0
    ? attempt.answers[questionId]
    : countedAnswers(attempt)[questionId];
}

/** Whether it was typed before the end, by the clock of the device as far as it followed the one that rules. */
export const typedInTime = ({ typedAt }: Pick<LateAnswer, 'typedAt'>, endedAt: number | null): boolean =>
  endedAt !== null && Date.parse(typedAt) <= endedAt;

/** Takes in what came after the end. What was taken before it, or is here already, changes nothing. */
export function withLate(
  attempt: Pick<Attempt, 'answers' | 'earlier' | 'late'>,
  late: LateAnswer,
): { late: LateAnswer[]; became: 'counts' | 'beside' | 'late' | 'refused' } {
  const before = attempt.late ?? [];
  const current = attempt.answers[late.questionId];
  if (late.stamp && current && knows(current, late)) return { late: before, became: 'counts' };
  const beside = (attempt.earlier ?? []).filter(({ questionId }) => questionId === late.questionId);
  if (late.stamp && beside.some((each) => knows(each, late))) return { late: before, became: 'beside' };
  const same = before.filter(({ questionId }) => questionId === late.questionId);
  const here = same.some((each) => (late.stamp ? knows(each, late) : sameWords(each, late)));
  if (here) return { late: before, became: 'late' };
  if (before.length >= mostLate) return { late: before, became: 'refused' };
  // What was typed on top of one that nobody has decided about takes its place.
  const left = before.filter(
    (each) =>
      each.questionId !== late.questionId || each.decision !== null || !each.stamp || !knows(late, each),
  );
  return { late: [...left, late], became: 'late' };
}

const sameWords = (a: LateAnswer, b: LateAnswer) =>
  JSON.stringify([a.response, a.typedAt]) === JSON.stringify([b.response, b.typedAt]);

/** Which late answer it is, among those of its attempt. */
export const lateKey = ({ questionId, stamp, typedAt }: LateAnswer): string =>
  stamp ? `${questionId} ${stamp.line} ${stamp.n}` : `${questionId} ${typedAt}`;

/** The same answer, typed at the same moment. */
export const sameLate = (a: LateAnswer, b: LateAnswer): boolean =>
  a.questionId === b.questionId && (sameTyping(a, b) || lateKey(a) === lateKey(b));

/** An attempt with some of its late answers decided about; @param decision null: to be decided again */
export function withDecision(
  attempt: Attempt,
  keys: readonly string[],
  decision: LateAnswer['decision'],
): Attempt {
  const late = (attempt.late ?? []).map((each) =>
    keys.includes(lateKey(each)) ? { ...each, decision } : each,
  );
  return { ...attempt, late };
}

/** Late answers that nobody has decided about. */
export const undecided = ({ late = [] }: Pick<Attempt, 'late'>): LateAnswer[] =>
  late.filter(({ decision }) => decision === null);
