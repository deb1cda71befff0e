import { tQuantile, tTwoSided } from './distributions';
import { mean } from './mean';
import { standardDeviation } from './standardDeviation';

/** How two groups differ. */
export interface GroupDifference {
  /** The first mean less the second. */
  difference: number;
  /** Its 95 % interval and degrees of freedom (Welch 1947, from memory). */
  interval: [number, number];
  df: number;
  t: number;
  p: number;
  /** The difference in standard deviations, corrected for few (Hedges 1981, from memory). */
  g: number;
}

/** How the means of two groups differ; null where either has fewer than two, or nobody differs. */
export function groupDifference(a: readonly number[], b: readonly number[]): GroupDifference | null {
  const [sa, sb] = [standardDeviation(a), standardDeviation(b)];
  if (sa === null || sb === null || (sa === 0 && sb === 0)) return null;
  const [va, vb] = [sa ** 2 / a.length, sb ** 2 / b.length];
  const difference = mean(a) - mean(b);
  const error = Math.sqrt(va + vb);
  const df = (va + vb) ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1));
  const reach = tQuantile(0.975, df) * error;
  const pooledDf = a.length + b.length - 2;
  const pooled = Math.sqrt(((a.length - 1) * sa ** 2 + (b.length - 1) * sb ** 2) / pooledDf);
  return {
    difference,
    interval: [difference - reach, difference + reach],
    df,
    t: difference / error,
    p: tTwoSided(difference / error, df),
    g: (difference / pooled) * (1 - 3 / (4 * pooledDf - 1)),
  };
}

/** The mean of one group with its 95 % interval; the interval is null for fewer than two. */
export function meanWithInterval(values: readonly number[]): {
  mean: number;
  interval: [number, number] | null;
} {
  const centre = mean(values);
  const deviation = standardDeviation(values);
  if (deviation === null) return { mean: centre, interval: null };
  const reach = (tQuantile(0.975, values.length - 1) * deviation) / Math.sqrt(values.length);
  return { mean: centre, interval: [centre - reach, centre + reach] };
}
