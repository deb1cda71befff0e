import { correlation } from './correlation';

/**
 * How well a question tells strong from weak: the correlation (Pearson) of its points with the points of all the
 * other questions, −1 to 1. Null for fewer than two answers, and where all are the same.
 *
 * @param points of each attempt on the question
 * @param totals of the same attempts on all questions, this one included
 * @throws RangeError when the two are not of one length
 * Source: Henrysson 1963, from memory, as in measures.md.
 */
export function discrimination(points: readonly number[], totals: readonly number[]): number | null {
  return correlation(
    points,
    totals.map((total, index) => total - (points[index] ?? 0)),
  );
}
