import { kindOf, type Question, type Response, type StudentQuestion } from '../kinds';

/** What stands in front of a student at once where a paper is sat one by one: a question with its working. */
export function stepsOf<Q extends { id: string }>(questions: readonly Q[]): Q[][] {
  const steps: Q[][] = [];
  for (const question of questions) {
    const of = 'workingOf' in question ? question.workingOf : undefined;
    const before = steps.at(-1);
    if (of !== undefined && before?.some(({ id }) => id === of)) before.push(question);
    else steps.push([question]);
  }
  return steps;
}

/** How far an answer has come. */
export type AnswerFill = 'open' | 'half' | 'done';

/** How far an answer has come: the same to its student, on the receipt and to the teacher. */
export function fillOf(
  question: Question | StudentQuestion,
  response: Response | null | undefined,
): AnswerFill {
  const kind = kindOf(question);
  if (response === undefined || response === null || kind.isBlank(response)) return 'open';
  return kind.isHalf?.(question, response) ? 'half' : 'done';
}

/** The place of the first step that is not done with; the last one where all are. */
export function firstOpenStep(
  steps: readonly (readonly { id: string }[])[],
  passed: readonly string[],
): number {
  const open = steps.findIndex((step) => step.some(({ id }) => !passed.includes(id)));
  return open < 0 ? Math.max(0, steps.length - 1) : open;
}
