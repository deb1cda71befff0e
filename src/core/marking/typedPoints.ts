/** What the digits typed so far on one answer amount to. */
export interface TypedPoints {
  /** What was typed, to go on from. */
  typed: string;
  points: number | null;
  /** Why the last key was not taken. */
  refused: 'aboveMaximum' | null;
}

export const nothingTyped: TypedPoints = { typed: '', points: null, refused: null };

/**
 * Points typed digit by digit over an answer, in steps of a quarter: "2" is 2, "2" "." "5" is 2.5, "1" "0" is 10 where the question is
 * worth so much; otherwise the new digit starts again. A decimal comma serves as a point. More than the maximum
 * is refused and changes nothing.
 *
 * @param max the question's points
 */
export function typePoints(before: TypedPoints, key: string, max: number): TypedPoints {
  const sign = key === ',' ? '.' : key;
  const longer = before.typed + sign;
  const candidates = sign === '.' ? (before.typed.includes('.') ? [] : [longer]) : [longer, sign];
  for (const typed of candidates) {
    if (!/^\d{1,4}(\.(0|00|2|25|5|50|7|75)?)?$/.test(typed)) continue;
    // Quarters: after the point a 2 can only become 25, and a 7 only 75.
    const points = Number(typed.replace(/\.2$/, '.25').replace(/\.7$/, '.75'));
    if (points <= max) return { typed, points, refused: null };
  }
  return { ...before, refused: sign === '.' ? before.refused : 'aboveMaximum' };
}

/** A number of points as a person types it, comma or point; null when it is none. */
export function pointsFrom(text: string): number | null {
  const cleaned = text.trim().replace(',', '.');
  return /^-?\d{1,4}(\.\d{1,2})?$/.test(cleaned) ? Number(cleaned) : null;
}
