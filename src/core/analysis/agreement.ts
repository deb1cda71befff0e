import { sumBy } from 'remeda';
import { mean } from './mean';
import { standardDeviation } from './standardDeviation';

/** How far two markers agree over the same answers. */
export interface Agreement {
  /** How many answers both gave points to. */
  answers: number;
  /** Share of them with the same points, 0 to 1. */
  exact: number;
  /** Share of them at most half a point apart, 0 to 1. */
  withinHalf: number;
  /** The first marker's points less the second's, on average. */
  meanDifference: number;
  /** The standard deviation of those differences, in points; null for fewer than two answers. */
  sdDifference: number | null;
  /** Cohen's kappa with quadratic weights over the points themselves; null where the points do not vary. */
  kappa: number | null;
  /** The intraclass correlation of single marks, two-way random, absolute agreement; null where it is not defined. */
  icc: number | null;
}

/**
 * How far two markers agree.
 *
 * Source: weighted kappa, Cohen 1968 (weights are squared differences of the points); ICC(2,1), Shrout and Fleiss 1979.
 *
 * @param pairs the points of the first and of the second marker for each answer
 * @returns null for no answers
 */
export function agreement(pairs: readonly (readonly [number, number])[]): Agreement | null {
  if (pairs.length === 0) return null;
  const differences = pairs.map(([a, b]) => a - b);
  const share = (holds: (difference: number) => boolean) =>
    differences.filter((each) => holds(Math.abs(each))).length / pairs.length;
  return {
    answers: pairs.length,
    // Points have at most two decimals: what lies below is the arithmetic's.
    exact: share((apart) => apart < tiny),
    withinHalf: share((apart) => apart < 0.5 + tiny),
    meanDifference: mean(differences),
    sdDifference: standardDeviation(differences),
    kappa: quadraticKappa(pairs),
    icc: intraclass(pairs),
  };
}

/** How good an agreement is, by its kappa. */
export type KappaStep = 'little' | 'moderate' | 'substantial' | 'almostPerfect';

/**
 * How good an agreement is, in the steps of Landis and Koch 1977 (from memory): above 0.8, 0.6 and 0.4. What they tell apart
 * below is little to a marker. Null where kappa is not defined.
 */
export function kappaStep({ kappa }: Pick<Agreement, 'kappa'>): KappaStep | null {
  if (kappa === null) return null;
  if (kappa > 0.8) return 'almostPerfect';
  if (kappa > 0.6) return 'substantial';
  return kappa > 0.4 ? 'moderate' : 'little';
}

/** Whether the answers are too few for the figures to say much (common practice, no source). */
export const isFew = ({ answers }: Pick<Agreement, 'answers'>): boolean => answers < 30;

const tiny = 1e-9;
const square = (value: number) => value * value;

/** One less the mean squared difference over the one that chance gives, with each marker's points as they are spread. */
function quadraticKappa(pairs: readonly (readonly [number, number])[]): number | null {
  const first = pairs.map(([a]) => a);
  const second = pairs.map(([, b]) => b);
  // The mean of (a - b)² over all pairs of a first and a second mark.
  const spread = (values: readonly number[]) => mean(values.map((each) => square(each - mean(values))));
  const byChance = spread(first) + spread(second) + square(mean(first) - mean(second));
  if (byChance < tiny) return null;
  return 1 - mean(pairs.map(([a, b]) => square(a - b))) / byChance;
}

/** ICC(2,1) from the mean squares of a two-way analysis of variance with two markers. */
function intraclass(pairs: readonly (readonly [number, number])[]): number | null {
  const n = pairs.length;
  if (n < 2) return null;
  const k = 2;
  const all = mean(pairs.flat());
  const markers = [mean(pairs.map(([a]) => a)), mean(pairs.map(([, b]) => b))];
  const between = sumBy(pairs, ([a, b]) => k * square((a + b) / 2 - all));
  const ofMarkers = sumBy(markers, (each) => n * square(each - all));
  const total = sumBy(pairs.flat(), (each) => square(each - all));
  const rows = between / (n - 1);
  const columns = ofMarkers / (k - 1);
  const rest = (total - between - ofMarkers) / ((n - 1) * (k - 1));
  const whole = rows + (k - 1) * rest + (k * (columns - rest)) / n;
  return whole < tiny ? null : (rows - rest) / whole;
}
