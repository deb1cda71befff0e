import { mean } from './mean';

/**
 * How easy a question was: the mean points as a share of its maximum. Not answered counts 0 points.
 *
 * @param points one value an attempt that was given the question
 * @param max the question's points
 * @returns 0 to 1; null when nobody was given it or it is worth nothing
 * @example facility([1, 0.5, 0], 1) // 0.5
 */
export function facility(points: readonly number[], max: number): number | null {
  return points.length === 0 || max === 0 ? null : mean(points) / max;
}
