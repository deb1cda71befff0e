import { mean } from './mean';

/**
 * Pearson’s correlation, −1 to 1; null for fewer than two values, or where one side is the same for all.
 *
 * @throws RangeError when the two are not of one length
 */
export function correlation(a: readonly number[], b: readonly number[]): number | null {
  if (a.length !== b.length) throw new RangeError('as many values are wanted on both sides');
  if (a.length < 2) return null;
  const [meanA, meanB] = [mean(a), mean(b)];
  let [together, ofA, ofB] = [0, 0, 0];
  a.forEach((value, index) => {
    const [own, other] = [value - meanA, (b[index] ?? 0) - meanB];
    together += own * other;
    ofA += own * own;
    ofB += other * other;
  });
  return ofA === 0 || ofB === 0 ? null : together / Math.sqrt(ofA * ofB);
}
