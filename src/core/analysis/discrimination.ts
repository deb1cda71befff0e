import { mean } from './mean';

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
  if (points.length !== totals.length) throw new RangeError('as many totals as points are wanted');
  if (points.length < 2) return null;
  const rest = totals.map((total, index) => total - (points[index] ?? 0));
  const [meanPoints, meanRest] = [mean(points), mean(rest)];
  let together = 0;
  let ofPoints = 0;
  let ofRest = 0;
  points.forEach((value, index) => {
    const a = value - meanPoints;
    const b = (rest[index] ?? 0) - meanRest;
    together += a * b;
    ofPoints += a * a;
    ofRest += b * b;
  });
  return ofPoints === 0 || ofRest === 0 ? null : together / Math.sqrt(ofPoints * ofRest);
}
