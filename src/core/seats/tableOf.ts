import type { Question } from '../kinds';
import { isGuest } from '../model/names';
import { PointsTable } from '../scoring/pointsTable';
import { isIn, type Seat } from './seats';

/** Puts what a seat scored into its row: nothing before its student is in. */
export function putSeat(table: PointsTable, row: number, seat: Seat): void {
  table.put(row, isGuest(seat.student) ? 'guest' : 'student', isIn(seat) ? seat.scorecard : null);
}

/** The points of these seats, a row each. */
export function tableOf(questions: readonly Question[], seats: readonly Seat[]): PointsTable {
  const table = new PointsTable(questions);
  seats.forEach((seat, row) => putSeat(table, row, seat));
  return table;
}
