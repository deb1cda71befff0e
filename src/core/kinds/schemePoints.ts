import { roundPoints } from '../basics/points';

export interface WorthPoints {
  points: number;
}

/** What scheme lines are worth together, before any bound. */
export function schemeTotal(lines: readonly WorthPoints[]): number {
  return roundPoints(lines.reduce((sum, line) => sum + line.points, 0));
}

/** Points for the scheme lines an answer met: their sum, never below 0 nor above the question's points. */
export function schemePoints(met: readonly WorthPoints[], max: number): number {
  return Math.min(max, Math.max(0, schemeTotal(met)));
}
