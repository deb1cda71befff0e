import type { ScriptQuestion, Verdict } from '@/core/handback/script';
import { counted, dayAlone } from '@/words/format';

export const verdictWords: Record<Verdict, string> = {
  right: 'right',
  part: 'partly right',
  wrong: 'not right',
  blank: 'not answered',
  noKey: 'not scored',
};

/** "Rescored on Nov 27, 2026: the key was wrong. You had 0 points for it before." */
export function repairWords({ at, reason, how, before }: NonNullable<ScriptQuestion['repair']>): string {
  const did = {
    key: 'Rescored',
    everyone: 'Everyone was given the points',
    answered: 'Everyone who answered was given the points',
    dropped: 'Taken out of the total',
  }[how];
  const had = before === null ? '' : ` You had ${counted(before, 'point')} for it before.`;
  return `${did} on ${dayAlone(at)}: ${reason.replace(/[.\s]+$/, '')}.${had}`;
}

/** Where a question stands on the page. */
export const questionAt = (row: ScriptQuestion) => `returned-${row.question.id}`;
