import { mean } from './mean';
import { standardDeviation } from './standardDeviation';
import { historyOf, type HandMark } from '../model/mark';

/** One thing marked, in the order of marking: what was marked at once is one. */
export interface MarkedInTurn {
  /** When it first had points, ISO. */
  at: string;
  /** Points as a share of the question's, 0 to 1. */
  share: number;
  /** The mean share of this one and those just before it. */
  running: number;
}

export interface Drift {
  turns: MarkedInTurn[];
  /** Mean shares of the first and the last third; null for fewer than nine. */
  thirds: { first: number; last: number; more: number } | null;
  /** Whether the thirds differ by more than chance would make likely. */
  telling: boolean;
}

/** The running mean is over so many. */
const running = 10;
const fewestInThird = 3;

/**
 * The points a marker gave to one question, in the order in which they were given. The first and the last third are held
 * against each other by the standard error of their difference (Welch 1947): more than two of them is told.
 *
 * @param marks of one question by one marker, in any order
 * @param max the question's points
 */
export function drift(marks: readonly HandMark[], max: number): Drift {
  const given = marks.flatMap((mark) => {
    const first = historyOf(mark).find(({ to }) => to.points !== null);
    return mark.points === null || max === 0 ? [] : [{ at: first?.at ?? mark.at, share: mark.points / max }];
  });
  // Equal answers marked together are one act, and one turn.
  const acts = new Map(given.map((each) => [`${each.at} ${each.share}`, each]));
  const inTurn = [...acts.values()].sort((a, b) => a.at.localeCompare(b.at));
  const turns = inTurn.map((each, index) => ({
    ...each,
    running: mean(inTurn.slice(Math.max(0, index + 1 - running), index + 1).map(({ share }) => share)),
  }));
  const third = Math.floor(turns.length / 3);
  if (third < fewestInThird) return { turns, thirds: null, telling: false };
  const first = turns.slice(0, third).map(({ share }) => share);
  const last = turns.slice(-third).map(({ share }) => share);
  const more = mean(last) - mean(first);
  const error = Math.sqrt(
    ((standardDeviation(first) ?? 0) ** 2 + (standardDeviation(last) ?? 0) ** 2) / third,
  );
  return {
    turns,
    thirds: { first: mean(first), last: mean(last), more },
    telling: Math.abs(more) > 2 * error + 1e-9,
  };
}
