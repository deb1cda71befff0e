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
  restoreAttempt,
} from '@/store/exceptions';
import { together } from '@/store/command';
import { clockTime, counted, dayAndTime, duration } from '@/words/format';

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
    several: (count, { minutes }) => `${count} get ${counted(minutes, 'more minute')}.`,
    reasons: ['Extra time', 'Technical trouble', 'Started late'],
    run: (seats, sittingId, { minutes }, reason, now) =>
      giveAllowance(sittingId, idsOf(seats), { kind: 'minutes', minutes }, reason, now),
  },
  percent: {
    label: 'Extra time in percent',
    does: ({ percent }) => `Give ${percent}% more`,
    consequence: (seat, { percent, progress }) =>
      `${moreTime(seat, extraFor(seat, percent, progress))}${progress ? ` From now on ${name(seat)} has ${percent} % more in every sitting with a time limit.` : ''}`,
    several: (count, { percent }) => `${count} get ${percent}% extra time in this sitting.`,
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
      `${name(seat)} can sit it ${windowWords(fields, now)}. Nobody else is affected.`,
    several: (count, fields, now) => `${count} can sit it ${windowWords(fields, now)}.`,
    reasons: ['Illness', 'Another exam', 'Technical trouble'],
    run: (seats, sittingId, { opensAt, closesAt }, reason, now) =>
      giveAllowance(sittingId, idsOf(seats), { kind: 'window', opensAt, closesAt }, reason, now),
  },
  lateStart: {
    label: 'Allow a late start',
    does: () => 'Allow start',
    consequence: (seat) => `${name(seat)} can start. It stays closed to new starts for everyone else.`,
    several: (count) => `${count} can start. It stays closed to new starts for everyone else.`,
    reasons: ['Came late', 'Technical trouble'],
    run: (seats, sittingId, _fields, reason, now) =>
      giveAllowance(sittingId, idsOf(seats), { kind: 'lateStart' }, reason, now),
  },
  carryOn: {
    label: 'Reopen',
    does: () => 'Reopen attempt',
    consequence: (seat, _fields, now) => {
      const left = seat.last && leftAtEnd(seat.last, seat.terms, now);
      const time = left === null ? 'without a limit, as before' : `with the ${duration(left)} that was left`;
      return `${name(seat)} carries on with the same answers, ${time}.`;
    },
    several: (count) => `${count} carry on with the same answers, each with the time that was left.`,
    reasons: ['Handed in by mistake', 'Technical trouble', 'Collected by mistake'],
    run: (seats, sittingId, _fields, reason, now) => carryOn(sittingId, idsOf(seats), reason, now),
  },
  attempt: {
    label: 'Another attempt',
    does: () => 'Give another attempt',
    consequence: (seat) =>
      seat.state === 'working'
        ? `${name(seat)}’s running attempt is collected first; then ${name(seat)} can start again${onceOpen(seat)}.`
        : `${name(seat)} can start again${onceOpen(seat)}. The existing attempt stays.`,
    several: (count) => `${count} can start again; running attempts are collected first.`,
    reasons: ['Second chance', 'Technical trouble', 'Illness'],
    run: (seats, sittingId, _fields, reason, now) => giveAttempt(sittingId, idsOf(seats), reason, now),
  },
  afresh: {
    label: 'Start again',
    does: () => 'Set aside and start again',
    consequence: (seat) =>
      `${name(seat)}’s attempt is set aside with all its answers and no longer counts; ${name(seat)} can start again${onceOpen(seat)}.`,
    several: (count) =>
      `The attempts of ${count} are set aside with all their answers and no longer count; each can start again.`,
    reasons: ['Opened by mistake', 'Technical trouble', 'Illness'],
    run: (seats, sittingId, _fields, reason, now) => startAfresh(sittingId, idsOf(seats), reason, now),
  },
  collect: {
    label: 'Collect now',
    does: () => 'Collect',
    consequence: (seat) => `${name(seat)}’s answers are collected as they are. Nobody else is affected.`,
    reasons: ['Attempt is stuck', 'Left without handing in', 'Time is over'],
    several: (count) => `The answers of ${count} are collected as they are.`,
    run: (seats, sittingId, _fields, reason, now) => collectFrom(sittingId, idsOf(seats), reason, now),
  },
  setAside: {
    label: 'Set an attempt aside',
    does: () => 'Set aside',
    consequence: (seat) =>
      `${name(seat)}’s attempt is kept but no longer counts, in marking or any figures. You can restore it.`,
    several: (count) =>
      `The attempts of ${count} are kept but no longer count, in marking or any figures. You can restore them.`,
    reasons: ['Opened by mistake', 'Had help', 'A try-out'],
    run: (seats, sittingId, _fields, reason, now) => setAside(sittingId, idsOf(seats), reason, now),
  },
  restore: {
    label: 'Restore an attempt',
    does: () => 'Restore attempt',
    consequence: (seat, _fields, now) => {
      const last = seat.aside.at(-1);
      const which = last ? `the attempt of ${dayAndTime(last.startedAt, now)}` : 'it';
      return `${name(seat)} gets ${which} back, as it was.${whatEnds(seat)}`;
    },
    reasons: ['Set aside by mistake', 'It is the better one'],
    several: (count) =>
      `${count} get back the attempt that was set aside last, as it was. Of two attempts, only the later one can run.`,
    run: (seats, sittingId, _fields, reason, now) => {
      const ids = seats.flatMap((seat) => seat.aside.at(-1)?.id ?? []);
      const [only = ''] = ids;
      if (ids.length < 2) return restoreAttempt(only, reason, now);
      const said = `${ids.length} students have an attempt counted again`;
      return together({ command: 'restoreAttempt', said, about: sittingId }, now, async () => {
        for (const id of ids) await restoreAttempt(id, reason, now);
      });
    },
  },
};

/** The acts in the order in which they are offered. */
export const seatActNames = Object.keys(seatActs) as SeatAct[]; // the keys of a literal object are its names

/** What becomes of two attempts when the one set aside last comes back beside one that runs. */
function whatEnds({ state, last, aside }: Seat): string {
  const back = aside.at(-1);
  if (state !== 'working' || !last || !back) return '';
  if (back.number > last.number) return ' The running attempt is collected.';
  const ended = back.handedInAt !== null || back.collectedAt !== null;
  return ended ? ' The running attempt goes on.' : ' It is collected; the running attempt goes on.';
}

/** What is still missing where the sitting is over. */
const onceOpen = (seat: Seat) =>
  seat.terms.start === 'over' ? ' once you give other times, because it has closed' : '';

function moreTime(seat: Seat, extraMs: number): string {
  if (seat.state === 'collectedByTime')
    return `${name(seat)} can carry on with the same answers if there is time left.`;
  if (seat.deadline === null) return `${name(seat)} will have ${duration(extraMs)} more.`;
  return `${name(seat)} will have until ${clockTime(seat.deadline + extraMs)}. Nobody else is affected.`;
}

function windowWords({ opensAt, closesAt }: ActFields, now: number): string {
  const from = opensAt === null ? 'from when it opens for everyone' : `from ${dayAndTime(opensAt, now)}`;
  return `${from} ${closesAt === null ? 'until it closes for everyone' : `until ${dayAndTime(closesAt, now)}`}`;
}
