import { sumBy } from 'remeda';
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

/**
 * The point-biserial correlation of being among some of a list with the values of the list: Pearson’s, where one side is 1 for
 * those and 0 for all others. Costs as much as those are, whatever the length of the list.
 *
 * @param chosen places in the list, each once
 * @param spread of the whole list: its mean, and the sum of squares about it
 * @returns null where all or none are chosen, or all values are the same
 */
export function pointBiserial(
  chosen: readonly number[],
  values: readonly number[],
  spread: { mean: number; squares: number },
): number | null {
  const ofChosen = (chosen.length * (values.length - chosen.length)) / values.length;
  if (!(ofChosen > 0) || spread.squares === 0) return null;
  const together = sumBy(chosen, (place) => (values[place] ?? 0) - spread.mean);
  return together / Math.sqrt(ofChosen * spread.squares);
}
