// @vitest-environment node
import { degrees, PDFDocument, StandardFonts, type PDFPage } from '@cantoo/pdf-lib';
import { createCanvas } from '@napi-rs/canvas';
import { describe, expect, it } from 'vitest';
import { wholeJpeg } from './wholeJpeg';

const canvas = createCanvas(60, 80);
canvas.getContext('2d').fillRect(10, 10, 20, 20);
const jpeg = new Uint8Array(canvas.toBuffer('image/jpeg', 80));
const png = new Uint8Array(canvas.toBuffer('image/png'));
const whole = { x: 0, y: 0, width: 300, height: 400 };

/** A page as another reader finds it once it was saved. */
async function saved(draw: (page: PDFPage, pdf: PDFDocument) => Promise<unknown>): Promise<PDFPage> {
  const pdf = await PDFDocument.create();
  await draw(pdf.addPage([300, 400]), pdf);
  return (await PDFDocument.load(await pdf.save())).getPage(0);
}

const withJpeg = (at: object) =>
  saved(async (page, pdf) => page.drawImage(await pdf.embedJpg(jpeg), { ...whole, ...at }));

describe('a scanned page that is one JPEG', () => {
  it('gives it byte by byte', async () => {
    expect(wholeJpeg(await withJpeg({}))).toEqual(jpeg);
    expect(wholeJpeg(await withJpeg({ x: 2, width: 297 }))).toEqual(jpeg);
  });

  it('is drawn by a reader of PDFs where anything else is on it, or it lies otherwise', async () => {
    const others = [
      withJpeg({ width: 200 }),
      withJpeg({ y: 60 }),
      withJpeg({ rotate: degrees(90), x: 300 }),
      saved(async (page, pdf) => page.drawImage(await pdf.embedPng(png), whole)),
      saved(async (page, pdf) => {
        page.drawImage(await pdf.embedJpg(jpeg), whole);
        page.drawText('more', { font: await pdf.embedFont(StandardFonts.Helvetica) });
      }),
      saved(async (page, pdf) => {
        page.drawImage(await pdf.embedJpg(jpeg), whole);
        page.drawRectangle({ x: 5, y: 5, width: 10, height: 10 });
      }),
      saved(async (page, pdf) => {
        page.drawImage(await pdf.embedJpg(jpeg), whole);
        page.setRotation(degrees(180));
      }),
      saved(async () => undefined),
    ];
    for (const page of await Promise.all(others)) expect(wholeJpeg(page)).toBeNull();
  });
});
