import { assertNever } from '../basics/assertNever';
import type { Sitting } from '../model/sitting';
import { isIn, type Seat } from './seats';
import { leftAtEnd } from '../attempts/terms';

/** What a teacher can do for one student in a sitting. */
export type SeatAct =
  | 'minutes'
  | 'percent'
  | 'window'
  | 'lateStart'
  | 'carryOn'
  | 'attempt'
  | 'afresh'
  | 'collect'
  | 'setAside'
  | 'restore';

/**
 * Whether an act would change anything as things stand. More time helps whoever has not ended by an act: an attempt
 * that was handed in or collected is carried on instead.
 *
 * @param now ms since 1970
 */
export function canBeDone(
  act: SeatAct,
  seat: Seat,
  sitting: Pick<Sitting, 'closedToStartsAt'>,
  now: number,
): boolean {
  const { state, terms, last, aside } = seat;
  const ended = state === 'handedIn' || state === 'collected';
  switch (act) {
    case 'minutes':
      return !ended && (terms.closesAt !== null || terms.timeLimitMs !== null);
    case 'percent':
      return !ended && terms.timeLimitMs !== null;
    case 'window':
      return true;
    case 'lateStart':
      return sitting.closedToStartsAt !== null && state === 'notStarted' && terms.start === 'closedToStarts';
    case 'carryOn':
      return isIn(seat) && last !== null && leftAtEnd(last, terms, now) !== 0;
    case 'attempt':
    case 'afresh':
    case 'setAside':
      return last !== null;
    case 'collect':
      return state === 'working';
    case 'restore':
      return aside.length > 0;
    default:
      return assertNever(act);
  }
}

/**
 * How much more time percent of the limit are for this student. Percent that stand with the student take the place of
 * those that stood before; percent for one sitting come on top.
 */
export function extraFor(seat: Pick<Seat, 'student' | 'terms'>, percent: number, lasting: boolean): number {
  const more = lasting ? percent - (seat.student.extraPercent ?? 0) : percent;
  return Math.round(((seat.terms.timeLimitMs ?? 0) * more) / 100);
}
