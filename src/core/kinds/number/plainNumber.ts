import { withAsciiDigits } from '../../basics/digits';

/**
 * A number as it can be typed back: a decimal point, and digits in groups of three set off by narrow no-break spaces. It is
 * read as the same number, without doubt.
 */
export function plainNumber(value: number): string {
  const text = String(value);
  if (text.includes('e')) return text.replace('e+', 'e');
  const [whole = '', decimals] = text.split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, '\u202f');
  return decimals === undefined ? grouped : `${grouped}.${decimals}`;
}

/**
 * What a text would be if its one comma or point set off thousands, where it may as well be that: "12,500" is twelve and a
 * half for some, and twelve thousand five hundred for others. Null where there is no doubt.
 *
 * @returns the text as it would be typed without doubt, what stands behind the number too
 */
export function asThousands(text: string): { text: string; value: number } | null {
  const plain = withAsciiDigits(text);
  const found = /^\s*([+\-−]?\s*)([1-9]\d{0,2})[.,](\d{3})(?![\d.,])/.exec(plain);
  if (!found) return null;
  const [all, sign = '', before = '', after = ''] = found;
  const digits = `${sign.trim()}${before}${after}`;
  return { text: `${digits}${plain.slice(all.length)}`, value: Number(digits.replace('−', '-')) };
}
