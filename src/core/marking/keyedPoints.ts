import { withAsciiDigits } from '../basics/digits';
import { nothingTyped, typePoints, type PointRule, type TypedPoints } from './typedPoints';

/** Points typed with the keys over a list of answers: the number so far, and the answers it is for. */
export interface KeyedPoints {
  typed: TypedPoints;
  /** The id of the answers; null: nothing was typed. */
  on: string | null;
}

export const nothingKeyed: KeyedPoints = { typed: nothingTyped, on: null };

export interface KeyedStep extends KeyedPoints {
  /** Whether the marker goes on to the next answers: the number is whole. */
  moves: boolean;
}

/**
 * One more key of a number. Where points go on by themselves, a number is whole once no longer one can be given: a digit
 * typed then is for the answers the marker has come to; only a point or comma, and what follows it, still belongs to those
 * just left ("2" goes on, ".5" makes them 2.5).
 *
 * @param before what was typed so far; nothing, after a pause
 * @param at the answers the marker is at
 * @param rule the question's points, and in what they are given
 * @param goesOn whether points go on by themselves
 */
export function keyPoints(
  before: KeyedPoints,
  key: string,
  at: string,
  rule: PointRule,
  goesOn: boolean,
): KeyedStep {
  const on = before.on !== null && continues(before, key, at) ? before.on : at;
  const typed = typePoints(
    on === before.on && continues(before, key, at) ? before.typed : nothingTyped,
    key,
    rule,
  );
  const given = typed.refused === null && typed.points !== null;
  return { typed, on, moves: goesOn && given && on === at && isWhole(typed.typed, rule.points) };
}

/** Whether a key belongs to the number typed before: on the same answers, or as its part behind the point. */
function continues({ typed: { typed }, on }: KeyedPoints, key: string, at: string): boolean {
  const plain = withAsciiDigits(key);
  const isDigit = /^\d$/.test(plain);
  if (!typed.includes('.')) return on === at || !isDigit;
  if (on === at) return true;
  return isDigit && (typed.endsWith('.') || (/\.[27]$/.test(typed) && plain === '5'));
}

/** Whether no longer number can be given. */
const isWhole = (typed: string, max: number) =>
  typed.includes('.') ? /\.\d/.test(typed) : typed === '0' || Number(`${typed}0`) > max;
