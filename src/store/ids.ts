import { customAlphabet, nanoid } from 'nanoid';
import { sealHolds } from '@/core/formats/packet/code';
import { joinCodeAlphabet } from '@/core/basics/joinCode';

/** A new id, unique without asking anyone. */
export const newId = (): string => nanoid(12);

const fiveOf = customAlphabet(joinCodeAlphabet, 5);

/** An access code that holds as a seal: ten letters and digits in two halves, easy to read out. */
export function newAccessCode(): string {
  let code = '';
  while (!sealHolds(code)) code = `${fiveOf()}-${fiveOf()}`;
  return code;
}

const sixOf = customAlphabet(joinCodeAlphabet, 6);

/** A join code that nobody in `taken` has; it is added to them. */
export function newJoinCode(taken: Set<string>): string {
  let code = sixOf();
  while (taken.has(code)) code = sixOf();
  taken.add(code);
  return code;
}
