import { sum } from 'remeda';

/**
 * The arithmetic mean: the balance point of the values.
 *
 * @throws RangeError on no values
 * @example mean([1, 2, 6]) // 3
 */
export function mean(values: readonly number[]): number {
  if (values.length === 0) throw new RangeError('mean of no values');
  return sum(values) / values.length;
}
