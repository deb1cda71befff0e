import type { Asks } from '../model/sitting';
import type { AttemptState } from '../attempts/terms';
import type { SeatAct } from './seatActs';

/** What a student can sensibly ask for as things stand, the likeliest first. */
export function asksOffered(state: AttemptState | 'notStarted', mayStart: boolean): Asks[] {
  if (state === 'working') return ['moreTime', 'other'];
  if (state !== 'notStarted') return ['carryOn', 'anotherAttempt', 'other'];
  return mayStart ? ['moreTime', 'otherTimes', 'other'] : ['otherTimes', 'other'];
}

const likely: Record<Asks, SeatAct[]> = {
  moreTime: ['minutes', 'percent'],
  otherTimes: ['window', 'lateStart'],
  anotherAttempt: ['attempt', 'afresh'],
  carryOn: ['carryOn', 'minutes'],
  other: [],
  mark: [],
};

/** The acts a request may come down to, of those that can be done: the likeliest first. */
export function actsFor(asks: Asks, possible: readonly SeatAct[]): SeatAct[] {
  const first = likely[asks].filter((act) => possible.includes(act));
  return [...first, ...possible.filter((act) => !first.includes(act))];
}
