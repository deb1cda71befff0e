import type { Growth } from '@/core/analysis/growth';
import { counted, percent, points } from './format';

/** "+4%", "−12%" */
export function signedPercent(share: number): string {
  const whole = percent(Math.abs(share));
  return whole === percent(0) ? whole : `${share < 0 ? '−' : '+'}${whole}`;
}

/** The paired difference in a sentence. */
export function growthWords({
  n,
  before,
  after,
  difference,
  interval,
  up,
  down,
  correlation,
}: Growth): string {
  const chance = interval[0] < 0 && interval[1] > 0 ? ', which may be chance' : ', which is hardly chance';
  const words = `The same ${counted(n, 'student')} went from ${percent(before)} to ${percent(after)}: ${signedPercent(difference)} on average (95% between ${signedPercent(interval[0])} and ${signedPercent(interval[1])})${chance}. ${up} went up, ${down} went down.`;
  return correlation === null ? words : `${words} The correlation of the two is ${points(correlation)}.`;
}
