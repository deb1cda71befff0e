import { PDFDocument } from '@cantoo/pdf-lib';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import { withoutPdfMetadata } from './pdfMetadata';

async function somebodys(): Promise<Uint8Array<ArrayBuffer>> {
  const pdf = await PDFDocument.create();
  pdf.addPage([300, 200]).drawText('Slack water at nine', { x: 20, y: 100 });
  pdf.setAuthor('Somebody Else');
  pdf.setTitle('Passage plan of Somebody Else');
  pdf.setCreator('A program');
  return new Uint8Array(await pdf.save({ useObjectStreams: false }));
}

describe('a PDF without what is written beside its pages', () => {
  it('has neither author nor title, and its pages as they were, read by another library', async () => {
    const bytes = await somebodys();
    const bare = await withoutPdfMetadata(bytes);
    const read = await getDocument({ data: Uint8Array.from(bare), verbosity: 0 }).promise;
    const { info, metadata } = await read.getMetadata();
    expect(JSON.stringify([info, metadata])).not.toMatch(/Somebody|A program/);
    const { items } = await (await read.getPage(1)).getTextContent();
    expect(items.map((item) => ('str' in item ? item.str : '')).join('')).toBe('Slack water at nine');
    expect(Buffer.from(bare).toString('latin1')).not.toContain('Somebody');
  });

  it('is the same every time, so that it has one name', async () => {
    const bytes = await somebodys();
    expect(
      Buffer.from(await withoutPdfMetadata(bytes)).equals(Buffer.from(await withoutPdfMetadata(bytes))),
    ).toBe(true);
  });

  it('what is no PDF, or a damaged one, stays as it is', async () => {
    const text = new TextEncoder().encode('no PDF');
    expect(await withoutPdfMetadata(text)).toBe(text);
    const broken = new TextEncoder().encode('%PDF-1.7\n1 0 obj <<');
    expect(await withoutPdfMetadata(broken)).toBe(broken);
  });
});
