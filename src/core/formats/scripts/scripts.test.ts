import fc from 'fast-check';
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import type PdfMake from 'pdfmake/build/pdfmake';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../../tests/unit/samples';
import { seatsOf } from '../../seats/seats';
import {
  fontRuns,
  fontsNeeded,
  isRightToLeft,
  rangesFrom,
  rightToLeftLines,
  type FontFace,
} from './fontRuns';
import { mathsSvg } from '../typeset/mathsSvg';
import type { Measure } from '../typeset/wrapped';
import { printedScript, textsOf, type PrintedScript, type PrintForm } from './printedScript';
import { scriptsDocument } from './scriptDocument';

const require = createRequire(import.meta.url);
const faces: FontFace[] = [
  { name: 'arabic', ranges: rangesFrom('U+600-6ff,U+200c'), rightToLeft: true },
  { name: 'devanagari', ranges: rangesFrom('U+900-97f, U+200d'), rightToLeft: false },
  { name: 'han', ranges: rangesFrom('U+4e00-9fff'), rightToLeft: false },
];

describe('fonts', () => {
  // CSS Fonts Module Level 4, section 4.5: the unicode-range descriptor.
  it('are for the ranges that CSS names', () => {
    expect(rangesFrom('U+600-6ff, U+26')).toEqual([
      [0x600, 0x6ff],
      [0x26, 0x26],
    ]);
  });

  it('change with the script, and the runs together are the text', () => {
    expect(fontRuns('North 北 / उत्तर', faces)).toEqual([
      { text: 'North ' },
      { text: '北', font: 'han' },
      { text: ' / ' },
      { text: 'उत्तर', font: 'devanagari' },
    ]);
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), (text) => {
        expect(
          fontRuns(text, faces)
            .map((run) => run.text)
            .join(''),
        ).toBe(text);
      }),
    );
  });

  it('are fetched where a letter needs them, and what none has is said', () => {
    const { faces: needed, missing } = fontsNeeded(['Åse', 'قارب', 'ꦲ'], faces);
    expect(needed.map(({ name }) => name)).toEqual(['arabic']);
    expect(missing).toEqual(['ꦲ']);
  });

  // Unicode Annex 9, rules P2 and P3: the first strong letter says which way a paragraph runs.
  it('a paragraph runs as its first letter does', () => {
    expect(isRightToLeft('12 – البحر')).toBe(true);
    expect(isRightToLeft('The word البحر')).toBe(false);
    expect(isRightToLeft('12')).toBe(false);
  });

  it('words from right to left stand the other way round, those between them from left to right do not', () => {
    expect(rightToLeftLines('أ ب VHF channel 16 ج')).toEqual([['ج', 'VHF', 'channel', '16', 'ب', 'أ']]);
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('بحر', 'ship', '12', 'قارب'), { minLength: 1, maxLength: 60 }),
        (words) => {
          const lines = rightToLeftLines(words.join(' '));
          expect(lines.flat().sort()).toEqual([...words].sort());
          for (const line of lines) expect(line.join(' ').length).toBeLessThanOrEqual(80);
        },
      ),
    );
  });
});

const work = [
  { is: 'struck' as const, id: 'w1', from: 0, to: 4, quote: 'Iron', text: '' },
  { is: 'inserted' as const, id: 'w2', from: 5, to: 5, quote: '', text: 'SOFTIRON' },
  { is: 'words' as const, id: 'w3', from: 5, to: 10, quote: 'turns', text: 'WHYSO' },
];
const records = {
  sitting: sittingOf(),
  questions: paperQuestions,
  students: [studentOf({ familyName: 'Żółw' })],
  allowances: [],
  attempts: [
    attemptOf({
      handedInAt: at,
      answers: {
        q1: { response: { picked: ['b'] }, at },
        q4: { response: { text: 'Iron turns the needle. البحر' }, at },
      },
    }),
  ],
  marks: [markOf({ points: 1.5, comment: 'Say which way.', note: 'SECRET-NOTE', work })],
  releases: [],
  openings: [],
};
const seat = seatsOf(records, Date.parse(at))[0];
const about = (form: PrintForm) => ({
  ...{ title: 'Tides', questions: paperQuestions, form, scale: null },
  groupName: new Map([['group1', 'Monday']]),
});

/** What a PDF reader of others finds in the document. */
async function pdfText(form: PrintForm): Promise<{ text: string; pages: number }> {
  const script = seat && printedScript(seat, about(form));
  if (!script) throw new Error('no script');
  return textOfPdf(await pdfOf(script));
}

