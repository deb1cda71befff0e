import { hundredths } from '../basics/points';
import type { GradeLine, GradeScale } from '../model/gradeScale';

/** The lines of a scale, the best grade first; equal ones in the order in which they were made. */
export const linesDown = ({ lines }: GradeScale): GradeLine[] => [...lines].sort((a, b) => b.from - a.from);

/** A result, as far as a grade hangs on it. */
export interface Graded {
  points: number;
  max: number;
}

/**
 * How far a result is above a line, in points: 0 on it. A line by percent is held against the unrounded share, so that 59.6 %
 * does not reach 60 %.
 */
export function aboveLine(
  { by }: Pick<GradeScale, 'by'>,
  { from }: GradeLine,
  { points, max }: Graded,
): number {
  const line = by === 'points' ? hundredths(from) : from * hundredths(max);
  // A share has no exact number in floating point: what a thousandth of a hundredth makes is none.
  return Math.round((hundredths(points) - line) * 1000) / 100_000;
}

/** The grade of a result: of the highest line that it reaches; null below all of them, or where there is nothing to reach. */
export function gradeOf(scale: GradeScale, result: Graded): string | null {
  if (result.max <= 0) return null;
  return linesDown(scale).find((line) => aboveLine(scale, line, result) >= 0)?.grade ?? null;
}

/** How many results have each grade, the best first, and those below all lines last under null. */
export function gradeCounts(
  scale: GradeScale,
  results: readonly Graded[],
): { grade: string | null; from: number; count: number }[] {
  const lines = linesDown(scale).filter(
    (line, index, all) => all.findIndex(({ grade }) => grade === line.grade) === index,
  );
  const grades = results.map((result) => gradeOf(scale, result));
  const rows = lines.map(({ grade, from }) => ({
    grade,
    from,
    count: grades.filter((each) => each === grade).length,
  }));
  const below = grades.filter((each) => each === null).length;
  return below > 0 ? [...rows, { grade: null, from: 0, count: below }] : rows;
}

/** Where each grade begins as a share of a maximum, the best first; those that nobody can reach are left out. */
export function gradeShares(scale: GradeScale | null, max: number): { grade: string; from: number }[] {
  if (!scale || max <= 0) return [];
  return linesDown(scale)
    .map(({ grade, from }) => ({ grade, from: scale.by === 'points' ? from / max : from }))
    .filter(({ from }) => from <= 1);
}
