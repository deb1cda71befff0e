import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../tests/unit/samples';
import { facility } from '../analysis/facility';
import type { CountRule } from '../model/sitting';
import { progressOf } from './progress';
import { SeatBook, seatTables, type SeatRowOf, type SeatTable } from './seatBook';
import { inFigures, isIn, seatsOf, type SittingRecords } from './seats';

const start = Date.parse(at);
const minutes = (count: number) => count * 60_000;
const iso = (ms: number) => new Date(ms).toISOString();
const students = Array.from({ length: 5 }, (_, index) =>
  studentOf({ id: `s${index}`, ...(index === 4 && { role: 'guest' as const }) }),
);

/** One thing that happens to a sitting's rows, or time that passes. */
const anyStep = fc.record({
  what: fc.constantFrom(
    'answer', 'handIn', 'aside', 'mark', 'unmark', 'deleteAttempt', 'minutes', 'takeMinutes', 'release', 'open', 'wait', 'wait',
  ), // prettier-ignore
  who: fc.nat(4),
  number: fc.integer({ min: 1, max: 2 }),
  text: fc.constantFrom('ebb', 'Neaps', 'SECRET-118', ''),
  points: fc.integer({ min: 0, max: 3 }),
});
type Step = typeof anyStep extends fc.Arbitrary<infer T> ? T : never;
type Change =
  { [T in SeatTable]: { table: T; row: SeatRowOf[T] } }[SeatTable] | { table: SeatTable; gone: string[] };

/** The rows as a database would have them, and what each step changes. */
class Rows {
  readonly all = new Map<SeatTable, Map<string, SeatRowOf[SeatTable]>>(
    seatTables.map((table) => [table, new Map()]),
  );

  step({ what, who, number, text, points }: Step, now: number): Change[] {
    const studentId = `s${who}`;
    const id = `${studentId}-${number}`;
    const before = this.all.get('attempts')?.get(id) as SeatRowOf['attempts'] | undefined;
    const attempt = before ?? attemptOf({ id, studentId, number, startedAt: iso(now), answers: {} });
    const mark = markOf({ attemptId: id, questionId: 'q4', points });
    switch (what) {
      case 'answer':
        return this.put('attempts', {
          ...attempt,
          answers: { ...attempt.answers, q3: { response: { text }, at: iso(now) } },
        });
      case 'handIn':
        return this.put('attempts', { ...attempt, handedInAt: iso(now) });
      case 'aside':
        return this.put('attempts', { ...attempt, setAsideAt: iso(now) });
      case 'mark':
        return this.put('marks', mark);
      case 'unmark':
        return this.take('marks', [id, 'q4', 'teacher']);
      case 'deleteAttempt':
        return [...this.take('marks', [id, 'q4', 'teacher']), ...this.take('attempts', [id])];
      case 'minutes':
        return this.put('allowances', {
          id: `${id}-more`,
          sittingId: 'sitting1',
          studentId,
          kind: 'minutes',
          minutes: points,
          reason: '',
          at: iso(now),
        });
      case 'takeMinutes':
        return this.take('allowances', [`${id}-more`]);
      case 'release': {
        const shows = {
          total: true,
          points: true,
          answers: true,
          rightOrWrong: true,
          accepted: true,
          comments: true,
        };
        return this.put('releases', { sittingId: 'sitting1', studentId, shows, releasedAt: iso(now) });
      }
      case 'open':
        return this.put('openings', { sittingId: 'sitting1', studentId, at: [iso(now)] });
      default:
        return [];
    }
  }

  private put<T extends SeatTable>(table: T, row: SeatRowOf[T]): Change[] {
    const key =
      'attemptId' in row
        ? `${row.attemptId} ${row.questionId} ${row.markerId}`
        : 'id' in row
          ? row.id
          : `${row.studentId}`;
    this.all.get(table)?.set(key, row);
    return [{ table, row } as unknown as Change];
  }

  private take(table: SeatTable, key: string[]): Change[] {
    this.all.get(table)?.delete(key.join(' '));
    return [{ table, gone: key }];
  }

