import type { Question } from '../kinds';
import { schemePoints, switchedLines } from '../kinds/schemePoints';
import { adjusted, type HandMark } from '../model/mark';
import { groupLines } from './groupMark';
import { wholeScheme } from './scheme';

type Marked = Pick<HandMark, 'at' | 'lines' | 'points' | 'adjustment'>;

/**
 * What one of several equal answers has once a scheme line is switched: the same lines for all of them, those that the group
 * shows with this one on or off, and the points that follow, with what this one has beside them.
 *
 * @param before the mark of this answer
 * @param all the marks of all of them; of one answer alone, its own
 */
export function withLineSwitched(
  question: Question,
  before: Marked,
  all: readonly Marked[],
  lineId: string,
): Pick<HandMark, 'lines' | 'points' | 'aside'> {
  const scheme = wholeScheme(question);
  const lines = switchedLines(scheme, groupLines(all), lineId);
  const points = adjusted(schemePoints(scheme, lines, question.points), before.adjustment);
  return { lines, points, aside: false };
}
