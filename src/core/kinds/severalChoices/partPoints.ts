import { assertNever } from '../../basics/assertNever';
import type { PartPointsRule } from './schema';

/** Counts of one answer: R right options, h of them chosen, f wrong ones chosen, o options in all. */
export interface PickCounts {
  right: number;
  hit: number;
  falsePicks: number;
  options: number;
  /** Sum of the weights of the options chosen, as a share of the points. */
  weight: number;
}

/**
 * The share of the points for several choices, 0 to 1.
 * All or nothing: 1 if h = R and f = 0. Right minus wrong: max(0, (h − f)/R).
 * Every option counts: (o − (R − h) − f)/o. Weights: Σ of each chosen option's weight, kept within 0 and 1, as QTI's
 * mapping with its bounds. Formulas: measures.md, "Part points".
 */
export function partPointsShare(
  rule: PartPointsRule,
  { right, hit, falsePicks, options, weight }: PickCounts,
): number {
  switch (rule) {
    case 'allOrNothing':
      return hit === right && falsePicks === 0 ? 1 : 0;
    case 'rightMinusWrong':
      return right === 0 ? 0 : Math.max(0, (hit - falsePicks) / right);
    case 'everyOption':
      return options === 0 ? 0 : (options - (right - hit) - falsePicks) / options;
    case 'weights':
      return Math.min(1, Math.max(0, weight));
    default:
      return assertNever(rule);
  }
}
