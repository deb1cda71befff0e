import type { TableRow } from './table';

/** A title or two may stand above a heading. */
const mostAbove = 5;

/**
 * Which row names the columns: the first, where it knows one; else the first below it that knows two, with what stands
 * above it a title. Null where none does.
 *
 * @param known how many of the cells of a row it takes for names of columns
 */
export function headingOf(
  rows: readonly TableRow[],
  known: (cells: readonly string[]) => number,
): number | null {
  const counts = rows.slice(0, mostAbove + 1).map(({ cells }) => known(cells));
  const best = counts.findIndex((count) => count > 1);
  if (best >= 0) return best;
  return (counts[0] ?? 0) > 0 ? 0 : null;
}

/** The rows below the heading. */
export const bodyOf = (rows: readonly TableRow[], heading: number | null): readonly TableRow[] =>
  heading === null ? rows : rows.slice(heading + 1);
