import { sumBy } from 'remeda';
import { groupBy } from '../../basics/groupBy';
import { shuffled } from '../../basics/shuffled';
import type { Question } from '../../kinds';
import type { Seat } from '../../seats/seats';
import type { AnswersGiven } from '../../model/share';
import { awaitsMarker, sameAnswers, type SameAnswers } from '../sameAnswers';

/** One answer: whose, to what. */
interface AnswerPlace {
  questionId: string;
  attemptId: string;
}

/** Answers by question, in the order in which they come. */
export const answersGiven = (places: readonly AnswerPlace[]): AnswersGiven[] =>
  [...groupBy(places, ({ questionId }) => questionId)].map(([questionId, of]) => ({
    questionId,
    attemptIds: of.map(({ attemptId }) => attemptId),
  }));

/** The answers to these questions that can be given to somebody: of everyone who is in, blank ones too. */
export function answersToGive(
  questions: readonly Question[],
  seats: readonly Seat[],
  { groupId, onlyWaiting }: { groupId: string | null; onlyWaiting: boolean },
): AnswersGiven[] {
  const ids = new Set(
    seats
      .filter(({ student }) => groupId === null || student.groupIds.includes(groupId))
      .map(({ student }) => student.id),
  );
  return answersGiven(
    questions.flatMap((question) =>
      // What stands on paper alone has names on its page: it stays on this desk.
      sameAnswers(question, seats).flatMap(({ answers, onPaper }) =>
        (onPaper ? [] : answers)
          .filter(({ studentId, award }) => ids.has(studentId) && (!onlyWaiting || awaitsMarker(award)))
          .map(({ attemptId }) => ({ questionId: question.id, attemptId })),
      ),
    ),
  );
}

/** How many answers to these questions stand on paper alone, and go to nobody. */
export const keptOnPaper = (questions: readonly Question[], seats: readonly Seat[]): number =>
  sumBy(
    questions.flatMap((question) => sameAnswers(question, seats)),
    ({ onPaper, answers }) => (onPaper ? answers.length : 0),
  );

export interface Dealing {
  /** How many markers there are. */
  markers: number;
  /** Whether each marks all, or an even part of them. */
  each: 'all' | 'part';
  /** So many scripts go to all of them, where each gets a part. */
  common: number;
  /** So many scripts in all, drawn by chance; absent: all there are. */
  most?: number;
  /** What the order is drawn from. */
  seed: string;
}

/**
 * Deals answers out to markers: whole scripts, so that who marks sees them the way they were written. The order of the
 * scripts is drawn by chance, and the same for all.
 *
 * @returns what each marker gets; questions of which there is nothing are left out
 */
export function dealt(answers: readonly AnswersGiven[], dealing: Dealing): AnswersGiven[][] {
  const { markers, each, common, seed, most = Infinity } = dealing;
  const all = shuffled([...new Set(answers.flatMap(({ attemptIds }) => attemptIds))].sort(), seed);
  const order = all.slice(0, most);
  const hands = Array.from({ length: markers }, () => [] as string[]);
  for (const [place, attemptId] of order.entries())
    for (const [marker, hand] of hands.entries())
      if (each === 'all' || place < common || (place - common) % markers === marker) hand.push(attemptId);
  const has = answers.map(({ questionId, attemptIds }) => ({ questionId, ids: new Set(attemptIds) }));
  return hands.map((hand) =>
    has
      .map(({ questionId, ids }) => ({ questionId, attemptIds: hand.filter((id) => ids.has(id)) }))
      .filter(({ attemptIds }) => attemptIds.length > 0),
  );
}

/** A blind sample is this share of what was marked, and no fewer than so many. */
const sampleShare = 0.1;
const fewestInSample = 10;

/** Equal answers to a question, with their points. */
export interface MarkedGroups {
  questionId: string;
  groups: readonly SameAnswers[];
}

/**
 * A blind sample of what a marker has marked: a tenth of the answers, ten at least, as far as there are different ones.
 * Of equal answers one is enough, and blank ones say nothing.
 */
export function blindSample(marked: readonly MarkedGroups[], marker: string, seed: string): AnswersGiven[] {
  let answers = 0;
  const candidates = marked.flatMap(({ questionId, groups }) =>
    groups.flatMap((group) => {
      const own = group.answers.filter(({ mark }) => mark?.markerId === marker && mark.points !== null);
      answers += own.length;
      const [first] = own;
      return first && !group.blank ? [{ questionId, attemptId: first.attemptId }] : [];
    }),
  );
  const size = Math.max(fewestInSample, Math.ceil(answers * sampleShare));
  return answersGiven(shuffled(candidates, seed).slice(0, size));
}

/** How many answers there are. */
export const countGiven = (answers: readonly AnswersGiven[]): number =>
  sumBy(answers, ({ attemptIds }) => attemptIds.length);

/** The attempts of a share, in the order of its scripts. */
export const scriptsOf = (answers: readonly AnswersGiven[]): string[] => [
  ...new Set(answers.flatMap(({ attemptIds }) => attemptIds)),
];
