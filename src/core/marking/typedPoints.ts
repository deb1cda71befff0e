import { withAsciiDigits } from '../basics/digits';
import type { PointStep } from '../kinds/QuestionKind';

/** What the digits typed so far on one answer amount to. */
export interface TypedPoints {
  /** What was typed, to go on from. */
  typed: string;
  points: number | null;
  /** Why the last key was not taken: what was typed with it, and what is wrong with that. */
  refused: PointsFault | null;
}

export const nothingTyped: TypedPoints = { typed: '', points: null, refused: null };

/** What a question's points are given in, and how many there are; quarters unless it says otherwise. */
export interface PointRule {
  points: number;
  pointStep?: PointStep | undefined;
}

/** What points by hand are a multiple of; the maximum of a question can always be given. */
export const pointStepOf = ({ pointStep = 0.25 }: Pick<PointRule, 'pointStep'>): PointStep => pointStep;

/** Why so many points cannot be given. */
export interface PointsFault {
  why: 'aboveMaximum' | 'notStep';
  typed: string;
}

/** Why so many points cannot be given to an answer; null when they can. */
export function pointsFault(points: number, rule: PointRule): PointsFault['why'] | null {
  if (points > rule.points) return 'aboveMaximum';
  return Number.isInteger(points / pointStepOf(rule)) || points === rule.points ? null : 'notStep';
}

/**
 * Points typed digit by digit over an answer: "2" is 2, "2" "." "5" is 2.5, "." "5" is a half, "1" "0" is 10 where the
 * question is worth so much; otherwise a new digit starts again. A decimal comma serves as a point. After the point a 2
 * can only become 25, and a 7 only 75. A slash is a half at once: "2" "/" is 2.5, "/" is a half. What cannot be given is refused, and changes nothing.
 *
 * @param rule the question's points, and in what they are given
 */
export function typePoints(before: TypedPoints, key: string, rule: PointRule): TypedPoints {
  const plain = withAsciiDigits(key);
  const sign = plain === ',' ? '.' : plain;
  const refused = (why: PointsFault['why'], typed: string): TypedPoints => ({
    ...before,
    refused: { why, typed },
  });
  if (sign === '/') {
    if (before.typed.includes('.')) return refused('notStep', `${before.typed}½`);
    const half = `${before.typed || '0'}.5`;
    const why = pointsFault(Number(half), rule);
    return why ? refused(why, half) : { typed: half, points: Number(half), refused: null };
  }
  if (sign === '.') {
    if (before.typed.includes('.')) return refused('notStep', `${before.typed}.`);
    // Nothing is given before there is a digit.
    return before.typed === ''
      ? { typed: '0.', points: null, refused: null }
      : { ...before, typed: `${before.typed}.`, refused: null };
  }
  const longer = before.typed + sign;
  if (before.typed.includes('.')) {
    const points = Number(longer.replace(/\.2$/, '.25').replace(/\.7$/, '.75'));
    const why = /\.\d{3}/.test(longer) ? 'notStep' : pointsFault(points, rule);
    return why ? refused(why, longer) : { typed: longer, points, refused: null };
  }
  for (const typed of [longer, sign])
    if (typed.length <= 4 && Number(typed) <= rule.points)
      return { typed, points: Number(typed), refused: null };
  return refused('aboveMaximum', longer);
}

/** A number of points as a person types it, comma or point; null when it is none. */
export function pointsFrom(text: string): number | null {
  const cleaned = withAsciiDigits(text).trim().replace(',', '.').replace(/^\+/, '').replace(/^−/, '-');
  return /^-?\d{1,4}(\.\d{1,2})?$/.test(cleaned) ? Number(cleaned) : null;
}
