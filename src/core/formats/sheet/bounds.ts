/** More than this is no sheet of a class or a paper. */
export const largestSheet = 10_000_000;
export const mostRows = 20_000;
export const mostCells = 400_000;
