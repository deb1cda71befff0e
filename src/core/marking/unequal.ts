import type { Question } from '../kinds';
import { numbersOf } from '../kinds/itemNumbers';
import type { Seat } from '../seats/seats';
import type { GivenPoints } from './markChanges';
import type { AnswerEntry } from './piles/arrange';
import { sameAnswers, type SameAnswers } from './sameAnswers';

/** Answers that say the same and have unequal points. */
export interface UnequalAnswers {
  question: Question;
  number: string;
  group: SameAnswers;
  /** The most given first. */
  given: GivenPoints[];
}

/** The points that equal answers have, each value once, the most given first; of equally many the higher. */
function givenIn({ answers }: SameAnswers): GivenPoints[] {
  const values = new Map<number, GivenPoints>();
  for (const { award, mark } of answers) {
    if (award.points === null) continue;
    const known = values.get(award.points);
    if (known) known.answers++;
    else
      values.set(award.points, {
        ...{ points: award.points, answers: 1, lines: mark?.lines ?? [] },
        adjustment: mark?.adjustment,
      });
  }
  return [...values.values()].sort((a, b) => b.answers - a.answers || b.points - a.points);
}

/**
 * Every place in a sitting where equal answers have unequal points by a marker's hand, in the order of the paper. Where the key
 * alone gave them, as after tries and hints in practice, the rules say so.
 */
export function unequalAnswers(questions: readonly Question[], seats: readonly Seat[]): UnequalAnswers[] {
  const numbers = numbersOf(questions);
  return questions.flatMap((question) =>
    sameAnswers(question, seats).flatMap((group): UnequalAnswers[] => {
      const byHand = group.answers.some(({ mark }) => mark !== undefined && mark.points !== null);
      const given = group.uneven && byHand ? givenIn(group) : [];
      return given.length > 1 ? [{ question, number: numbers.get(question.id) ?? '', group, given }] : [];
    }),
  );
}

/** Similar answers of one pile that lie far apart. */
export interface FarApart {
  pileId: string;
  members: { group: SameAnswers; points: number }[];
  /** The most less the least, in points. */
  apart: number;
}

/** Similar answers further apart than this share of the question's points are pointed out. */
const farShare = 0.25;

/** Piles whose members have points further apart than a quarter of the question's; the furthest first. */
export function farApart(question: Question, entries: readonly AnswerEntry[]): FarApart[] {
  const piles = new Map<string, FarApart>();
  for (const { group, pile } of entries) {
    if (pile === null || group.points === null) continue;
    const known = piles.get(pile.id) ?? { pileId: pile.id, members: [], apart: 0 };
    piles.set(pile.id, known);
    known.members.push({ group, points: group.points });
  }
  for (const each of piles.values()) {
    const points = each.members.map((member) => member.points);
    each.apart = Math.max(...points) - Math.min(...points);
  }
  return [...piles.values()]
    .filter(({ apart }) => apart > farShare * question.points)
    .sort((a, b) => b.apart - a.apart || (a.pileId < b.pileId ? -1 : 1));
}
