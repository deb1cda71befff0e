import type { Question } from '../kinds';
import type { Allowance, Attempt, Sitting } from '../model/sitting';
import {
  nextTurn,
  stagesOf,
  type Opening,
  type Release,
  type ReleasePlan,
  type ReleaseStage,
} from '../model/release';
import type { HandMark } from '../model/mark';
import type { Student } from '../model/people';
import { isGuest } from '../model/names';
import { sortBy } from 'remeda';
import { groupBy } from '../basics/groupBy';
import type { Scorecard } from '../scoring/scoreAttempt';
import { lastAttempt } from '../attempts/counting';
import { countingOf } from '../scoring/counting';
import {
  attemptState,
  deadlineOf,
  isAside,
  termsFor,
  type AttemptState,
  type Terms,
} from '../attempts/terms';

/** One student in one sitting: a row of every list. */
export interface Seat {
  student: Student;
  terms: Terms;
  allowances: Allowance[];
  /** The attempt that counts, and how many there are in all. */
  attempt: Attempt | null;
  /** The one made last: what is done for the student is done to it. */
  last: Attempt | null;
  attemptCount: number;
  /** Attempts that were set aside, the one set aside last at the end. */
  aside: Attempt[];
  state: AttemptState | 'notStarted';
  deadline: number | null;
  scorecard: Scorecard | null;
  marks: HandMark[];
  /** The attempts whose marks matter, with them: all that count, where the best or the mean does. */
  toMark: { attempt: Attempt; marks: HandMark[] }[];
  release: Release | null;
  /** From when until when what of the result is seen; none where it is held back, or not handed back. */
  stages: ReleaseStage[];
  /** When the student looked at what was let out. */
  openedAt: string[];
  /** Those of them that were on a device of the student's own. */
  openedOnDevice: string[];
}

/** All the rows of one sitting that its views are computed from. */
export interface SittingRecords {
  sitting: Sitting;
  questions: Question[];
  students: Student[];
  allowances: Allowance[];
  attempts: Attempt[];
  marks: HandMark[];
  releases: Release[];
  /** How the results are let out; absent or null: there is no plan. */
  plan?: ReleasePlan | null;
  openings: Opening[];
}

/** What there is of one student in a sitting. */
export interface SeatRows {
  attempts: Attempt[];
  allowances: Allowance[];
  /** The hand marks of an attempt. */
  marksOf: (attempt: Attempt) => HandMark[];
  release: Release | null;
  opening: Opening | null;
}

/**
 * One student's seat: what may be done, what was done, what it scored.
 *
 * @param now ms since 1970
 */
export function seatOf(
  { sitting, questions, plan }: Pick<SittingRecords, 'sitting' | 'questions' | 'plan'>,
  student: Student,
  { attempts, allowances, marksOf, release, opening }: SeatRows,
  now: number,
): Seat {
  const terms = termsFor(student, sitting, allowances, now);
  const counts = countingOf(questions, attempts, marksOf, sitting, terms, now);
  const attempt = counts?.attempt ?? null;
  return {
    student,
    terms,
    allowances,
    attempt,
    last: lastAttempt(attempts) ?? null,
    attemptCount: attempts.length,
    aside: sortBy(attempts.filter(isAside), (each) => each.setAsideAt ?? ''),
    state: attempt ? attemptState(attempt, terms, now) : 'notStarted',
    deadline: attempt ? deadlineOf(attempt, terms) : null,
    scorecard: counts?.scorecard ?? null,
    toMark: (counts?.toMark ?? []).map((each) => ({ attempt: each, marks: marksOf(each) })),
    marks: attempt ? marksOf(attempt) : [],
    release,
    stages: release ? stagesOf(release, plan) : [],
    openedAt: opening?.at ?? [],
    openedOnDevice: opening?.onDevice ?? [],
  };
}

/** One seat a student, in the order of `students`. */
export function seatsOf(records: SittingRecords, now: number): Seat[] {
  const attemptsOf = groupBy(records.attempts, (attempt) => attempt.studentId);
  const allowancesOf = groupBy(records.allowances, (allowance) => allowance.studentId);
  const marksOf = groupBy(records.marks, (mark) => mark.attemptId);
  const releaseOf = new Map(records.releases.map((release) => [release.studentId, release]));
  const openedBy = new Map(records.openings.map((opening) => [opening.studentId, opening]));
  return records.students.map((student) => {
    const rows: SeatRows = {
      attempts: attemptsOf.get(student.id) ?? [],
      allowances: allowancesOf.get(student.id) ?? [],
      marksOf: ({ id }) => marksOf.get(id) ?? [],
      release: releaseOf.get(student.id) ?? null,
      opening: openedBy.get(student.id) ?? null,
    };
    return seatOf(records, student, rows, now);
  });
}

/**
 * Until when a seat holds if no row changes: the next instant at which its terms, its state or what is let out turn, ms since 1970; Infinity
 * where none is ahead.
 */
export function seatHolds(
  { terms, deadline, state, stages }: Seat,
  { closedToStartsAt }: Sitting,
  now: number,
): number {
  const turns = [
    terms.opensAt,
    terms.closesAt,
    terms.closesAt === null ? null : terms.closesAt + terms.extraMs,
    state === 'working' ? deadline : null,
    nextTurn(stages, now),
    closedToStartsAt === null ? null : Date.parse(closedToStartsAt),
  ];
  return turns.reduce<number>(
    (next, turn) => (turn !== null && turn > now && turn < next ? turn : next),
    Infinity,
  );
}

/** True when the attempt is in: nothing more comes from the student. */
export function isIn(seat: Seat): boolean {
  return seat.attempt !== null && seat.state !== 'working' && seat.state !== 'notStarted';
}

/**
 * The seats that figures of a sitting are over: guests are kept apart. They are marked and have their results like
 * anybody; a mean, a facility or a spread is of the students it was set for.
 */
export const inFigures = (seats: readonly Seat[]): Seat[] => seats.filter(({ student }) => !isGuest(student));
