import type { Answer, Attempt, EarlierAnswer, Stamp } from '../model/sitting';

/**
 * Versions of one answer. Each typing has a place in a line (one device, typing on and on), and says of each line how far
 * its student had it in view. So it is known which of two answers was made knowing of the other, whatever was lost,
 * repeated or late on its way, and whatever clocks say.
 */

/** Whether an answer was typed knowing of another; one without a stamp is known to everybody. */
export const knows = (later: Answer, earlier: Answer): boolean =>
  earlier.stamp === undefined || (later.stamp?.knows[earlier.stamp.line] ?? -1) >= earlier.stamp.n;

/** Whether it is the very same typing. */
export const sameTyping = (a: Answer, b: Answer): boolean =>
  a.stamp !== undefined && a.stamp.line === b.stamp?.line && a.stamp.n === b.stamp.n;

/** All that is known by whoever has several answers in view. */
export function knownOf(answers: readonly Answer[]): Stamp['knows'] {
  const known: Stamp['knows'] = {};
  for (const { stamp } of answers)
    for (const [line, n] of Object.entries(stamp?.knows ?? {})) known[line] = Math.max(n, known[line] ?? 0);
  return known;
}

/** What becomes of an answer that comes in while the attempt runs. */
export type Taken = Pick<Attempt, 'answers' | 'earlier'> & {
  became: 'counts' | 'beside' | 'refused';
  changed: boolean;
};

/**
 * Takes one answer in. It counts where it was typed knowing of the one that counts now; otherwise it is kept as an earlier
 * version beside it, and nothing newer is replaced. One that came before changes nothing.
 *
 * @param mayCount false where the question can no longer be changed: what comes is kept all the same
 */
export function withAnswer(
  { answers, earlier = [] }: Pick<Attempt, 'answers' | 'earlier'>,
  questionId: string,
  answer: Answer,
  mayCount = true,
): Taken {
  const current = answers[questionId];
  // Repeated or overtaken on its way: it was taken, or something that was typed on top of it was.
  if (current && answer.stamp && knows(current, answer))
    return { answers, earlier, became: 'counts', changed: false };
  if (mayCount && (!current || knows(answer, current))) {
    const before = current && worthKeeping(current, answer) ? [{ ...current, questionId }] : [];
    // What counts now may have been typed on top of a version that stood beside.
    const left = earlier.filter((each) => each.questionId !== questionId || !typedOver(each, answer));
    return {
      answers: { ...answers, [questionId]: answer },
      earlier: bounded([...left, ...before], questionId, answer),
      became: 'counts',
      changed: true,
    };
  }
  const mine = earlier.filter((each) => each.questionId === questionId);
  if (answer.stamp && mine.some((each) => knows(each, answer)))
    return { answers, earlier, became: 'beside', changed: false };
  const left = earlier.filter((each) => each.questionId !== questionId || !typedOver(each, answer));
  // Far beyond any number of devices: somebody fills the desk.
  if (mine.length >= mostVersions) return { answers, earlier, became: 'refused', changed: false };
  return {
    answers,
    earlier: bounded([...left, { ...answer, questionId }], questionId, current),
    became: 'beside',
    changed: true,
  };
}

/** How long an answer has to stand to be an earlier version of its own: typing would make hundreds. */
const stoodMs = 30_000;

/** Whether an answer is to be kept when a later one takes its place: it stood for a while, was typed elsewhere, or shrank. */
function worthKeeping(before: Answer, after: Answer): boolean {
  if (before.stamp?.line !== after.stamp?.line) return true;
  const [long, short] = [JSON.stringify(before.response).length, JSON.stringify(after.response).length];
  return Date.parse(after.at) - Date.parse(before.at) >= stoodMs || short < long * 0.75;
}

/** Whether a version is only an earlier state of what was typed on in the same line a moment later. */
const typedOver = (before: Answer, after: Answer): boolean =>
  before.stamp !== undefined &&
  before.stamp.line === after.stamp?.line &&
  knows(after, before) &&
  !worthKeeping(before, after);

/** So many earlier versions of one answer are kept that its student knew when typing on. */
const mostKnown = 20;

/** More versions of one answer are not kept at all. */
export const mostVersions = 100;

/** The versions, without the oldest of those that their student replaced knowingly, where there are too many. */
function bounded(
  earlier: readonly EarlierAnswer[],
  questionId: string,
  current: Answer | undefined,
): EarlierAnswer[] {
  const known = earlier.filter(
    (each) => each.questionId === questionId && current !== undefined && knows(current, each),
  );
  const gone = new Set(known.slice(0, Math.max(0, known.length - mostKnown)));
  return earlier.filter((each) => !gone.has(each));
}

/** An answer that counts, and others to the same question that were typed without knowing of it. */
export interface Choice {
  questionId: string;
  counts: Answer;
  others: Answer[];
}

/**
 * Where two devices answered the same question without knowing of each other, and the student has not chosen yet.
 *
 * @param open whether a question can still be changed
 */
export function choicesOf(
  { answers, earlier = [] }: Pick<Attempt, 'answers' | 'earlier'>,
  open: (questionId: string) => boolean = () => true,
): Choice[] {
  const choices: Choice[] = [];
  for (const questionId of new Set(earlier.map((each) => each.questionId))) {
    const counts = answers[questionId];
    if (!counts || !open(questionId)) continue;
    const others = earlier
      .filter((each) => each.questionId === questionId && !knows(counts, each))
      .filter((each) => JSON.stringify(each.response) !== JSON.stringify(counts.response))
      .map(({ questionId: _, ...answer }) => answer);
    if (others.length > 0) choices.push({ questionId, counts, others });
  }
  return choices;
}

/** Earlier versions of an answer as they can be read, the latest first; with whether their student knew when they were replaced. */
export function versionsOf(
  { answers, earlier = [] }: Pick<Attempt, 'answers' | 'earlier'>,
  questionId: string,
): { answer: Answer; unseen: boolean }[] {
  const counts = answers[questionId];
  return earlier
    .filter((each) => each.questionId === questionId)
    .map((answer) => ({ answer, unseen: counts !== undefined && !knows(counts, answer) }))
    .sort((a, b) => b.answer.at.localeCompare(a.answer.at));
}
