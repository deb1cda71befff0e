import { hasResult } from '../model/release';
import type { Seat } from '../seats/seats';
import { readinessOf } from './readiness';

/** For whom the acts of handing back are, of those in view. */
export interface WhoGets {
  /** Ready, and without a result, or with one shown by itself: they get it by the plan. */
  handBack: Seat[];
  /** In, and not held back already. */
  holdBack: Seat[];
  /** Who has a result. */
  withdraw: Seat[];
}

/**
 * @param chosen student ids; null: nobody was chosen, which is all that are ready and were never given nor held back, to hand back
 *   to; nobody to hold back; and all who have theirs to withdraw from
 */
export function whoGets(seats: readonly Seat[], chosen: ReadonlySet<string> | null): WhoGets {
  const all = chosen ? seats.filter(({ student }) => chosen.has(student.id)) : seats;
  const due = ({ release }: Seat) =>
    chosen ? !hasResult(release) || release?.shows !== undefined : release === null;
  return {
    handBack: all.filter((seat) => readinessOf(seat).ready && due(seat)),
    holdBack: chosen ? all.filter(({ attempt, release }) => attempt && !release?.heldBack) : [],
    withdraw: all.filter(({ release }) => hasResult(release)),
  };
}
