import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { commentRows, commentsCsv } from './comments';
import { tableFrom } from './table';

const comment = (text: string, code = '', points: number | null = null) => ({
  ...{ text, code, points, uses: 2, usesElsewhere: 0, kept: null },
});

describe('a comment bank as CSV', () => {
  it('comes back as it went', () => {
    const all = [
      comment('Show your working, "all" of it.', 'sw', -0.5),
      comment('=SUM is no answer', '', 1),
      comment('Two\nlines; and, signs'),
    ];
    expect(commentRows(tableFrom(commentsCsv(all)))).toEqual({
      good: all.map(({ text, code, points }) => ({ text, code, points })),
      bad: [],
    });
  });

  it('whatever is written in it', () => {
    const words = fc
      .string({ minLength: 1, maxLength: 30 })
      .map((text) => text.replace(/[\s']+/g, ' ').trim())
      .filter((text) => text !== '' && text.toLowerCase() !== 'comment');
    fc.assert(
      fc.property(fc.array(words, { minLength: 1, maxLength: 5 }), (texts) => {
        const read = commentRows(tableFrom(commentsCsv(texts.map((text) => comment(text)))));
        expect(read.good.map(({ text }) => text)).toEqual(texts);
      }),
    );
  });

  it('rows that are none are named by their line', () => {
    const rows = tableFrom('Comment,Code,Points\nName the light.,nl,\n,x,1\nUnits?,u,many\n');
    expect(commentRows(rows)).toEqual({
      good: [{ text: 'Name the light.', code: 'nl', points: null }],
      bad: [
        { line: 3, why: 'noText' },
        { line: 4, why: 'badPoints' },
      ],
    });
    expect(commentRows(tableFrom('Units?;u;-0,5')).good).toEqual([
      { text: 'Units?', code: 'u', points: -0.5 },
    ]);
  });
});
