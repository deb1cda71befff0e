import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { editDistance, nearlySame } from './editDistance';

const word = fc.string({ unit: fc.constantFrom('a', 'b', 'c'), maxLength: 7 });

describe('typing distance', () => {
  // R's adist (Levenshtein), versions inside the file; a swap of neighbours costs 2 there and 1 here.
  const reference = JSON.parse(
    readFileSync(new URL('../../../../tests/reference/edit-distance.expected.json', import.meta.url), 'utf8'),
  ) as { levenshtein: { a: string; b: string; d: number }[] };

  it.each(reference.levenshtein.map(({ a, b, d }) => [a, b, d] as const))(
    '%s to %s: %d by Levenshtein, and never more here',
    (a, b, levenshtein) => {
      const distance = editDistance(a, b);
      expect(distance).toBeLessThanOrEqual(levenshtein);
      // Each swap saves one change of two.
      expect(distance).toBeGreaterThanOrEqual(Math.ceil(levenshtein / 2));
    },
  );

  it('swapped neighbours are one change, and a swapped pair is not changed again', () => {
    expect(editDistance('neap', 'naep')).toBe(1);
    // Boytsov 2011: ca to abc is 2 with unrestricted swaps and 3 in optimal string alignment.
    expect(editDistance('ca', 'abc')).toBe(3);
  });

  it('is 0 only for the same text, the same both ways, and at most the longer text', () => {
    fc.assert(
      fc.property(word, word, (a, b) => {
        const distance = editDistance(a, b);
        expect(distance === 0).toBe(a === b);
        expect(distance).toBe(editDistance(b, a));
        expect(distance).toBeLessThanOrEqual(Math.max(a.length, b.length));
        expect(distance).toBeGreaterThanOrEqual(Math.abs(a.length - b.length));
      }),
    );
  });

  it('letters beyond the first plane are one letter', () => expect(editDistance('a😀b', 'ab')).toBe(1));

  it('short words must be right, longer ones may slip once, long ones twice', () => {
    expect(nearlySame('ebb', 'eb')).toBe(false);
    expect(nearlySame('flood', 'flod')).toBe(true);
    expect(nearlySame('flood', 'fld')).toBe(false);
    expect(nearlySame('deviation', 'devaitoin')).toBe(true);
  });

  it('another digit is another answer, not a slip', () => {
    expect(nearlySame('118°', '122°')).toBe(false);
    expect(nearlySame('118°', '119°')).toBe(false);
    expect(nearlySame('118 degrees', '118 degres')).toBe(true);
  });
});
