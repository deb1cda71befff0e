// @vitest-environment jsdom
import { screen } from '@testing-library/react';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../tests/unit/samples';
import { draw } from '../../../tests/unit/screen';
import type * as gridOrder from '@/core/seats/gridOrder';
import { SeatBook } from '@/core/seats/seatBook';
import type { Seat } from '@/core/seats/seats';
import type { SittingData } from '@/desk/useSitting';
import { StudentGrid } from './StudentGrid';

/** Whose rows were drawn. */
const drawn: string[] = [];
vi.mock('@/core/seats/gridOrder', async (original) => {
  const real = await original<typeof gridOrder>();
  return {
    ...real,
    minutesOf: (seat: Seat, now: number) => {
      drawn.push(seat.student.id);
      return real.minutesOf(seat, now);
    },
  };
});

const students = Array.from({ length: 8 }, (_, index) =>
  studentOf({ id: `s${index}`, familyName: `Family${index}` }),
);
const frame = { sitting: sittingOf(), questions: paperQuestions, students };
const now = Date.parse(at) + 1000;

/** The grid as the page gives it, for what the book tells now. */
function grid(book: SeatBook, picked: ReadonlySet<string>, choose: () => void, pick: () => void) {
  const { seats, progress, table } = book.at(now);
  const data = { ...frame, seats, progress, table, now } as unknown as SittingData; // what the grid reads of it
  return (
    <StudentGrid
      sitting={data}
      seats={seats}
      nameOf={(seat) => seat.student.familyName}
      order={{ column: 'name', turned: false }}
      setOrder={() => undefined}
      currentId={null}
      choose={choose}
      picked={picked}
      pick={pick}
    />
  );
}

beforeEach(() => {
  drawn.length = 0;
  // jsdom lays nothing out: without a height no row is in sight.
  vi.spyOn(HTMLElement.prototype, 'offsetHeight', 'get').mockReturnValue(600);
  vi.spyOn(HTMLElement.prototype, 'offsetWidth', 'get').mockReturnValue(900);
});

describe('the live grid', () => {
  it('a mark or an answer draws the row of that student again, and no other', () => {
    const book = new SeatBook(frame);
    for (const { id } of students)
      book.set('attempts', attemptOf({ id: `a-${id}`, studentId: id, handedInAt: at }));
    const [picked, nothing] = [new Set<string>(), () => undefined];
    const { rerender } = draw(grid(book, picked, nothing, nothing));
    expect(screen.getAllByRole('rowheader').length).toBeGreaterThan(8);
    drawn.length = 0;
    book.set('marks', markOf({ attemptId: 'a-s3', questionId: 'q4', points: 2 }));
    rerender(grid(book, picked, nothing, nothing));
    expect(drawn).toEqual(['s3']);
    drawn.length = 0;
    rerender(grid(book, picked, nothing, nothing));
    expect(drawn).toEqual([]);
  });
});
