import { withAsciiDigits } from '../../basics/digits';

/** A number as someone wrote it. */
export interface WrittenNumber {
  value: number;
  /** What stands behind it: "nautical miles"; '' when nothing does. */
  unit: string;
  /**
   * Significant figures, at least and at most: the zeros at the end of "1200" may count or not. Null for fractions,
   * which have none.
   */
  significant: { least: number; most: number } | null;
  /** Digits after the decimal point; null for fractions. */
  decimals: number | null;
}

/**
 * Reads a number the way people write it: decimal point or comma ("12,5"), digits in groups of three set off by
 * spaces, points, commas or apostrophes, any of Unicode's minus signs, fractions ("3/4", "1 1/2", "½") and powers
 * of ten ("1.2e3", "1,2·10³", "1.2 × 10^3"). One comma or point alone is always the decimal one. Null when it is
 * not a number.
 */
export function numberFrom(text: string): WrittenNumber | null {
  const plain = asAscii(text);
  const sign = /^[+-]\s*/.exec(plain)?.[0] ?? '';
  const minus = sign.startsWith('-') ? -1 : 1;
  const rest = plain.slice(sign.length);
  const fraction = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)(?![\d.,])/.exec(rest);
  if (fraction) {
    const [all, whole = '0', above = '', below = ''] = fraction;
    if (Number(below) === 0) return null;
    const value = minus * (Number(whole) + Number(above) / Number(below));
    return { value, unit: rest.slice(all.length).trim(), significant: null, decimals: null };
  }
  const digits = /^(\d[\d.,]*|[.,]\d+)/.exec(rest)?.[0] ?? '';
  // "10^3" alone is 1 × 10^3.
  const powerAlone = /^10\s*\^/.test(rest);
  const decimal = powerAlone ? '1' : decimalFrom(digits.replace(/[.,]$/, ''));
  if (decimal === null) return null;
  const behind = powerAlone ? `*${rest}` : rest.slice(digits.length);
  const power = powerOfTen(behind);
  const unit = (power?.rest ?? behind).trim();
  // A second number or a stray sign behind the first is no unit.
  if (unit && !/^[\p{L}\p{Sc}°%‰′″'"]/u.test(unit)) return null;
  return {
    // Read as one literal, so that 1.2e-3 is the nearest double to it.
    value: minus * Number(`${decimal}e${power?.exponent ?? 0}`),
    unit,
    ...figuresOf(decimal),
  };
}

/** The text with signs, digits and spaces in their plain ASCII forms, and digit groups closed up. */
function asAscii(text: string): string {
  return withAsciiDigits(text)
    .replace(/(?<=\d)[⁰¹²³⁴⁵⁶⁷⁸⁹⁺⁻]+/gu, (run) => `^${run.normalize('NFKC')}`)
    .replace(/(\d)([¼-¾⅐-⅞])/gu, '$1 $2')
    .normalize('NFKC')
    .replace(/[\u2010-\u2015\u2212\ufe58\ufe63]/g, '-')
    .replace(/⁄/g, '/')
    .replace(/\s+/gu, ' ')
    .trim()
    .replace(/(?<=(?:^|[^\d.,])\d{1,3}(?:[ '’]\d{3})*)[ '’](?=\d{3}(?!\d))/g, '');
}

/** Digits with separators as a plain decimal; null when the separators make no sense. */
function decimalFrom(digits: string): string | null {
  if (digits === '') return null;
  const last = Math.max(digits.lastIndexOf('.'), digits.lastIndexOf(','));
  if (last < 0) return digits;
  const mark = digits.charAt(last);
  const other = mark === '.' ? ',' : '.';
  const marks = digits.split(mark).length - 1;
  const grouped = (part: string, by: string) =>
    new RegExp(`^\\d{1,3}(\\${by}\\d{3})+$`).test(part) ? part.replaceAll(by, '') : null;
  if (marks > 1) return digits.includes(other) ? null : grouped(digits, mark);
  const before = digits.slice(0, last);
  const whole = before.includes(other) ? grouped(before, other) : before;
  return whole === null ? null : `${whole || '0'}.${digits.slice(last + 1)}`;
}

function powerOfTen(behind: string): { exponent: number; rest: string } | null {
  const found =
    /^\s*[x×·*∙⋅]\s*10\s*\^\s*\(?([+-]?\d{1,3})\)?/i.exec(behind) ??
    /^e([+-]?\d{1,3})(?![a-z\d])/i.exec(behind);
  return found ? { exponent: Number(found[1]), rest: behind.slice(found[0].length) } : null;
}

function figuresOf(decimal: string): Pick<WrittenNumber, 'significant' | 'decimals'> {
  const [whole = '', after] = decimal.split('.');
  const all = (whole + (after ?? '')).replace(/^0+(?=\d)/, '');
  const most = all.replace(/^0+/, '').length || 1;
  const least = after === undefined ? all.replace(/^0+/, '').replace(/0+$/, '').length || 1 : most;
  return { significant: { least, most }, decimals: after?.length ?? 0 };
}
