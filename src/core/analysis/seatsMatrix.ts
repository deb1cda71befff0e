import type { Question } from '../kinds';
import { counts } from '../scoring/counts';
import type { Seat } from '../seats/seats';
import type { PointsMatrix } from './pointsMatrix';

/** The points of these seats, a row each; questions that no longer count have no column. */
export function matrixOf(questions: readonly Question[], seats: readonly Seat[]): PointsMatrix {
  const counted = questions.filter(counts);
  const columns = new Map(counted.map(({ id }, column) => [id, column]));
  const points = new Float64Array(seats.length * counted.length).fill(Number.NaN);
  seats.forEach(({ scorecard }, row) => {
    for (const award of scorecard?.awards ?? []) {
      const column = columns.get(award.questionId);
      if (column !== undefined && award.points !== null) points[row * counted.length + column] = award.points;
    }
  });
  return { questions: counted.map(({ id, points: max }) => ({ id, max })), n: seats.length, points };
}
