/** Letters and digits that cannot be taken for one another: no 0, 1, I, L, O, U. */
export const joinCodeAlphabet = '23456789ABCDEFGHJKMNPQRSTVWXYZ';

/** A join code as typed: spaces and dashes dropped, small letters raised. */
export function joinCodeFrom(typed: string): string {
  return typed.toUpperCase().replace(/[\s-]+/g, '');
}

/** "K7M 4QX": in two halves, easier to read out. */
export function joinCodeShown(code: string): string {
  return `${code.slice(0, 3)} ${code.slice(3)}`;
}
