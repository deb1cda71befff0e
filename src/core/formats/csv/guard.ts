/**
 * What a spreadsheet would run or change when it opens separated text: what it takes for a formula (OWASP, "CSV Injection": text that
 * begins with = + - @, a tab or a return), and text that it takes for a number or a date though it is none: zeros in front, an
 * exponent, more than fifteen digits (IEEE 754), parts of a date.
 */
const runs = /^[=+\-@\t\r]/;
const changes =
  /^(?:0\d+|\d+(?:[.,]\d+)?e[+-]?\d+|\d{16,}|\d{1,4}[-/]\d{1,2}(?:[-/]\d{1,4})?|\d{1,2}\.\d{1,2}\.\d{2,4})$/i;

const needsGuard = (text: string) => runs.test(text) || changes.test(text);

/** A text with an apostrophe before it where a spreadsheet would run or change it, or where it would be taken for one that has it. */
export function guarded(text: string): string {
  return needsGuard(text.replace(/^'+/, '')) ? `'${text}` : text;
}

/** The text that was guarded: the other way round. */
export function unguarded(text: string): string {
  return text.startsWith("'") && needsGuard(text.replace(/^'+/, '')) ? text.slice(1) : text;
}
