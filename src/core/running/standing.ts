import { discrimination } from '../analysis/discrimination';
import { facility } from '../analysis/facility';
import type { Question } from '../kinds';
import type { Allowance, Attempt, HandMark, Opening, Release, Sitting } from '../model/sitting';
import type { Student } from '../model/people';
import { isGuest } from '../model/names';
import { groupBy } from '../groupBy';
import { totalShare, type Scorecard } from '../scoring/scoreAttempt';
import { countingOf, lastAttempt } from './counting';
import { attemptState, deadlineOf, isAside, termsFor, type AttemptState, type Terms } from './terms';

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

/** How one question did in a sitting. */
export interface QuestionStanding {
  questionId: string;
  /** How many answers have points. */
  scored: number;
  facility: number | null;
  discrimination: number | null;
}

/** How one sitting stands, in numbers: what its strip shows. A cache of `seatsOf`, safe to throw away. */
export interface Standing {
  sittingId: string;
  students: number;
  notStarted: number;
  working: number;
  in: number;
  /** Answers of those who are in that wait for a hand, and how many hand-marked there are in all. */
  waiting: number;
  byHand: number;
  noKey: number;
  aside: number;
  /** Answers of those who are in that are put forward as nearly right. */
  forward: number;
  /** Students who are in and wholly marked. */
  ready: number;
  released: number;
  opened: number;
  /** Mean share, of what has points so far, among those who are in and no guests, 0 to 1; null when nobody has any. */
  meanShare: number | null;
  /** How each question did among those who are in; only where the standing was computed to be kept. */
  questions?: QuestionStanding[];
  /** Holds until this instant, ms since 1970; null: until something changes. */
  validUntil: number | null;
}

export function standingOf(records: SittingRecords, now: number): Standing {
  const seats = seatsOf(records, now);
  return {
    ...standingFrom(records.sitting, seats, now),
    questions: questionStandings(records.questions, seats),
  };
}

/** Facility and discrimination of each question, over those who are in and have points for it, without guests. */
function questionStandings(questions: readonly Question[], seats: readonly Seat[]): QuestionStanding[] {
  const cards = inFigures(seats)
    .filter(isIn)
    .flatMap((seat) => seat.scorecard ?? []);
  return questions.map(({ id, points: max }) => {
    const points: number[] = [];
    const totals: number[] = [];
    for (const card of cards) {
      const award = card.awards.find((each) => each.questionId === id);
      if (!award || award.points === null) continue;
      points.push(award.points);
      totals.push(card.total);
    }
    return {
      questionId: id,
      scored: points.length,
      facility: facility(points, max),
      discrimination: discrimination(points, totals),
    };
  });
}

/** The same from seats that are there already. */
export function standingFrom(sitting: Sitting, seats: readonly Seat[], now: number): Standing {
  const handQuestions = new Set<string>();
  for (const { scorecard } of seats)
    for (const award of scorecard?.awards ?? [])
      if (award.state === 'waiting' || award.state === 'byHand') handQuestions.add(award.questionId);
  const standing: Standing = {
    sittingId: sitting.id,
    students: seats.length,
    notStarted: 0,
    working: 0,
    in: 0,
    waiting: 0,
    byHand: 0,
    noKey: 0,
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
    if (seat.state === 'notStarted') standing.notStarted++;
    else if (seat.state === 'working') standing.working++;
    else standing.in++;
    if (seat.state === 'working' && seat.deadline !== null) turns.push(seat.deadline);
    if (seat.release) standing.released++;
    if (seat.release && seat.openedAt.length > 0) standing.opened++;
    if (!isIn(seat) || !seat.scorecard) continue;
    const { scorecard } = seat;
    standing.waiting += scorecard.waiting;
    standing.noKey += scorecard.noKey;
    standing.byHand += scorecard.awards.filter((award) => handQuestions.has(award.questionId)).length;
    standing.aside += scorecard.awards.filter((award) => award.aside).length;
    standing.forward += scorecard.awards.filter((award) => award.nearMiss !== null).length;
    if (scorecard.final) standing.ready++;
    const share = isGuest(seat.student) ? null : totalShare(scorecard);
    if (share === null) continue;
    shares += share;
    shared++;
  }
  if (shared > 0) standing.meanShare = shares / shared;
  const ahead = turns.filter((turn) => turn > now);
  if (ahead.length > 0) standing.validUntil = Math.min(...ahead);
  return standing;
}