  records(frame: Pick<SittingRecords, 'sitting' | 'questions' | 'students'>): SittingRecords {
    const of = <T extends SeatTable>(table: T) =>
      [...(this.all.get(table)?.values() ?? [])] as SeatRowOf[T][];
    const [attempts, allowances, marks] = [of('attempts'), of('allowances'), of('marks')];
    return { ...frame, attempts, allowances, marks, releases: of('releases'), openings: of('openings') };
  }
}

const apply = (book: SeatBook, changes: readonly Change[]) => {
  for (const change of changes)
    if ('gone' in change) book.remove(change.table, change.gone);
    else book.set(change.table, change.row);
};

describe('the book of a sitting’s seats', () => {
  it('tells after any changes what all rows tell: seats, progress and the table of points', () => {
    const rules = fc.constantFrom<CountRule>('last', 'best', 'first', 'mean');
    fc.assert(
      fc.property(fc.array(anyStep, { maxLength: 25 }), rules, (steps, counts) => {
        const sitting = sittingOf({
          id: 'sitting1',
          counts,
          attempts: 9,
          timeLimitMs: minutes(10),
          closesAt: iso(start + minutes(30)),
        });
        const frame = { sitting, questions: paperQuestions, students };
        const book = new SeatBook(frame);
        const rows = new Rows();
        let now = start;
        for (const step of steps) {
          if (step.what === 'wait') now += minutes(3 * step.points);
          apply(book, rows.step(step, now));
          const { seats, progress, table } = book.at(now);
          const records = rows.records(frame);
          const whole = seatsOf(records, now);
          expect(seats).toEqual(whole);
          expect(progress).toEqual(progressOf(records, now));
          const inside = whole.filter(isIn);
          for (const { id, points: max } of paperQuestions) {
            const awards = (of: typeof whole) =>
              of.flatMap(({ scorecard }) => scorecard?.awards.filter((each) => each.questionId === id) ?? []);
            expect(table.countsOf(id)).toEqual({
              given: awards(inside).length,
              waiting: awards(inside).filter(({ state }) => state === 'waiting').length,
              notRead: awards(inside).filter(({ state }) => state === 'notRead').length,
              noKey: awards(inside).filter(({ state }) => state === 'noKey').length,
              forward: awards(inside).filter(({ nearMiss }) => nearMiss !== null).length,
            });
            const points = awards(inFigures(inside)).flatMap((award) => award.points ?? []);
            expect(table.columnOf(id).points).toEqual(points);
            expect(facility(table.columnOf(id).points, table.maxOf(id))).toBe(facility(points, max));
          }
        }
      }),
      { numRuns: 150 },
    );
  });

  it('keeps the seats of everybody else as they are: the same objects', () => {
    const frame = { sitting: sittingOf(), questions: paperQuestions, students };
    const book = new SeatBook(frame);
    for (const { id } of students)
      book.set('attempts', attemptOf({ id: `a-${id}`, studentId: id, handedInAt: at }));
    const before = book.at(start + 1000);
    expect(book.at(start + 2000)).toBe(before);
    book.set('marks', markOf({ attemptId: 'a-s2', questionId: 'q4', points: 2 }));
    const after = book.at(start + 3000);
    expect(after).not.toBe(before);
    expect(after.seats.map((seat, place) => seat === before.seats[place])).toEqual([
      true,
      true,
      false,
      true,
      true,
    ]);
  });

  it('a student who changed is the only one seated anew; another paper seats everybody anew', () => {
    const frame = { sitting: sittingOf(), questions: paperQuestions, students };
    const book = new SeatBook(frame);
    const before = book.at(start);
    const renamed = students.map((student) =>
      student.id === 's1' ? { ...student, givenName: 'Ines' } : student,
    );
    book.reframe({ ...frame, students: renamed });
    const after = book.at(start);
    expect(after.seats.map((seat, place) => seat === before.seats[place])).toEqual([
      true,
      false,
      true,
      true,
      true,
    ]);
    expect(after.seats[1]?.student.givenName).toBe('Ines');
    book.reframe({ ...frame, students: renamed, questions: [...paperQuestions] });
    expect(book.at(start).seats.some((seat, place) => seat === after.seats[place])).toBe(false);
  });
});
