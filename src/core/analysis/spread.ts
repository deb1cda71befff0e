/** One bar of the picture of the spread. */
export interface SpreadBar {
  /** Share of the maximum, from (included) to (excluded; the last bar includes it). */
  from: number;
  to: number;
  count: number;
}

/**
 * How many results fall in each of `bars` equal steps from 0 to the maximum.
 *
 * @param shares results as shares of their maximum, 0 to 1
 * @example spread([0.05, 0.5, 1], 2) // counts 1 and 2
 */
export function spread(shares: readonly number[], bars = 10): SpreadBar[] {
  const counts = new Array<number>(bars).fill(0);
  for (const share of shares) {
    // A hair is added so that 0.3 falls in the bar that starts at 3/10 although 0.3 * 10 is 3 by luck alone.
    const bar = Math.min(bars - 1, Math.max(0, Math.floor(share * bars + 1e-9)));
    counts[bar] = (counts[bar] ?? 0) + 1;
  }
  return counts.map((count, index) => ({ from: index / bars, to: (index + 1) / bars, count }));
}
