import { countedAttempts, countingAttempt } from '../attempts/counting';
import { attemptState, type Terms } from '../attempts/terms';
import type { Question } from '../kinds';
import type { Attempt, Sitting } from '../model/sitting';
import type { HandMark } from '../model/mark';
import { jointScorecard } from './jointScorecard';
import { scoreAttempt, type Scorecard } from './scoreAttempt';

/** What of a student's attempts counts, and what it scored. */
export interface Counting {
  attempt: Attempt;
  /** The attempts whose marks matter: all of them, where the best or the mean counts and none runs. */
  toMark: Attempt[];
  scorecard: Scorecard;
}

/**
 * What counts of a student's attempts at a sitting: the one answer for desk, student, figures and files. Null where there is
 * none.
 *
 * @param marksOf the hand marks of an attempt
 */
export function countingOf(
  questions: readonly Question[],
  attempts: readonly Attempt[],
  marksOf: (attempt: Attempt) => readonly HandMark[],
  sitting: Pick<Sitting, 'counts'>,
  terms: Terms,
  now: number,
): Counting | null {
  const cards = new Map<Attempt, Scorecard>();
  const scored = (each: Attempt): Scorecard => {
    const card = cards.get(each) ?? scoreAttempt(questions, each, marksOf(each));
    cards.set(each, card);
    return card;
  };
  const attempt = countingAttempt(attempts, sitting, terms, now, (each) => scored(each).total);
  if (!attempt) return null;
  const several = sitting.counts === 'best' || sitting.counts === 'mean';
  const running = attemptState(attempt, terms, now) === 'working';
  const toMark = several && !running ? countedAttempts(attempts) : [attempt];
  const scorecard = jointScorecard(scored(attempt), toMark.map(scored), sitting.counts === 'mean');
  return { attempt, toMark, scorecard };
}