async function pdfOf(script: PrintedScript, measure?: Measure): Promise<Uint8Array> {
  const pdfMake = require('pdfmake/build/pdfmake.js') as typeof PdfMake;
  pdfMake.addVirtualFileSystem(require('pdfmake/build/vfs_fonts.js') as Record<string, string>);
  const font = readFileSync(
    require.resolve('@fontsource/noto-sans-arabic/files/noto-sans-arabic-arabic-400-normal.woff'),
  ).toString('base64');
  pdfMake.addVirtualFileSystem({ 'arabic.woff': font });
  pdfMake.addFonts({
    arabic: {
      normal: 'arabic.woff',
      bold: 'arabic.woff',
      italics: 'arabic.woff',
      bolditalics: 'arabic.woff',
    },
  });
  const kit = { faces: faces.slice(0, 1), pictures: new Map(), ...(measure && { measure }) };
  return new Uint8Array(await pdfMake.createPdf(scriptsDocument([script], kit)).getBuffer());
}

async function textOfPdf(bytes: Uint8Array): Promise<{ text: string; pages: number }> {
  const document = await getDocument({ data: new Uint8Array(bytes), verbosity: 0 }).promise;
  let text = '';
  for (let page = 1; page <= document.numPages; page++) {
    const { items } = await (await document.getPage(page)).getTextContent();
    text += items.map((item) => ('str' in item ? item.str : '')).join(' ');
  }
  return { text: text.replace(/\s+/g, ' '), pages: document.numPages };
}

describe('a printed script', () => {
  it('has totals and points first, then the work with its marks and comments; no note, and letters of any script', async () => {
    const { text } = await pdfText('marked');
    for (const word of [
      'Amara Żółw',
      'Tides · 2101 · Monday',
      '2.5 of 8 points',
      'Iron',
      'SOFTIRON',
      '[1] WHYSO',
      'Say which way.',
      '1.5 / 3',
    ])
      expect(text).toContain(word);
    // Letters of Arabic come as they are joined (Unicode, Arabic Presentation Forms): by any form of them.
    expect(text.normalize('NFKC')).toMatch(/\p{Script=Arabic}{3,}/u);
    expect(text).not.toContain('SECRET-NOTE');
  });

  it('of answers alone nothing of the marking is printed; first pages have no work', async () => {
    const alone = await pdfText('answers');
    expect(alone.text).toContain('Iron turns the needle.');
    for (const word of ['SOFTIRON', 'Say which way.', '2.5 of', '1.5 / 3'])
      expect(alone.text).not.toContain(word);
    const first = await pdfText('first');
    expect(first.text).toContain('2.5 of 8 points');
    expect(first.text).not.toContain('needle');
    expect(first.pages).toBe(1);
  });

  it('has formulas set: in what is asked and in what was worked, not as they were typed', async () => {
    const script = seat && printedScript(seat, about('marked'));
    const [first, ...rest] = script?.questions ?? [];
    if (!script || !first) throw new Error('no script');
    const stem = {
      type: 'doc' as const,
      content: [
        {
          type: 'paragraph' as const,
          content: [
            { type: 'text' as const, text: 'Find the height from ' },
            { type: 'inlineMath' as const, attrs: { latex: '\\frac{h}{12}' } },
          ],
        },
      ],
    };
    const working = {
      words: 'By twelfths:\n\\sqrt{h}',
      set: { words: 'By twelfths:', maths: ['\\sqrt{h}'] },
    };
    const changed = { ...script, questions: [{ ...first, stem, ...working, work: [] }, ...rest] };
    const measure: Measure = Object.assign((text: string, size: number) => text.length * size * 0.18, {
      maths: mathsSvg,
    });
    const set = await textOfPdf(await pdfOf(changed, measure));
    expect(set.text).toContain('Find the height from');
    expect(set.text).toContain('By twelfths:');
    expect(set.text).not.toMatch(/\\(frac|sqrt)/);
    // Without what sets them they stand as they were typed.
    expect((await textOfPdf(await pdfOf(changed))).text).toContain('\\frac{h}{12}');
  });

  it('every text is looked through for the fonts it needs', () => {
    const script = seat && printedScript(seat, about('marked'));
    const texts = script ? textsOf(script).join(' ') : '';
    for (const word of ['Żółw', 'البحر', 'SOFTIRON', 'Say which way.', 'Monday'])
      expect(texts).toContain(word);
  });
});
