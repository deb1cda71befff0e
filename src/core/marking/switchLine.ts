import type { Question } from '../kinds';
import type { HandMark } from '../model/sitting';
import { schemeOf } from './scheme';
import { schemePoints } from './schemePoints';

/** A mark with one scheme line switched on or off: its lines in the order of the scheme, and the points that follow. */
export function withLineSwitched(
  question: Question,
  before: Pick<HandMark, 'lines'>,
  lineId: string,
): Pick<HandMark, 'lines' | 'points' | 'aside'> {
  const scheme = schemeOf(question);
  const met = scheme.filter((line) => (line.id === lineId) !== before.lines.includes(line.id));
  return { lines: met.map((line) => line.id), points: schemePoints(met, question.points), aside: false };
}
