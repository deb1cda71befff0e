import type { Question } from '../kinds';
import type { HandMark } from '../model/mark';
import { groupLines } from './groupMark';
import { schemeOf } from './scheme';
import { schemePoints } from '../kinds/schemePoints';

/**
 * What equal answers have once a scheme line is switched: all of them the same, the lines that the group shows with this one
 * on or off, and the points that follow.
 *
 * @param marks of all of them; of one answer alone, its own
 */
export function withLineSwitched(
  question: Question,
  marks: readonly Pick<HandMark, 'at' | 'lines' | 'points'>[],
  lineId: string,
): Pick<HandMark, 'lines' | 'points' | 'aside'> {
  const scheme = schemeOf(question);
  const shown = groupLines(marks);
  const met = scheme.filter((line) => (line.id === lineId) !== shown.includes(line.id));
  return { lines: met.map((line) => line.id), points: schemePoints(met, question.points), aside: false };
}
