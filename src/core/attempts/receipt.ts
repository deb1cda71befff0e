import { chanceFrom } from '../basics/chance';
import { joinCodeAlphabet } from '../basics/joinCode';
import { seedNumber } from '../basics/shuffled';

/** A code of an attempt that student and teacher can compare, of letters and digits that are not mistaken. */
export function receiptOf(attemptId: string): string {
  const chance = chanceFrom(seedNumber(attemptId));
  return Array.from({ length: 8 }, () => chance.pick([...joinCodeAlphabet])).join('');
}
