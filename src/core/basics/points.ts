/** Points are kept to a hundredth, so that sums show what their parts show. */
export function roundPoints(points: number): number {
  return Math.round(points * 100) / 100;
}

/** The sum of points, free of binary rounding. */
export function sumPoints(points: Iterable<number>): number {
  let hundredths = 0;
  for (const each of points) hundredths += Math.round(each * 100);
  return hundredths / 100;
}
