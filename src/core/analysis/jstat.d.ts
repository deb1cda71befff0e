/** The part of jstat that is used; it ships no types. */
declare module 'jstat' {
  const jStat: {
    studentt: { inv: (p: number, df: number) => number; cdf: (x: number, df: number) => number };
    centralF: { inv: (p: number, df1: number, df2: number) => number };
    chisquare: { cdf: (x: number, df: number) => number };
  };
  export default jStat;
}
