import { chanceFrom, type Chance } from '../basics/chance';
import { kindOf, type Question, type Response } from '../kinds';

/** One thing a made-up student does, at a time from when the rehearsal begins. */
export type RehearsalStep = { atMs: number; student: number } & (
  | { does: 'start' }
  | { does: 'answer'; questionId: string; response: Response }
  | { does: 'leave' | 'return' }
  | { does: 'handIn' }
);

/** How far the abilities of a made-up class lie apart, and how likely one of middling ability knows the answer. */
const middling = 0.62;

/**
 * What a made-up class does with a paper, in the order of time: they come in over the first minutes, answer question by
 * question at their own pace, now and then leave the page, change an answer or leave one blank; nearly all hand in, a few
 * never start or are still at work at the end. The same seed gives the same class.
 *
 * @param lengthMs how long the slowest are at work
 */
export function rehearsalPlan(
  questions: readonly Question[],
  students: number,
  lengthMs: number,
  seed: number,
): RehearsalStep[] {
  const chance = chanceFrom(seed);
  const hard = new Map(questions.map((question) => [question.id, chance.normal() * 0.8]));
  const steps: RehearsalStep[] = [];
  for (let student = 0; student < students; student++) {
    if (student > 0 && chance.happens(0.04)) continue;
    const ability = chance.normal();
    steps.push(...stepsOf(student, questions, ability, hard, lengthMs, chance));
  }
  return steps.sort((a, b) => a.atMs - b.atMs || a.student - b.student);
}

function stepsOf(
  student: number,
  questions: readonly Question[],
  ability: number,
  hard: ReadonlyMap<string, number>,
  lengthMs: number,
  chance: Chance,
): RehearsalStep[] {
  const begins = lengthMs * 0.08 * chance.share();
  const ends = begins + (lengthMs - begins) * (0.45 + 0.5 * chance.share());
  const each = (ends - begins) / Math.max(1, questions.length);
  const steps: RehearsalStep[] = [{ atMs: begins, student, does: 'start' }];
  questions.forEach((question, index) => {
    const atMs = begins + each * (index + 0.3 + 0.6 * chance.share());
    // The chance of knowing rises with ability over difficulty, as in the Rasch model (Rasch 1960).
    const knows =
      1 / (1 + Math.exp(-(ability - (hard.get(question.id) ?? 0)) - Math.log(middling / (1 - middling))));
    if (chance.happens(0.05 * (1.4 - knows))) return;
    const response = madeUpResponse(question, knows, chance);
    if (chance.happens(0.08))
      steps.push({
        atMs: atMs - each * 0.2,
        student,
        does: 'answer',
        questionId: question.id,
        response: kindOf(question).guess(question, chance),
      });
    steps.push({ atMs, student, does: 'answer', questionId: question.id, response });
    if (chance.happens(0.03)) {
      steps.push({ atMs: atMs + each * 0.02, student, does: 'leave' });
      steps.push({ atMs: atMs + each * 0.09, student, does: 'return' });
    }
  });
  if (!chance.happens(0.06)) steps.push({ atMs: ends, student, does: 'handIn' });
  return steps;
}

/** An answer someone gives who knows it with this probability. */
export function madeUpResponse(question: Question, knows: number, chance: Chance): Response {
  const kind = kindOf(question);
  const right = chance.happens(knows);
  if (right) {
    const answer = kind.rightAnswer(question);
    if (answer) return answer;
  }
  const part = chance.happens(0.35) ? kind.partlyRight(question) : null;
  return part ?? kind.guess(question, chance);
}
