import { chiSquareAbove } from './distributions';

/** Whether a question treats two groups of equal totals alike. */
export interface EquallyAble {
  /** Common odds of having it right, the first group against the second; 1: alike. */
  oddsRatio: number;
  /** Corrected for continuity. */
  chiSquare: number;
  p: number;
  /** −2.35 · ln(odds ratio): from about 1.5 on it is a large difference (Holland & Thayer 1988, from memory). */
  delta: number;
}

/**
 * Compares two groups on one question within strata of equal totals. Source: Mantel & Haenszel 1959, from memory.
 *
 * @param answers of each attempt: whether it is of the first group, had the question right, and its total
 * @returns null where no stratum has both groups, or all or none of them right
 */
export function mantelHaenszel(
  answers: readonly { first: boolean; right: boolean; total: number }[],
): EquallyAble | null {
  const strata = new Map<number, [number, number, number, number]>();
  for (const { first, right, total } of answers) {
    const stratum = strata.get(total) ?? [0, 0, 0, 0];
    strata.set(total, stratum);
    const place = (first ? 0 : 2) + (right ? 0 : 1);
    stratum[place] = (stratum[place] ?? 0) + 1;
  }
  let [up, down, observed, expected, variance] = [0, 0, 0, 0, 0];
  for (const [a, b, c, d] of strata.values()) {
    const n = a + b + c + d;
    if (n < 2) continue;
    up += (a * d) / n;
    down += (b * c) / n;
    observed += a;
    expected += ((a + b) * (a + c)) / n;
    variance += ((a + b) * (c + d) * (a + c) * (b + d)) / (n * n * (n - 1));
  }
  if (up === 0 || down === 0 || variance === 0) return null;
  const oddsRatio = up / down;
  // Corrected for continuity only where there is that much to correct, as R does.
  const away = Math.abs(observed - expected);
  const chiSquare = (away < 0.5 ? away : away - 0.5) ** 2 / variance;
  return { oddsRatio, chiSquare, p: chiSquareAbove(chiSquare), delta: -2.35 * Math.log(oddsRatio) };
}
