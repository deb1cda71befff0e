import { sumBy } from 'remeda';
import { mean } from './mean';

/**
 * The standard deviation of a sample: how far values typically lie from their mean.
 * Divides by n − 1 (Bessel's correction), for the mean was taken from the same values.
 *
 * @returns null for fewer than two values, which have no spread to speak of
 * @example standardDeviation([2, 4, 4, 4, 5, 5, 7, 9]) // 2.138…
 */
export function standardDeviation(values: readonly number[]): number | null {
  if (values.length < 2) return null;
  const centre = mean(values);
  // Two passes: subtracting the mean first keeps the digits that a one-pass sum of squares would lose.
  const squares = sumBy(values, (value) => (value - centre) ** 2);
  return Math.sqrt(squares / (values.length - 1));
}
