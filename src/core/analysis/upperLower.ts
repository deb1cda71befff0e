import { mean } from './mean';
import { rowTotals, type PointsMatrix } from './pointsMatrix';

/** The share of attempts that are looked at on either side (Kelley 1939, from memory). */
const side = 0.27;

/**
 * The upper–lower index D: how much more of a question’s points the strongest 27 % have than the weakest, −1 to 1. Ties stand
 * in the order they come.
 *
 * @param points for the question
 * @param totals of the same attempts
 * @param max the question’s points
 * @returns null where a side would be empty
 */
export function upperLower(points: readonly number[], totals: readonly number[], max: number): number | null {
  const size = Math.floor(points.length * side);
  if (size === 0 || max === 0) return null;
  const order = inOrder(totals);
  const of = (rows: readonly number[]) => mean(rows.map((row) => points[row] ?? 0));
  return (of(order.slice(-size)) - of(order.slice(0, size))) / max;
}

/**
 * The upper–lower index of every question of a table, with one look at the order of the totals.
 *
 * @returns in the order of the questions; null where a side would be empty
 */
export function upperLowerOfAll(matrix: PointsMatrix): (number | null)[] {
  const { questions, points } = matrix;
  const width = questions.length;
  const order = inOrder([...rowTotals(matrix)]);
  return questions.map(({ max }, column) => {
    const own: number[] = [];
    for (const row of order) {
      const value = points[row * width + column] ?? Number.NaN;
      if (!Number.isNaN(value)) own.push(value);
    }
    const size = Math.floor(own.length * side);
    return size === 0 || max === 0 ? null : (mean(own.slice(-size)) - mean(own.slice(0, size))) / max;
  });
}

/** The places of values from the least to the most; equal ones in the order they come. */
export const inOrder = (values: readonly number[]): number[] =>
  values.map((_, row) => row).sort((a, b) => (values[a] ?? 0) - (values[b] ?? 0) || a - b);

/**
 * In which of so many parts of the class each attempt is, by its points for the rest: 0 the weakest. Equal ones stand in the
 * order they come. Our own rule: part = ⌊parts · (rank − 1) / n⌋.
 *
 * @param rest the points of each attempt for all other questions
 */
export function partsByRest(rest: readonly number[], parts: number): number[] {
  const of = new Array<number>(rest.length).fill(0);
  inOrder(rest).forEach((row, rank) => {
    of[row] = Math.floor((parts * rank) / rest.length);
  });
  return of;
}
