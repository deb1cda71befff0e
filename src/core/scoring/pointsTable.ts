import type { Question } from '../kinds';
import type { Award, Scorecard } from './scoreAttempt';

/** What stands in a cell: the question was not given, its answer waits for a hand, its question has no key, it has points, or is not read yet. */
export const cellStates = { notGiven: 0, waiting: 1, noKey: 2, points: 3, notRead: 4 } as const;

/** Whose row it is: nobody's who is in, a guest's, or that of someone the sitting was set for. */
export type RowOf = 'nobody' | 'guest' | 'student';
const rowKinds: readonly RowOf[] = ['nobody', 'guest', 'student'];

/** How the answers to one question stand, over everyone who is in, guests too. */
export interface AnswerCounts {
  given: number;
  waiting: number;
  noKey: number;
  /** On paper, and not read yet. */
  notRead: number;
  /** Wrong answers that are put forward as nearly right. */
  forward: number;
}

const noCounts = (): AnswerCounts => ({ given: 0, waiting: 0, noKey: 0, notRead: 0, forward: 0 });

/**
 * All points of one sitting: a row an attempt that counts, a column a question. What was not given and what has no points yet
 * are told apart from nought. It is kept up by changes: putting a row costs as many steps as it has questions.
 *
 * Figures are over students who are in; guests have rows and are in no figure.
 */
export class PointsTable {
  readonly questionIds: readonly string[];
  private readonly columns: ReadonlyMap<string, number>;
  private readonly max: Float64Array;
  private rows = 0;
  private of = new Uint8Array(0);
  private state = new Uint8Array(0);
  private forward = new Uint8Array(0);
  private points = new Float64Array(0);
  private total = new Float64Array(0);
  private readonly counts: AnswerCounts[];

  constructor(questions: readonly Pick<Question, 'id' | 'points'>[]) {
    this.questionIds = questions.map(({ id }) => id);
    this.columns = new Map(questions.map(({ id }, index) => [id, index]));
    this.max = Float64Array.from(questions, ({ points }) => points);
    this.counts = questions.map(noCounts);
  }

  /** How many rows there are, of whomever. */
  get length(): number {
    return this.rows;
  }

  /** Puts what the row's attempt scored in place of what stood there. */
  put(row: number, of: RowOf, card: Scorecard | null): void {
    this.reach(row + 1);
    const width = this.questionIds.length;
    const begin = row * width;
    for (let column = 0; column < width; column++) this.take(begin + column, column);
    this.of[row] = card ? rowKinds.indexOf(of) : 0;
    this.total[row] = card?.total ?? 0;
    for (const award of card?.awards ?? []) this.set(begin, award);
  }

  private set(begin: number, award: Award): void {
    const column = this.columns.get(award.questionId);
    const counts = column === undefined ? undefined : this.counts[column];
    // What does not count, with nothing yet to stand in for it, waits for nobody.
    if (column === undefined || !counts || (award.state === 'dropped' && award.points === null)) return;
    const cell = begin + column;
    counts.given++;
    this.points[cell] = award.points ?? 0;
    if (award.points !== null) this.state[cell] = cellStates.points;
    else if (award.state === 'noKey') {
      this.state[cell] = cellStates.noKey;
      counts.noKey++;
    } else if (award.state === 'notRead') {
      this.state[cell] = cellStates.notRead;
      counts.notRead++;
    } else {
      this.state[cell] = cellStates.waiting;
      counts.waiting++;
    }
    if (award.nearMiss !== null) {
      this.forward[cell] = 1;
      counts.forward++;
    }
  }

  private take(cell: number, column: number): void {
    const counts = this.counts[column];
    const state = this.state[cell];
    if (!counts || state === cellStates.notGiven) return;
    counts.given--;
    if (state === cellStates.waiting) counts.waiting--;
    if (state === cellStates.noKey) counts.noKey--;
    if (state === cellStates.notRead) counts.notRead--;
    if (this.forward[cell]) counts.forward--;
    this.state[cell] = cellStates.notGiven;
    this.forward[cell] = 0;
    this.points[cell] = 0;
  }

  private reach(rows: number): void {
    if (rows > this.of.length) {
      const room = Math.max(rows, 2 * this.of.length);
      const width = this.questionIds.length;
      this.of = grown(this.of, new Uint8Array(room));
      this.total = grown(this.total, new Float64Array(room));
      this.state = grown(this.state, new Uint8Array(room * width));
      this.forward = grown(this.forward, new Uint8Array(room * width));
      this.points = grown(this.points, new Float64Array(room * width));
    }
    this.rows = Math.max(this.rows, rows);
  }

  /** How the answers to a question stand; all 0 where it is not in the table. */
  countsOf(questionId: string): Readonly<AnswerCounts> {
    const column = this.columns.get(questionId);
    return this.counts[column ?? -1] ?? noCounts();
  }

  /** Whether the attempt of a row was given a question. */
  isGiven(row: number, questionId: string): boolean {
    const column = this.columns.get(questionId);
    return (
      column !== undefined &&
      (this.state[row * this.questionIds.length + column] ?? 0) !== cellStates.notGiven
    );
  }

  /** What a question is worth. */
  maxOf(questionId: string): number {
    return this.max[this.columns.get(questionId) ?? -1] ?? 0;
  }

  /**
   * The points for one question of every student who is in and has some, and what each of them has in all, so far.
   *
   * @returns two lists of one length, in the order of the rows
   */
  columnOf(questionId: string): { points: number[]; totals: number[] } {
    const column = this.columns.get(questionId);
    const points: number[] = [];
    const totals: number[] = [];
    if (column === undefined) return { points, totals };
    for (let row = 0, cell = column; row < this.rows; row++, cell += this.questionIds.length)
      if (this.of[row] === 2 && this.state[cell] === cellStates.points) {
        points.push(this.points[cell] ?? 0);
        totals.push(this.total[row] ?? 0);
      }
    return { points, totals };
  }
}

function grown<A extends Uint8Array | Float64Array>(from: A, to: A): A {
  to.set(from);
  return to;
}
