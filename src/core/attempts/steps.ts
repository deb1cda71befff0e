import type { Question, StudentQuestion } from '../kinds';
import { workingOf } from '../kinds/fillings';

/** What stands in front of a student at once where a paper is sat one by one: a question with its working. */
export function stepsOf<Q extends Question | StudentQuestion>(questions: readonly Q[]): Q[][] {
  const steps: Q[][] = [];
  for (const question of questions) {
    const of = workingOf(question);
    const before = steps.at(-1);
    if (of !== undefined && before?.some(({ id }) => id === of)) before.push(question);
    else steps.push([question]);
  }
  return steps;
}

/** The place of the first step that is not done with; the last one where all are. */
export function firstOpenStep(
  steps: readonly (readonly { id: string }[])[],
  passed: readonly string[],
): number {
  const open = steps.findIndex((step) => step.some(({ id }) => !passed.includes(id)));
  return open < 0 ? Math.max(0, steps.length - 1) : open;
}
