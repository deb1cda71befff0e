import { customAlphabet, nanoid } from 'nanoid';
import { joinCodeAlphabet } from '@/core/model/people';

/** A new id, unique without asking anyone. */
export const newId = (): string => nanoid(12);

const sixOf = customAlphabet(joinCodeAlphabet, 6);

/** A join code that nobody in `taken` has; it is added to them. */
export function newJoinCode(taken: Set<string>): string {
  let code = sixOf();
  while (taken.has(code)) code = sixOf();
  taken.add(code);
  return code;
}
