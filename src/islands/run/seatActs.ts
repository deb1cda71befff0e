import { fullName } from '@/core/model/names';
import { extraFor, type SeatAct } from '@/core/seats/seatActs';
import type { Seat } from '@/core/seats/seats';
import { leftAtEnd } from '@/core/attempts/terms';
import {
  carryOn,
  collectFrom,
  giveAllowance,
  giveAttempt,
  giveLasting,
  setAside,
  startAfresh,
  takeBack,
} from '@/store/exceptions';
import { together } from '@/store/command';
import { clockTime, counted, dayAndTime, duration } from '@/ui/format';

/** What is filled in before it is done. */
export interface ActFields {
  minutes: number;
  percent: number;
  /** Whether the percent hold in every sitting from now on. */
  progress: boolean;
  opensAt: string | null;
  closesAt: string | null;
}

interface SeatActKind {
  label: string;
  /** What the button says that does it. */
  does: (fields: ActFields) => string;
  /** What will happen, and to whom, before it does. */
  consequence: (seat: Seat, fields: ActFields, now: number) => string;
  reasons: string[];
  /** The same for several at once; absent: it is done for one student only. */
  several?: (count: string, fields: ActFields, now: number) => string;
  run: (
    seats: readonly Seat[],
    sittingId: string,
    fields: ActFields,
    reason: string,
    now: string,
  ) => Promise<{ said: string }>;
}

