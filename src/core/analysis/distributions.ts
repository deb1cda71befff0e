import jStat from 'jstat';

/** The value below which a share `p` of Student’s t lies. @param df degrees of freedom, above 0, need not be whole */
export const tQuantile = (p: number, df: number): number => jStat.studentt.inv(p, df);

/** The probability of a t at least so far from 0, on both sides. */
export const tTwoSided = (t: number, df: number): number => 2 * jStat.studentt.cdf(-Math.abs(t), df);

/** The value below which a share `p` of the F distribution lies. @param df1, df2 degrees of freedom, above 0 */
export const fQuantile = (p: number, df1: number, df2: number): number => jStat.centralF.inv(p, df1, df2);

/** The probability of a χ² of one degree of freedom at least so large. */
export const chiSquareAbove = (value: number): number => 1 - jStat.chisquare.cdf(value, 1);
