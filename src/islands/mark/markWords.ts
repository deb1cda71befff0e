import { nextToMark } from '@/core/marking/nextToMark';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { pointStepOf, type PointRule, type PointsFault } from '@/core/marking/typedPoints';
import { counted, points } from '@/words/format';

/** Why points were not given, in words. */
export function refusedWords(why: PointsFault['why'], typed: string, rule: PointRule): string {
  return why === 'aboveMaximum'
    ? `${typed} was not taken: at most ${counted(rule.points, 'point')} can be given here without an adjustment (press +)`
    : `${typed} was not taken: points are given in steps of ${points(pointStepOf(rule))}`;
}

/** What Enter will do, in words. */
export function enterWords(
  current: SameAnswers,
  groups: readonly SameAnswers[],
  /** How many of them wait. */
  waiting: number,
  likes: ReadonlyMap<string, unknown>,
  nextQuestion: string | null,
): string {
  const left = waiting - (current.waiting > 0 ? 1 : 0);
  const blank = current.blank && current.waiting > 0;
  const next = nextToMark(groups, current.id, likes);
  const going = next
    ? next.waiting > 0
      ? `goes to the next one, ${left} left`
      : next.nearMiss && !next.aside
        ? 'goes to one put forward'
        : 'goes to one set aside'
    : nextQuestion === null
      ? 'stays here: nothing else is waiting'
      : `goes to question ${nextQuestion}`;
  return blank ? `gives ${counted(current.answers.length, 'blank answer')} 0 points and ${going}` : going;
}
