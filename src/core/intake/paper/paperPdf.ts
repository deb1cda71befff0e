import { PDFDocument, rgb, type PDFFont, type PDFPage } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import { codeRect, codeText, corners, nameRect, pageSize } from './sheet';
import type { Drawn, LaidPage } from './layout';
import type { Measure } from './wrapped';
import type { Rect } from '../../basics/rect';
import { fontRuns, type FontFace } from '../../formats/scripts/fontRuns';

/** A font for letters that the usual one has not, as its file. */
export interface FaceFile extends FontFace {
  bytes: Uint8Array;
}

/** What a PDF of pages to write on is made with. */
export interface PaperKit {
  regular: Uint8Array;
  bold: Uint8Array;
  faces: readonly FaceFile[];
  /** The dark squares of the code of a text, row by row (ISO/IEC 18004), without a margin. */
  codeOf: (text: string) => Promise<boolean[][]>;
}

/** One copy of the pages. */
export interface Copy {
  /** From 1. */
  number: number;
  /** Printed on every page; null: written in by hand. */
  name: string | null;
}

const toPoints = 72 / 25.4;
const ink = rgb(0, 0, 0);
const soft = rgb(0.35, 0.35, 0.35);
const pale = rgb(0.78, 0.78, 0.78);

interface Fonts {
  usual: PDFFont;
  bold: PDFFont;
  byName: ReadonlyMap<string, PDFFont>;
  faces: readonly FaceFile[];
}

async function embedded(pdf: PDFDocument, { regular, bold, faces }: PaperKit): Promise<Fonts> {
  pdf.registerFontkit(fontkit);
  const embed = (bytes: Uint8Array) => pdf.embedFont(bytes, { subset: true });
  const byName = new Map<string, PDFFont>();
  for (const { name, bytes } of faces) byName.set(name, await embed(bytes));
  return { usual: await embed(regular), bold: await embed(bold), byName, faces };
}

const runsOf = (text: string, { usual, bold, byName, faces }: Fonts, strong: boolean) =>
  fontRuns(text, faces).map(({ text: run, font }) => ({
    run,
    font: (font === undefined ? undefined : byName.get(font)) ?? (strong ? bold : usual),
  }));

/** How wide texts are in the fonts of a kit. */
export async function measureWith(kit: PaperKit): Promise<Measure> {
  const fonts = await embedded(await PDFDocument.create(), kit);
  const known = new Map<string, number>();
  return (text, size, strong = false) => {
    const key = `${strong ? 'b' : 'r'}${text}`;
    const at1 =
      known.get(key) ??
      runsOf(text, fonts, strong).reduce((sum, { run, font }) => sum + font.widthOfTextAtSize(run, 1), 0);
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
    for (const each of drawn) draw(page, each, commonFonts);
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
      await code(page, codeText({ printId: about.printId, copy: copy.number, page: index + 1 }), kit);
      head(page, copy, about.name, about.page(index + 1, pages.length), fonts);
    }
    progress(at + 1);
  }
  return pdf.save();
}

const box = ({ x, y, w, h }: Rect) => ({
  x: x * toPoints,
  y: (pageSize.h - y - h) * toPoints,
  width: w * toPoints,
  height: h * toPoints,
});

const fill = (page: PDFPage, rect: Rect) => page.drawRectangle({ ...box(rect), color: ink });

function say(
  page: PDFPage,
  text: string,
  at: { x: number; y: number; size: number; bold?: true; soft?: true },
  fonts: Fonts,
): void {
  let x = at.x * toPoints;
  for (const { run, font } of runsOf(text, fonts, at.bold ?? false)) {
    page.drawText(run, {
      x,
      y: (pageSize.h - at.y) * toPoints,
      size: at.size,
      font,
      color: at.soft ? soft : ink,
    });
    x += font.widthOfTextAtSize(run, at.size);
  }
}

function draw(page: PDFPage, each: Drawn, fonts: Fonts): void {
  if (each.as === 'text') say(page, each.text, each, fonts);
  else if (each.as === 'line')
    page.drawLine({
      start: { x: each.x * toPoints, y: (pageSize.h - each.y) * toPoints },
      end: { x: (each.x + each.w) * toPoints, y: (pageSize.h - each.y) * toPoints },
      thickness: 0.5,
      color: pale,
    });
  else
    page.drawRectangle({
      ...box(each),
      borderColor: each.as === 'box' ? ink : soft,
      borderWidth: each.as === 'box' ? 0.9 : 0.6,
    });
}

async function code(page: PDFPage, text: string, { codeOf }: PaperKit): Promise<void> {
  const rows = await codeOf(text);
  const side = codeRect.w / rows.length;
  for (const [row, cells] of rows.entries()) {
    // Neighbours are one rectangle: seams between them would be seen in a scan.
    for (let from = 0; from < cells.length;) {
      let to = from;
      while (cells[to]) to++;
      if (to > from)
        fill(page, {
          x: codeRect.x + from * side,
          y: codeRect.y + row * side,
          w: (to - from) * side,
          h: side * 1.02,
        });
      from = to + 1;
    }
  }
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
