import { rgb, type PDFDocument, type PDFFont, type PDFImage, type PDFPage } from '@cantoo/pdf-lib';
import * as fontkit from 'fontkit';
import { pageSize } from './sheet';
import type { Drawn } from './drawn';
import type { Rect } from '../../basics/rect';
import { fontRuns, type FontFace } from '../../formats/scripts/fontRuns';

/** What is drawn on printed pages, in mm. */

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
  /** The pictures that are printed, by the ids of their files. */
  pictures?: ReadonlyMap<string, { mediaType: 'image/png' | 'image/jpeg'; bytes: Uint8Array }>;
}

export const toPoints = 72 / 25.4;
const ink = rgb(0, 0, 0);
export const soft = rgb(0.35, 0.35, 0.35);
const pale = rgb(0.78, 0.78, 0.78);
/** As a pencil that is hardly pressed. */
const faint = rgb(0.55, 0.55, 0.55);

export interface Fonts {
  usual: PDFFont;
  bold: PDFFont;
  byName: ReadonlyMap<string, PDFFont>;
  /** What of its pictures a file has already. */
  pictures: Map<string, PDFImage>;
  faces: readonly FaceFile[];
}

export async function embedded(pdf: PDFDocument, { regular, bold, faces }: PaperKit): Promise<Fonts> {
  pdf.registerFontkit(fontkit);
  const embed = (bytes: Uint8Array) => pdf.embedFont(bytes, { subset: true });
  const byName = new Map<string, PDFFont>();
  for (const { name, bytes } of faces) byName.set(name, await embed(bytes));
  return { usual: await embed(regular), bold: await embed(bold), byName, faces, pictures: new Map() };
}

export const runsOf = (text: string, { usual, bold, byName, faces }: Fonts, strong: boolean) =>
  fontRuns(text, faces).map(({ text: run, font }) => ({
    run,
    font: (font === undefined ? undefined : byName.get(font)) ?? (strong ? bold : usual),
  }));

export const box = ({ x, y, w, h }: Rect) => ({
  x: x * toPoints,
  y: (pageSize.h - y - h) * toPoints,
  width: w * toPoints,
  height: h * toPoints,
});

export const fill = (page: PDFPage, rect: Rect) => page.drawRectangle({ ...box(rect), color: ink });

export function say(
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

/** Draws one thing on a page. */
export async function draw(page: PDFPage, each: Drawn, fonts: Fonts, kit: PaperKit): Promise<void> {
  switch (each.as) {
    case 'text':
      return say(page, each.text, each, fonts);
    case 'line':
      return stroke(page, [each.x, each.y], [each.x + each.w, each.y], 0.5, pale);
    case 'code':
      return drawCode(page, each, each.text, kit);
    case 'maths': {
      const { x, y, width, height } = box(each);
      return page.drawSvg(each.svg, { x, y: y + height, width, height });
    }
    case 'picture':
      return drawPicture(page, each, fonts, kit);
    case 'filled':
      return fill(page, each);
    case 'cross': {
      const { x, y, w, h } = each;
      const color = each.soft ? faint : ink;
      stroke(page, [x + 0.6, y + 0.6], [x + w - 0.6, y + h - 0.6], 1.1, color);
      return stroke(page, [x + w - 0.6, y + 0.6], [x + 0.6, y + h - 0.6], 1.1, color);
    }
    case 'box':
    case 'area':
      page.drawRectangle({
        ...box(each),
        borderColor: each.as === 'box' ? ink : soft,
        borderWidth: each.as === 'box' ? 0.9 : 0.6,
      });
  }
}

async function drawPicture(
  page: PDFPage,
  { asset, ...at }: Extract<Drawn, { as: 'picture' }>,
  { pictures }: Fonts,
  kit: PaperKit,
): Promise<void> {
  const file = kit.pictures?.get(asset);
  if (!file) return;
  const image =
    pictures.get(asset) ??
    (await (file.mediaType === 'image/png' ? page.doc.embedPng(file.bytes) : page.doc.embedJpg(file.bytes)));
  pictures.set(asset, image);
  page.drawImage(image, box(at));
}

function stroke(
  page: PDFPage,
  [x1, y1]: readonly [number, number],
  [x2, y2]: readonly [number, number],
  thickness: number,
  color: typeof ink,
): void {
  page.drawLine({
    start: { x: x1 * toPoints, y: (pageSize.h - y1) * toPoints },
    end: { x: x2 * toPoints, y: (pageSize.h - y2) * toPoints },
    ...{ thickness, color },
  });
}

/** Draws the code of a text into a square. */
export async function drawCode(page: PDFPage, at: Rect, text: string, { codeOf }: PaperKit): Promise<void> {
  const rows = await codeOf(text);
  const side = at.w / rows.length;
  for (const [row, cells] of rows.entries()) {
    // Neighbours are one rectangle: seams between them would be seen in a scan.
    for (let from = 0; from < cells.length;) {
      let to = from;
      while (cells[to]) to++;
      if (to > from)
        fill(page, { x: at.x + from * side, y: at.y + row * side, w: (to - from) * side, h: side * 1.02 });
      from = to + 1;
    }
  }
}
