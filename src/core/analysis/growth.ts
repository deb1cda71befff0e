import { correlation } from './correlation';
import { tQuantile } from './distributions';
import { mean } from './mean';
import { standardDeviation } from './standardDeviation';

/** How the same students did before and after. */
export interface Growth {
  n: number;
  before: number;
  after: number;
  /** Mean of the paired differences, and its 95 % interval. */
  difference: number;
  interval: [number, number];
  /** Standard deviation of the differences. */
  deviation: number;
  /** Correlation of before and after; null where either is the same for all. */
  correlation: number | null;
  /** How many are lower after than before, and how many higher. */
  down: number;
  up: number;
}

/** The paired difference of two results of the same students; null for fewer than two. */
export function growth(pairs: readonly { before: number; after: number }[]): Growth | null {
  const differences = pairs.map(({ before, after }) => after - before);
  const deviation = standardDeviation(differences);
  if (deviation === null) return null;
  const n = pairs.length;
  const [first, second] = [pairs.map(({ before }) => before), pairs.map(({ after }) => after)];
  const difference = mean(differences);
  const reach = (tQuantile(0.975, n - 1) * deviation) / Math.sqrt(n);
  return {
    n,
    before: mean(first),
    after: mean(second),
    difference,
    interval: [difference - reach, difference + reach],
    deviation,
    correlation: correlation(first, second),
    down: differences.filter((each) => each < -1e-9).length,
    up: differences.filter((each) => each > 1e-9).length,
  };
}
