/** The code that a packet is sealed with, as a password: however it was typed. */
export const codePassword = (code: string) => code.toLowerCase().replace(/[\s-]+/g, '');

/**
 * Whether a code holds against someone who has the file and tries codes for a night: at least eight letters and digits
 * mixed, or a phrase of sixteen. A word, or a word with a year behind it, stands in lists that are tried first, however
 * many rounds each try costs.
 */
export function sealHolds(code: string): boolean {
  const password = codePassword(code);
  const runs = password.match(/\d+|\D+/g)?.length ?? 0;
  return password.length >= (runs > 2 ? 8 : 16);
}
