/** More than this is no sheet of a class or a paper: 10,000 answer sheets of 100 questions are less. */
export const largestSheet = 40_000_000;
export const mostRows = 20_000;
export const mostCells = 1_200_000;