const name = (seat: Seat) => fullName(seat.student);
const idsOf = (seats: readonly Seat[]) => seats.map(({ student }) => student.id);
/** Each act in words, and the command that does it. What can be done is core's to say. */
export const seatActs: Record<SeatAct, SeatActKind> = {
  minutes: {
    label: 'More minutes',
    does: ({ minutes }) => `Give ${counted(minutes, 'minute')}`,
    consequence: (seat, { minutes }) => moreTime(seat, minutes * 60_000),
    several: (count, { minutes }) => `${count} have ${counted(minutes, 'minute')} more than now.`,
    reasons: ['Extra time', 'Technical trouble', 'Started late'],
    run: (seats, sittingId, { minutes }, reason, now) =>
      giveAllowance(sittingId, idsOf(seats), { kind: 'minutes', minutes }, reason, now),
  },
  percent: {
    label: 'Percent more time',
    does: ({ percent }) => `Give ${percent} % more`,
    consequence: (seat, { percent, progress }) =>
      `${moreTime(seat, extraFor(seat, percent, progress))}${progress ? ` From now on ${name(seat)} has ${percent} % more in every sitting with a time limit.` : ''}`,
    several: (count, { percent }) => `${count} have ${percent} % more of the time limit, in this sitting.`,
    reasons: ['Extra time', 'Reads slowly', 'Second language'],
    run: (seats, sittingId, { percent, progress }, reason, now) =>
      progress
        ? giveLasting(idsOf(seats)[0] ?? '', percent, reason, now)
        : giveAllowance(sittingId, idsOf(seats), { kind: 'percent', percent }, reason, now),
  },
  window: {
    label: 'Other times',
    does: () => 'Give these times',
    consequence: (seat, fields, now) =>
      `${name(seat)} can sit it ${windowWords(fields, now)}. Nobody else is touched.`,
    several: (count, fields, now) => `${count} can sit it ${windowWords(fields, now)}.`,
    reasons: ['Illness', 'Another exam', 'Technical trouble'],
    run: (seats, sittingId, { opensAt, closesAt }, reason, now) =>
      giveAllowance(sittingId, idsOf(seats), { kind: 'window', opensAt, closesAt }, reason, now),
  },
  lateStart: {
    label: 'Let in although closed',
    does: () => 'Let in',
    consequence: (seat) => `${name(seat)} may start. For all others it stays closed to new starts.`,
    several: (count) => `${count} may start. For all others it stays closed to new starts.`,
    reasons: ['Came late', 'Technical trouble'],
    run: (seats, sittingId, _fields, reason, now) =>
      giveAllowance(sittingId, idsOf(seats), { kind: 'lateStart' }, reason, now),
  },
  carryOn: {
    label: 'Carry on',
    does: () => 'Let it go on',
    consequence: (seat, _fields, now) => {
      const left = seat.last && leftAtEnd(seat.last, seat.terms, now);
      const time = left === null ? 'without a limit, as before' : `with the ${duration(left)} that were left`;
      return `${name(seat)} goes on with the same answers, ${time}.`;
    },
    several: (count) => `${count} go on with the same answers, each with the time that was left.`,
    reasons: ['Handed in by mistake', 'Technical trouble', 'Collected by mistake'],
    run: (seats, sittingId, _fields, reason, now) => carryOn(sittingId, idsOf(seats), reason, now),
  },
  attempt: {
    label: 'Another attempt',
    does: () => 'Give another attempt',
    consequence: (seat) =>
      seat.state === 'working'
        ? `${name(seat)}’s running attempt is collected first; then ${name(seat)} can start again${onceOpen(seat)}.`
        : `${name(seat)} can start again${onceOpen(seat)}. The attempt there is stays.`,
    several: (count) => `${count} can start again; attempts that run are collected first.`,
    reasons: ['Second chance', 'Technical trouble', 'Illness'],
    run: (seats, sittingId, _fields, reason, now) => giveAttempt(sittingId, idsOf(seats), reason, now),
  },
  afresh: {
    label: 'Start afresh',
    does: () => 'Set aside and start afresh',
    consequence: (seat) =>
      `${name(seat)}’s attempt is set aside with all its answers and counts no more; ${name(seat)} can start afresh${onceOpen(seat)}.`,
    several: (count) =>
      `The attempts of ${count} are set aside with all their answers and count no more; each can start afresh.`,
    reasons: ['Opened by mistake', 'Technical trouble', 'Illness'],
    run: (seats, sittingId, _fields, reason, now) => startAfresh(sittingId, idsOf(seats), reason, now),
  },
  collect: {
    label: 'Collect now',
    does: () => 'Collect',
    consequence: (seat) => `${name(seat)}’s answers are taken in as they stand. Nobody else is touched.`,
    reasons: ['The attempt hangs', 'Left without handing in', 'Time is over'],
    several: (count) => `The answers of ${count} are taken in as they stand.`,
    run: (seats, sittingId, _fields, reason, now) => collectFrom(sittingId, idsOf(seats), reason, now),
  },
  setAside: {
    label: 'Set the attempt aside',
    does: () => 'Set it aside',
    consequence: (seat) =>
      `${name(seat)}’s attempt is kept and counts no more, neither in marking nor in any figure. It can be taken back.`,
    several: (count) =>
      `The attempts of ${count} are kept and count no more, neither in marking nor in any figure. They can be taken back.`,
    reasons: ['Opened by mistake', 'Not on their own', 'A try-out'],
    run: (seats, sittingId, _fields, reason, now) => setAside(sittingId, idsOf(seats), reason, now),
  },
  takeBack: {
    label: 'Take an attempt back',
    does: () => 'Let it count again',
    consequence: (seat, _fields, now) => {
      const last = seat.aside.at(-1);
      const which = last ? `the attempt of ${dayAndTime(last.startedAt, now)}` : 'it';
      return `${name(seat)} has ${which} again, as it was.`;
    },
    reasons: ['Set aside by mistake', 'It is the better one'],
    several: (count) => `${count} have the attempt again that was set aside last, as it was.`,
    run: (seats, sittingId, _fields, reason, now) => {
      const ids = seats.flatMap((seat) => seat.aside.at(-1)?.id ?? []);
      const [only = ''] = ids;
      if (ids.length < 2) return takeBack(only, reason, now);
      const said = `${ids.length} students have an attempt counted again`;
      return together({ command: 'takeBack', said, about: sittingId }, now, async () => {
        for (const id of ids) await takeBack(id, reason, now);
      });
    },
  },
};

/** The acts in the order in which they are offered. */
export const seatActNames = Object.keys(seatActs) as SeatAct[]; // the keys of a literal object are its names

/** What is still missing where the sitting is over. */
const onceOpen = (seat: Seat) =>
  seat.terms.start === 'over' ? ' once you give other times, for it is over' : '';

function moreTime(seat: Seat, extraMs: number): string {
  if (seat.state === 'collectedByTime')
    return `${name(seat)} can go on with the same answers if the new time is not over yet.`;
  if (seat.deadline === null) return `${name(seat)} will have ${duration(extraMs)} more than now.`;
  return `${name(seat)} will have until ${clockTime(seat.deadline + extraMs)}. Nobody else is touched.`;
}

function windowWords({ opensAt, closesAt }: ActFields, now: number): string {
  const from = opensAt === null ? 'from when it opens for everyone' : `from ${dayAndTime(opensAt, now)}`;
  return `${from} ${closesAt === null ? 'until it closes for everyone' : `until ${dayAndTime(closesAt, now)}`}`;
}
