import { isGuest } from '../model/names';
import { hasResult } from '../model/release';
import type { Sitting } from '../model/sitting';
import { totalShare, type Scorecard } from '../scoring/scoreAttempt';
import { isIn, seatsOf, type Seat, type SittingRecords } from './seats';

/** How one sitting stands, in numbers: what its strip shows. A cache of `seatsOf`, safe to throw away. */
export interface SittingProgress {
  sittingId: string;
  students: number;
  notStarted: number;
  working: number;
  in: number;
  /** Answers of those who are in that wait for a hand, and how many hand-marked there are in all. */
  waiting: number;
  byHand: number;
  noKey: number;
  notRead: number;
  aside: number;
  /** Answers of those who are in that are put forward as nearly right. */
  forward: number;
  /** Students who are in and wholly marked. */
  ready: number;
  released: number;
  opened: number;
  /** Mean share, of what has points so far, among those who are in and no guests, 0 to 1; null when nobody has any. */
  meanShare: number | null;
  /** Holds until this instant, ms since 1970; null: until something changes. */
  validUntil: number | null;
}

/** The same from seats that are there already. */
export function progressFrom(sitting: Sitting, seats: readonly Seat[], now: number): SittingProgress {
  const progress: SittingProgress = {
    sittingId: sitting.id,
    students: seats.length,
    notStarted: 0,
    working: 0,
    in: 0,
    waiting: 0,
    byHand: 0,
    noKey: 0,
    notRead: 0,
    aside: 0,
    forward: 0,
    ready: 0,
    released: 0,
    opened: 0,
    meanShare: null,
    validUntil: null,
  };
  let shares = 0;
  let shared = 0;
  const turns: number[] = [];
  for (const instant of [sitting.opensAt, sitting.closesAt])
    if (instant !== null) turns.push(Date.parse(instant));
  for (const seat of seats) {
    if (seat.state === 'notStarted') progress.notStarted++;
    else if (seat.state === 'working') progress.working++;
    else progress.in++;
    if (seat.state === 'working' && seat.deadline !== null) turns.push(seat.deadline);
    if (hasResult(seat.release)) progress.released++;
    if (hasResult(seat.release) && seat.openedAt.length > 0) progress.opened++;
    if (!isIn(seat) || !seat.scorecard) continue;
    const { scorecard } = seat;
    progress.waiting += scorecard.waiting;
    progress.noKey += scorecard.noKey;
    progress.notRead += scorecard.notRead;
    const { byHand, aside, forward } = partsOf(scorecard);
    progress.byHand += byHand;
    progress.aside += aside;
    progress.forward += forward;
    if (scorecard.final) progress.ready++;
    const share = isGuest(seat.student) ? null : totalShare(scorecard);
    if (share === null) continue;
    shares += share;
    shared++;
  }
  if (shared > 0) progress.meanShare = shares / shared;
  const ahead = turns.filter((turn) => turn > now);
  if (ahead.length > 0) progress.validUntil = Math.min(...ahead);
  return progress;
}

const parts = new WeakMap<Scorecard, { byHand: number; aside: number; forward: number }>();

/** What is counted of a scorecard's awards; counted once for each. */
function partsOf(card: Scorecard) {
  const known = parts.get(card);
  if (known) return known;
  const counted = { byHand: 0, aside: 0, forward: 0 };
  for (const { state, aside, nearMiss } of card.awards) {
    if (state === 'waiting' || state === 'byHand') counted.byHand++;
    if (aside) counted.aside++;
    if (nearMiss !== null) counted.forward++;
  }
  parts.set(card, counted);
  return counted;
}

/** How a sitting stands, from its rows. */
export const progressOf = (records: SittingRecords, now: number): SittingProgress =>
  progressFrom(records.sitting, seatsOf(records, now), now);
