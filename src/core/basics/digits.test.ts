import { describe, expect, it } from 'vitest';
import { numberFrom } from '../kinds/number/numberFrom';
import { nothingTyped, pointsFrom, typePoints } from '../marking/typedPoints';
import { withAsciiDigits } from './digits';

describe('digits of any script', () => {
  // Unicode Standard 15, code charts: digits zero to nine of each block, by their code points.
  it.each([
    ['Arabic-Indic', 0x0660],
    ['Extended Arabic-Indic', 0x06f0],
    ['Devanagari', 0x0966],
    ['Bengali', 0x09e6],
    ['Thai', 0x0e50],
    ['Fullwidth', 0xff10],
    ['Mathematical bold', 0x1d7ce],
    ['Mathematical monospace', 0x1d7f6],
  ])('%s', (_script, zero) => {
    const digits = Array.from({ length: 10 }, (_, value) => String.fromCodePoint(zero + value)).join('');
    expect(withAsciiDigits(digits)).toBe('0123456789');
  });

  it('are numbers wherever a number is typed', () => {
    for (const typed of ['٢٫٥', '２．５', '２，５', '२.५', '2.5']) {
      expect(numberFrom(typed)?.value, typed).toBe(2.5);
      expect(pointsFrom(typed), typed).toBe(2.5);
      expect(
        [...typed].reduce((before, key) => typePoints(before, key, { points: 3 }), nothingTyped).points,
      ).toBe(2.5);
    }
    expect(numberFrom('١٬٢٣٤٫٥ nm')).toMatchObject({ value: 1234.5, unit: 'nm' });
  });

  it('leave other words as they are', () => {
    expect(withAsciiDigits('½ ² Ⅳ 三 12')).toBe('½ ² Ⅳ 三 12');
  });
});
