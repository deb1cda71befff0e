// @vitest-environment node
import { degrees, PDFDocument } from '@cantoo/pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import type { WorkMark } from '@/core/model/workMark';
import { grayOf, pagesOf } from '../../../../scripts/paperNode';
import { joinedPdf, pagesIn, withHandedPages } from './handedPages';

/** A PDF of pages, each with its words; turned as a scanner may leave them. */
async function pdfOf(words: readonly string[], turn = 0): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  for (const text of words) {
    const page = pdf.addPage([300, 400]);
    page.drawText(text, { x: 30, y: 300, size: 12 });
    page.setRotation(degrees(turn));
  }
  return pdf.save();
}

async function textsOf(pdf: Uint8Array): Promise<string[]> {
  const read = await getDocument({ data: Uint8Array.from(pdf), verbosity: 0 }).promise;
  const texts: string[] = [];
  for (let page = 1; page <= read.numPages; page++) {
    const { items } = await (await read.getPage(page)).getTextContent();
    texts.push(
      items
        .map((item) => ('str' in item ? item.str : ''))
        .join(' ')
        .trim(),
    );
  }
  return texts;
}

const line = (on: string, ...points: number[]): WorkMark => ({ id: 'm', is: 'pen', on, points, text: '' });

describe('pages that students handed in', () => {
  it('stand behind the script as they are, read by another library', async () => {
    const script = await pdfOf(['The script']);
    const handed = await pdfOf(['Page one', 'Page two']);
    expect(await pagesIn(handed)).toBe(2);
    const all = await withHandedPages(script, [{ id: 'f', bytes: handed, work: [] }]);
    expect(await textsOf(all)).toEqual(['The script', 'Page one', 'Page two']);
  });

  it.each([0, 90, 180, 270])(
    'turned by %i°: a mark lies where it was made on the page as it is seen',
    async (turn) => {
      const script = await pdfOf(['The script']);
      const handed = await pdfOf([''], turn);
      // A thick line in the upper left quarter of the page as it is seen.
      const work = [line('f#1', 100, 200, 400, 200), line('f#2', 0, 900, 1000, 900)];
      const [, page] = await pagesOf(await withHandedPages(script, [{ id: 'f', bytes: handed, work }]));
      if (!page) throw new Error('there is a page');
      const { width, height, data } = grayOf(page);
      const dark: { x: number; y: number }[] = [];
      data.forEach((value, at) => {
        if (value < 140) dark.push({ x: (at % width) / width, y: Math.floor(at / width) / width });
      });
      expect(dark.length).toBeGreaterThan(50);
      expect(Math.min(...dark.map(({ x }) => x))).toBeCloseTo(0.1, 1);
      expect(Math.max(...dark.map(({ x }) => x))).toBeCloseTo(0.4, 1);
      expect(dark.every(({ y }) => Math.abs(y - 0.2) < 0.02)).toBe(true);
      expect(height / width).toBeCloseTo(turn % 180 === 0 ? 4 / 3 : 3 / 4, 1);
    },
  );

  it('a note is its number in a circle', async () => {
    const note: WorkMark = { id: 'n', is: 'note', on: 'f#1', points: [500, 500], text: 'Why?' };
    const all = await withHandedPages(await pdfOf(['S']), [
      { id: 'f', bytes: await pdfOf(['P']), work: [note] },
    ]);
    expect((await textsOf(all))[1]).toMatch(/P\s+1$/);
  });

  it('one that is damaged is left out, and nothing else is lost', async () => {
    const broken = new TextEncoder().encode('%PDF-1.7 and nothing more');
    expect(await pagesIn(broken)).toBeNull();
    const all = await withHandedPages(await pdfOf(['S']), [
      { id: 'b', bytes: broken, work: [] },
      { id: 'f', bytes: await pdfOf(['P']), work: [] },
    ]);
    expect(await textsOf(all)).toEqual(['S', 'P']);
  });

  it('scripts are joined in order', async () => {
    expect(await textsOf(await joinedPdf([await pdfOf(['A']), await pdfOf(['B', 'C'])]))).toEqual([
      'A',
      'B',
      'C',
    ]);
  });
});
