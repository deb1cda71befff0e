import { byRegister } from '../model/names';
import type { Seat } from './seats';
import { timeTaken } from '../attempts/timeTaken';
import { leavingOf, seenAt, triesOf, type Hearing } from '../attempts/watching';

/** What the grid is in order of: a column, or a question by its id. */
export type GridColumn =
  'name' | 'state' | 'minutes' | 'timeLeft' | 'lastSign' | 'left' | 'tries' | { questionId: string };

const places: Record<Seat['state'], number> = {
  working: 0,
  notStarted: 1,
  collectedByTime: 2,
  collected: 3,
  handedIn: 4,
};

/** Minutes an attempt has taken so far, or took; null while there is none. */
export function minutesOf({ attempt, terms }: Seat, now: number): number | null {
  if (!attempt) return null;
  const ms = timeTaken(attempt, terms, now);
  return ms === null ? null : Math.round(ms / 60_000);
}

/** Minutes until an attempt's time is up, begun ones in full; null where nobody works or there is no end. */
export function minutesLeft({ state, deadline }: Seat, now: number): number | null {
  if (state !== 'working' || deadline === null) return null;
  return Math.max(0, Math.ceil((deadline - now) / 60_000));
}

/**
 * Seats in the order of a column: first what wants a look (those who work, went quiet longest, left most), then the
 * rest; where equal, in the order of a register. A second press on a column turns it around.
 *
 * @param now ms since 1970
 */
export function inGridOrder(
  seats: readonly Seat[],
  column: GridColumn,
  turned: boolean,
  now: number,
  hearing: Hearing,
): Seat[] {
  const valueOf = (seat: Seat): number => {
    if (typeof column === 'object') {
      const award = seat.scorecard?.awards.find((each) => each.questionId === column.questionId);
      if (!award) return 3;
      return award.answered ? 2 + (award.points ?? 0) / (award.max || 1) : 1;
    }
    switch (column) {
      case 'name':
        return 0;
      case 'state':
        return places[seat.state];
      case 'minutes':
        return -(minutesOf(seat, now) ?? -1);
      case 'timeLeft':
        return seat.state === 'working' ? (seat.deadline ?? Infinity) : Infinity;
      case 'lastSign':
        return seat.attempt && seat.state === 'working' ? seenAt(seat.attempt, hearing) : Infinity;
      case 'left':
        return seat.attempt ? -leavingOf(seat.attempt).times : 1;
      case 'tries':
        return seat.attempt ? -triesOf(seat.attempt) : 1;
    }
  };
  const rows = seats.map((seat) => ({ seat, value: valueOf(seat) }));
  const order = (a: number, b: number) => (a === b ? 0 : a < b ? -1 : 1);
  rows.sort((a, b) => order(a.value, b.value) || byRegister(a.seat.student, b.seat.student));
  if (turned) rows.reverse();
  return rows.map(({ seat }) => seat);
}

/** How one question stands over all who have it: how many answered, and what they have of its points. */
export interface QuestionTotal {
  questionId: string;
  given: number;
  answered: number;
  /** Mean share of the points of those that have points; null while none has. */
  share: number | null;
}

export function questionTotals(questionIds: readonly string[], seats: readonly Seat[]): QuestionTotal[] {
  const totals = new Map(questionIds.map((id) => [id, { given: 0, answered: 0, points: 0, max: 0 }]));
  for (const { scorecard } of seats)
    for (const award of scorecard?.awards ?? []) {
      const total = totals.get(award.questionId);
      if (!total) continue;
      total.given++;
      if (!award.answered) continue;
      total.answered++;
      if (award.points === null) continue;
      total.points += award.points;
      total.max += award.max;
    }
  return [...totals].map(([questionId, { given, answered, points, max }]) => ({
    questionId,
    given,
    answered,
    share: max > 0 ? points / max : null,
  }));
}
