import type { Question } from '../kinds';
import { isShown, type Shows } from '../model/release';
import type { Seat } from '../seats/seats';
import { maySit } from './lastMaySit';

/** Whether a student's result can be handed back, and if not, why. */
export type Readiness =
  | { ready: true }
  | {
      ready: false;
      why: 'notStarted' | 'working' | 'noKey' | 'notRead' | 'waiting' | 'aside';
      count: number;
    };

/** Ready: the attempt is in and wholly marked. The first reason that holds is given, with its number of answers. */
export function readinessOf(seat: Seat): Readiness {
  if (seat.state === 'notStarted' || !seat.scorecard) return { ready: false, why: 'notStarted', count: 0 };
  if (seat.state === 'working') return { ready: false, why: 'working', count: 0 };
  const { waiting, noKey, notRead, awards, final } = seat.scorecard;
  if (final) return { ready: true };
  if (notRead > 0) return { ready: false, why: 'notRead', count: notRead };
  if (waiting > 0) return { ready: false, why: 'waiting', count: waiting };
  if (noKey > 0) return { ready: false, why: 'noKey', count: noKey };
  return { ready: false, why: 'aside', count: awards.filter((award) => award.aside).length };
}

/** Shows that would tell a student who has still to sit the paper what is right. */
export function givesKeyAway(shows: Shows): boolean {
  return tellingThings.some((what) => isShown(shows, what));
}

/** What tells what is right. */
export const tellingThings = ['rightOrWrong', 'accepted', 'comments', 'lines', 'scheme'] as const;

/**
 * How many students may still sit the paper: those at work, and those who may start, now or later, a first time or
 * again.
 */
export const stillToSit = (seats: readonly Seat[]): number => seats.filter(maySit).length;

/** How many answers of those who are in wait for a mark, by question in the order of the paper; only those where some do. */
export function waitingByQuestion(
  seats: readonly Seat[],
  questions: readonly Pick<Question, 'id'>[],
): { questionId: string; count: number }[] {
  const counts = new Map<string, number>();
  for (const { state, scorecard } of seats) {
    if (state === 'notStarted' || state === 'working') continue;
    for (const { questionId, state: award } of scorecard?.awards ?? [])
      counts.set(questionId, (counts.get(questionId) ?? 0) + Number(award === 'waiting'));
  }
  return questions.flatMap(({ id }) => {
    const count = counts.get(id) ?? 0;
    return count > 0 ? [{ questionId: id, count }] : [];
  });
}
