import { once } from 'remeda';
import { byRegister } from '../model/names';
import { totalShare } from '../scoring/scoreAttempt';
import type { Seat } from '../seats/seats';

/** In which order whole scripts are gone through. */
export type ScriptOrder = 'name' | 'number' | 'total' | 'line';

/** Numbers as numbers, whatever stands before them: 9 before 10. */
const byNumber = once(() => new Intl.Collator('en', { numeric: true }));

/**
 * Scripts in an order: by name as a register has them, by student number, the lowest total first, or those nearest to a pass
 * line first. What has no points yet comes last; of equals the register decides.
 *
 * @param line share of the points, 0 to 1
 */
export function orderedScripts(seats: readonly Seat[], order: ScriptOrder, line: number): Seat[] {
  const share = ({ scorecard }: Seat) => (scorecard && totalShare(scorecard)) ?? null;
  const by = (of: (share: number) => number) => (a: Seat, b: Seat) => {
    const [left, right] = [share(a), share(b)].map((each) => (each === null ? Infinity : of(each)));
    return left === right ? 0 : (left ?? 0) - (right ?? 0);
  };
  const compare = {
    name: () => 0,
    number: (a: Seat, b: Seat) => byNumber().compare(a.student.number, b.student.number),
    total: by((each) => each),
    line: by((each) => Math.abs(each - line)),
  }[order];
  return [...seats].sort((a, b) => compare(a, b) || byRegister(a.student, b.student));
}
