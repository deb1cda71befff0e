import { endOf } from '../attempts/terms';
import type { Seat } from '../seats/seats';

/** Whether a student may still begin, now or later, a first time or again. */
const mayStart = (seat: Seat): boolean =>
  (seat.terms.start === 'open' || seat.terms.start === 'notYet') && hasAttemptLeft(seat);

const hasAttemptLeft = ({ terms, attemptCount, aside }: Seat): boolean =>
  attemptCount - aside.length < terms.attempts;

/** Whether a student may still sit the paper: is at work, or may begin. */
export const maySit = (seat: Seat): boolean => seat.state === 'working' || mayStart(seat);

/**
 * When the last student may no longer sit, ms since 1970, as things are: the latest of the ends of attempts and of the times in
 * which somebody may begin. Infinity where somebody may for ever; null where there is nobody.
 */
export function lastMaySit(seats: readonly Seat[], now: number): number | null {
  let last: number | null = null;
  for (const seat of seats) {
    const { terms, deadline, state } = seat;
    const ends: number[] = [];
    if (state === 'working') ends.push(deadline ?? Infinity);
    else if (seat.last) ends.push(endOf(seat.last, terms, now) ?? now);
    const mightHave = terms.start === 'over' && hasAttemptLeft(seat);
    if (mayStart(seat) || mightHave)
      ends.push(terms.closesAt === null ? Infinity : terms.closesAt + terms.extraMs);
    for (const end of ends) last = Math.max(last ?? -Infinity, end);
  }
  return last;
}
