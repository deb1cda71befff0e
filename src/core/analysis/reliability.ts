import { sumBy } from 'remeda';
import { fQuantile } from './distributions';
import { mean } from './mean';
import { questionMoments } from './moments';
import { completeRows, rowTotals, type PointsMatrix } from './pointsMatrix';
import { standardDeviation } from './standardDeviation';

/** How far a total can be trusted. */
export interface Reliability {
  /** Over how many attempts, each with points for every question. */
  n: number;
  /** Cronbach’s alpha (Cronbach 1951, from memory); KR-20 where all points are 0 or 1. */
  alpha: number;
  /** Its 95 % interval (Feldt 1965, from memory). */
  interval: [number, number];
  isKr20: boolean;
  /** From mean and variance alone, as if all questions were equally hard (Kuder & Richardson 1937, from memory); null unless 0/1. */
  kr21: number | null;
  /** Standard error of measurement, in points. */
  standardError: number;
  /** Alpha of all the other questions, by question id; null where it cannot be told. */
  without: ReadonlyMap<string, number | null>;
}

/**
 * How far the total of a sitting can be trusted. Only attempts with points for every question can be compared.
 *
 * @returns null with fewer than two questions or two such attempts, or where all totals are the same
 */
export function reliability(matrix: PointsMatrix): Reliability | null {
  const whole = completeRows(matrix);
  const { n, questions, points } = whole;
  const k = questions.length;
  if (k < 2 || n < 2) return null;
  const totals = [...rowTotals(whole)];
  const deviation = standardDeviation(totals) ?? 0;
  const variance = deviation ** 2;
  if (variance === 0) return null;
  const moments = questionMoments(whole);
  const sum = sumBy(moments, (each) => each.variance);
  const alpha = alphaOf(k, sum, variance);
  const isKr20 = points.every((value) => value === 0 || value === 1);
  const centre = mean(totals);
  const ofAll = (variance * (n - 1)) / n;
  return {
    n,
    alpha,
    interval: alphaInterval(alpha, n, k),
    isKr20,
    kr21: isKr20 ? (k / (k - 1)) * (1 - (centre * (k - centre)) / (k * ofAll)) : null,
    standardError: deviation * Math.sqrt(Math.max(0, 1 - alpha)),
    without: new Map(
      questions.map(({ id }, column) => {
        const { variance: own, restVariance } = moments[column] ?? { variance: 0, restVariance: 0 };
        return [id, k < 3 || restVariance === 0 ? null : alphaOf(k - 1, sum - own, restVariance)];
      }),
    ),
  };
}

const alphaOf = (k: number, sumOfVariances: number, varianceOfTotal: number): number =>
  (k / (k - 1)) * (1 - sumOfVariances / varianceOfTotal);

/** The 95 % interval of alpha. Source: Feldt 1965, from memory. */
function alphaInterval(alpha: number, n: number, k: number): [number, number] {
  const [df1, df2] = [n - 1, (n - 1) * (k - 1)];
  return [1 - (1 - alpha) * fQuantile(0.975, df1, df2), 1 - (1 - alpha) * fQuantile(0.025, df1, df2)];
}

/**
 * How many times as long a paper of like questions would have to be for a wanted reliability.
 *
 * @param alpha of the paper as it is, above 0 and below 1
 * @returns null where no length would do
 * Source: Spearman 1910 and Brown 1910, from memory.
 */
export function lengthFor(wanted: number, alpha: number): number | null {
  return alpha > 0 && alpha < 1 ? (wanted * (1 - alpha)) / (alpha * (1 - wanted)) : null;
}
