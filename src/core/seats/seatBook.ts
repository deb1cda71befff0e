import type { Allowance, Attempt, Sitting } from '../model/sitting';
import type { Opening, Release, ReleasePlan } from '../model/release';
import type { HandMark } from '../model/mark';
import type { Student } from '../model/people';
import type { Question } from '../kinds';
import { PointsTable } from '../scoring/pointsTable';
import { progressFrom, type SittingProgress } from './progress';
import { seatHolds, seatOf, type Seat } from './seats';
import { putSeat } from './tableOf';

/** What the seats of a sitting hang on besides their own rows. */
export interface SeatFrame {
  sitting: Sitting;
  questions: Question[];
  /** In the order in which the seats stand. */
  students: Student[];
  plan?: ReleasePlan | null;
}

/** The rows of a sitting that belong to one student each. */
export interface SeatRowOf {
  attempts: Attempt;
  marks: HandMark;
  allowances: Allowance;
  releases: Release;
  openings: Opening;
}
export type SeatTable = keyof SeatRowOf;
export const seatTables: readonly SeatTable[] = ['attempts', 'marks', 'allowances', 'releases', 'openings'];

/** One sitting at one instant. The seats of students of whom nothing changed are the same objects as before. */
export interface SeatsNow {
  seats: Seat[];
  progress: SittingProgress;
  /** Kept up in place: what it tells is as of the latest `at`. */
  table: PointsTable;
}

/** A student's rows, each by its key. */
interface Kept {
  attempts: Map<string, Attempt>;
  marks: Map<string, Map<string, HandMark>>;
  allowances: Map<string, Allowance>;
  release: Release | null;
  opening: Opening | null;
}

const nothing = (): Kept => ({
  attempts: new Map(),
  marks: new Map(),
  allowances: new Map(),
  release: null,
  opening: null,
});

/** Under what a mark of an attempt lies. */
const markKey = (questionId: string, markerId: string) => `${questionId} ${markerId}`;

/**
 * The seats of one sitting, kept up by changes of its rows: a change costs what its student's seat costs, and the clock
 * what it passes. It gives what `seatsOf` gives from all rows (held by a property test).
 */
export class SeatBook {
  private frame: SeatFrame;
  private readonly kept = new Map<string, Kept>();
  /** Whose each attempt is: marks name their attempt alone. */
  private readonly studentOf = new Map<string, string>();
  /** Marks that came before their attempt. */
  private readonly early = new Map<string, Map<string, HandMark>>();
  private seats: (Seat | undefined)[] = [];
  private holds: number[] = [];
  private changed = new Set<string>();
  private table: PointsTable;
  private latest: SeatsNow | null = null;
  private askedAt = -Infinity;

  constructor(frame: SeatFrame) {
    this.frame = frame;
    this.table = new PointsTable(frame.questions);
    this.reframe(frame);
  }

  /** Puts a new frame in place; students whose record is the same object keep their seats where the rest stayed. */
  reframe(frame: SeatFrame): void {
    const same =
      frame.sitting === this.frame.sitting &&
      frame.questions === this.frame.questions &&
      frame.plan === this.frame.plan;
    const before = same ? new Map(this.seats.map((seat, place) => [seat?.student, place])) : new Map();
    const [seats, holds] = [this.seats, this.holds];
    this.frame = frame;
    this.table = new PointsTable(frame.questions);
    const places = frame.students.map((student) => before.get(student) as number | undefined);
    this.seats = places.map((place) => (place === undefined ? undefined : seats[place]));
    this.holds = places.map((place) => (place === undefined ? -Infinity : (holds[place] ?? -Infinity)));
    this.seats.forEach((seat, place) => seat && putSeat(this.table, place, seat));
    this.latest = null;
  }

  /** Puts a row in place of the one with its key, or adds it. */
  set<T extends SeatTable>(table: T, row: SeatRowOf[T]): void {
    // The name of a table and its row belong together, which the types of a union cannot say.
    const change = { table, row } as unknown as {
      [K in SeatTable]: { table: K; row: SeatRowOf[K] };
    }[SeatTable];
    switch (change.table) {
      case 'attempts':
        return this.setAttempt(change.row);
      case 'marks':
        return this.setMark(change.row);
      case 'allowances':
        this.of(change.row.studentId).allowances.set(change.row.id, change.row);
        return void this.changed.add(change.row.studentId);
      case 'releases':
        this.of(change.row.studentId).release = change.row;
        return void this.changed.add(change.row.studentId);
      case 'openings':
        this.of(change.row.studentId).opening = change.row;
        return void this.changed.add(change.row.studentId);
    }
  }

