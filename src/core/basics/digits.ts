/**
 * A text with the decimal digits of every script as ASCII ones, and the decimal and grouping signs that go with them
 * (Arabic "٫" and "٬", full-width "．" and "，") as point and comma.
 *
 * Source: Unicode Standard, General_Category Nd: the digits of a script stand in a run, from zero to nine.
 */
export function withAsciiDigits(text: string): string {
  if (/^[\x20-\x7e]*$/.test(text)) return text;
  return text
    .replace(/(?![0-9])\p{Nd}/gu, (digit) => String(valueOf(digit.codePointAt(0) ?? 0)))
    .replace(/[٫．]/g, '.')
    .replace(/[٬，]/g, ',');
}

/** The value of a decimal digit: how far it stands from where its run begins, in tens. */
function valueOf(code: number): number {
  let zero = code;
  while (/^\p{Nd}$/u.test(String.fromCodePoint(zero - 1))) zero--;
  return (code - zero) % 10;
}
