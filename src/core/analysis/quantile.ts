/**
 * The value below which a share `p` of the values lies, by linear interpolation between neighbours: type 7 of
 * Hyndman & Fan 1996, the default of R and NumPy. The median is `quantile(values, 0.5)`.
 *
 * @param p 0 to 1
 * @throws RangeError on no values, or p outside 0 to 1
 * @example quantile([1, 2, 3, 4], 0.5) // 2.5
 */
export function quantile(values: readonly number[], p: number): number {
  if (values.length === 0) throw new RangeError('quantile of no values');
  if (!(p >= 0 && p <= 1)) throw new RangeError(`quantile at ${p}, which is not within 0 to 1`);
  const sorted = [...values].sort((a, b) => a - b);
  const place = (sorted.length - 1) * p;
  const low = Math.floor(place);
  const below = sorted[low] ?? 0;
  const above = sorted[Math.min(low + 1, sorted.length - 1)] ?? below;
  return below + (place - low) * (above - below);
}