  private setAttempt(attempt: Attempt): void {
    const before = this.studentOf.get(attempt.id);
    // Merged with another student, an attempt goes over.
    if (before !== undefined && before !== attempt.studentId) this.remove('attempts', [attempt.id]);
    const kept = this.of(attempt.studentId);
    kept.attempts.set(attempt.id, attempt);
    this.studentOf.set(attempt.id, attempt.studentId);
    const marks = this.early.get(attempt.id);
    if (marks) kept.marks.set(attempt.id, marks);
    this.early.delete(attempt.id);
    this.changed.add(attempt.studentId);
  }

  private setMark(mark: HandMark): void {
    const studentId = this.studentOf.get(mark.attemptId);
    const marks = studentId === undefined ? this.early : this.of(studentId).marks;
    const of = marks.get(mark.attemptId);
    const key = markKey(mark.questionId, mark.markerId);
    if (of) of.set(key, mark);
    else marks.set(mark.attemptId, new Map([[key, mark]]));
    if (studentId !== undefined) this.changed.add(studentId);
  }

  /** Takes a row away; nothing where there is none. Its key, each field as it is stored. */
  remove(table: SeatTable, key: readonly unknown[]): void {
    const [first = '', second = '', third = ''] = key.map(String);
    if (table === 'attempts') {
      const studentId = this.studentOf.get(first);
      if (studentId === undefined) return;
      const kept = this.of(studentId);
      kept.attempts.delete(first);
      const marks = kept.marks.get(first);
      if (marks) this.early.set(first, marks);
      kept.marks.delete(first);
      this.studentOf.delete(first);
      this.changed.add(studentId);
    } else if (table === 'marks') {
      const studentId = this.studentOf.get(first);
      this.early.get(first)?.delete(markKey(second, third));
      if (studentId === undefined) return;
      this.of(studentId).marks.get(first)?.delete(markKey(second, third));
      this.changed.add(studentId);
    } else if (table === 'allowances') {
      for (const [studentId, kept] of this.kept)
        if (kept.allowances.delete(first)) this.changed.add(studentId);
    } else {
      const kept = this.kept.get(second);
      if (!kept) return;
      if (table === 'releases') kept.release = null;
      else kept.opening = null;
      this.changed.add(second);
    }
  }

  private of(studentId: string): Kept {
    const known = this.kept.get(studentId);
    if (known) return known;
    const kept = nothing();
    this.kept.set(studentId, kept);
    return kept;
  }

  /**
   * The sitting at an instant. The same object as before where neither a row changed nor a time was passed.
   *
   * @param now ms since 1970
   */
  at(now: number): SeatsNow {
    const { sitting, students } = this.frame;
    let turned = this.latest === null;
    // A clock that was set back holds nothing.
    const back = now < this.askedAt;
    this.askedAt = now;
    for (const [place, student] of students.entries()) {
      const holds = !back && (this.holds[place] ?? -Infinity) > now;
      if (holds && !this.changed.has(student.id)) continue;
      const seat = seatOf(this.frame, student, rowsOf(this.kept.get(student.id) ?? nothing()), now);
      this.seats[place] = seat;
      this.holds[place] = seatHolds(seat, sitting, now);
      putSeat(this.table, place, seat);
      turned = true;
    }
    this.changed.clear();
    const validUntil = this.latest?.progress.validUntil ?? null;
    if (!turned && this.latest && (validUntil === null || validUntil > now)) return this.latest;
    const seats = this.seats as Seat[]; // each has been made by now
    this.latest = { seats: [...seats], progress: progressFrom(sitting, seats, now), table: this.table };
    return this.latest;
  }

  /** Every row of a table, in no order that means anything. */
  rows<T extends SeatTable>(table: T): SeatRowOf[T][] {
    const all = [...this.kept.values()].flatMap((kept): unknown[] => {
      if (table === 'attempts') return [...kept.attempts.values()];
      if (table === 'marks') return [...kept.marks.values()].flatMap((marks) => [...marks.values()]);
      if (table === 'allowances') return [...kept.allowances.values()];
      const one = table === 'releases' ? kept.release : kept.opening;
      return one ? [one] : [];
    });
    return all as SeatRowOf[T][]; // as they were put
  }
}

function rowsOf({ attempts, marks, allowances, release, opening }: Kept) {
  return {
    attempts: [...attempts.values()],
    allowances: [...allowances.values()],
    marksOf: ({ id }: Attempt) => [...(marks.get(id)?.values() ?? [])],
    release,
    opening,
  };
}
