import { PDFDocument, type PDFPage } from '@cantoo/pdf-lib';
import { sumBy } from 'remeda';
import { codeRect, codeText, corners, nameRect, pageSize } from './sheet';
import type { Drawn, LaidPage } from './drawn';
import {
  box,
  draw,
  drawCode,
  embedded,
  fill,
  runsOf,
  say,
  soft,
  toPoints,
  type Fonts,
  type PaperKit,
} from './pdfDrawing';
import type { Measure } from '../../formats/typeset/wrapped';

/** One copy of the pages. */
export interface Copy {
  /** From 1. */
  number: number;
  /** Printed on every page; null: written in by hand. */
  name: string | null;
}

/** How wide texts are in the fonts of a kit. */
export async function measureWith(kit: PaperKit): Promise<Measure> {
  const fonts = await embedded(await PDFDocument.create(), kit);
  const known = new Map<string, number>();
  return (text, size, strong = false) => {
    const key = `${strong ? 'b' : 'r'}${text}`;
    const at1 =
      known.get(key) ?? sumBy(runsOf(text, fonts, strong), ({ run, font }) => font.widthOfTextAtSize(run, 1));
    known.set(key, at1);
    return (at1 * size) / toPoints;
  };
}

/**
 * Pages to write on as a PDF: every copy with its name, and on each page the code that says which it is. What all copies have in
 * common is in the file once.
 *
 * @param printId what the codes name it by
 * @param progress told after each copy
 */
export async function answerPaperPdf(
  pages: readonly LaidPage[],
  copies: readonly Copy[],
  about: { printId: string; title: string; name: string; page: (page: number, of: number) => string },
  kit: PaperKit,
  progress: (done: number) => void = () => undefined,
): Promise<Uint8Array> {
  const common = await PDFDocument.create();
  const commonFonts = await embedded(common, kit);
  for (const { drawn } of pages) {
    const page = common.addPage([pageSize.w * toPoints, pageSize.h * toPoints]);
    for (const corner of corners) fill(page, corner);
    for (const each of drawn) await draw(page, each, commonFonts, kit);
  }
  const pdf = await PDFDocument.create();
  pdf.setTitle(about.title);
  const fonts = await embedded(pdf, kit);
  const blanks = await pdf.embedPdf(
    await common.save(),
    pages.map((_, index) => index),
  );
  for (const [at, copy] of copies.entries()) {
    for (const [index, blank] of blanks.entries()) {
      const page = pdf.addPage([pageSize.w * toPoints, pageSize.h * toPoints]);
      page.drawPage(blank);
      const text = codeText({ printId: about.printId, copy: copy.number, page: index + 1 });
      await drawCode(page, codeRect, text, kit);
      head(page, copy, about.name, about.page(index + 1, pages.length), fonts);
    }
    progress(at + 1);
  }
  return pdf.save();
}

/** Pages as a PDF on which there is nothing but what is drawn. */
export async function drawnPdf(
  pages: readonly (readonly Drawn[])[],
  title: string,
  kit: PaperKit,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  const fonts = await embedded(pdf, kit);
  for (const drawn of pages) {
    const page = pdf.addPage([pageSize.w * toPoints, pageSize.h * toPoints]);
    for (const each of drawn) await draw(page, each, fonts, kit);
  }
  return pdf.save();
}

function head(
  page: PDFPage,
  { name, number }: Copy,
  nameLabel: string,
  pageWords: string,
  fonts: Fonts,
): void {
  const { x, y, w, h } = nameRect;
  if (name === null) {
    say(page, nameLabel, { x, y: y + 5, size: 9, soft: true }, fonts);
    page.drawRectangle({ ...box({ x: x + 16, y, w: w - 16, h }), borderColor: soft, borderWidth: 0.6 });
  } else say(page, name, { x, y: y + 7, size: 13, bold: true }, fonts);
  say(page, `${pageWords} · ${number}`, { x, y: y + h + 6, size: 8, soft: true }, fonts);
}
