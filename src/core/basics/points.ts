/** Points are kept to a hundredth, so that sums show what their parts show. */
export function roundPoints(points: number): number {
  return Math.round(points * 100) / 100;
}

/** Points in hundredths, a whole number: what adds up without binary rounding. */
export const hundredths = (points: number): number => Math.round(points * 100);

/** The sum of points, free of binary rounding. */
export function sumPoints(points: Iterable<number>): number {
  let sum = 0;
  for (const each of points) sum += hundredths(each);
  return sum / 100;
}
