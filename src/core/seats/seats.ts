import type { Question } from '../kinds';
import type { Allowance, Attempt, HandMark, Opening, Release, Sitting } from '../model/sitting';
import type { Student } from '../model/people';
import { isGuest } from '../model/names';
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
  /** Attempts that were set aside. */
  aside: Attempt[];
  state: AttemptState | 'notStarted';
  deadline: number | null;
  scorecard: Scorecard | null;
  marks: HandMark[];
  /** The attempts whose marks matter, with them: all that count, where the best or the mean does. */
  toMark: { attempt: Attempt; marks: HandMark[] }[];
  release: Release | null;
  /** When the student looked at what was let out. */
  openedAt: string[];
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
  openings: Opening[];
}

/**
 * One seat a student, in the order of `students`: what may be done, what was done, what it scored.
 *
 * @param now ms since 1970
 */
export function seatsOf(records: SittingRecords, now: number): Seat[] {
  const attemptsOf = groupBy(records.attempts, (attempt) => attempt.studentId);
  const allowancesOf = groupBy(records.allowances, (allowance) => allowance.studentId);
  const marksOf = groupBy(records.marks, (mark) => mark.attemptId);
  const releaseOf = new Map(records.releases.map((release) => [release.studentId, release]));
  const openedBy = new Map(records.openings.map(({ studentId, at }) => [studentId, at]));
  return records.students.map((student) => {
    const attempts = attemptsOf.get(student.id) ?? [];
    const allowances = allowancesOf.get(student.id) ?? [];
    const terms = termsFor(student, records.sitting, allowances, now);
    const marksOfAttempt = ({ id }: Attempt) => marksOf.get(id) ?? [];
    const counts = countingOf(records.questions, attempts, marksOfAttempt, records.sitting, terms, now);
    const attempt = counts?.attempt ?? null;
    const last = lastAttempt(attempts) ?? null;
    const toMark = counts?.toMark ?? [];
    const marks = attempt ? (marksOf.get(attempt.id) ?? []) : [];
    return {
      student,
      terms,
      allowances,
      attempt,
      last,
      attemptCount: attempts.length,
      aside: attempts.filter(isAside),
      state: attempt ? attemptState(attempt, terms, now) : 'notStarted',
      deadline: attempt ? deadlineOf(attempt, terms) : null,
      scorecard: counts?.scorecard ?? null,
      toMark: toMark.map((each) => ({ attempt: each, marks: marksOf.get(each.id) ?? [] })),
      marks,
      release: releaseOf.get(student.id) ?? null,
      openedAt: openedBy.get(student.id) ?? [],
    };
  });
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
