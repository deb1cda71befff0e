import { degrees, PDFDocument, rgb, StandardFonts, type PDFPage } from '@cantoo/pdf-lib';
import { marksOn, surfaces } from '../../marking/work/layer';
import { layerPath } from '../../marking/work/layerPath';
import type { LayerMark, WorkMark } from '../../model/workMark';

/** A PDF that a student handed in, or a JPEG of a page, with the marks that lie over it. */
export interface HandedFile {
  id: string;
  /** Absent: a PDF. */
  is?: 'jpeg';
  bytes: Uint8Array;
  work: readonly WorkMark[];
}

type Bytes = Uint8Array<ArrayBuffer>;

/** A PDF with its pages; null where it is damaged or locked. */
async function readable(bytes: Uint8Array): Promise<{ pdf: PDFDocument; pages: number[] } | null> {
  try {
    const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
    return { pdf, pages: pdf.getPageIndices() };
  } catch {
    return null;
  }
}

/** How many pages a PDF has; null where it is damaged or locked. */
export const pagesIn = async (bytes: Uint8Array): Promise<number | null> =>
  (await readable(bytes))?.pages.length ?? null;

/**
 * A script with the pages that were handed in behind it, as they are, with the marks in place. Files that cannot be read
 * are left out: the script names them.
 */
export async function withHandedPages(script: Uint8Array, files: readonly HandedFile[]): Promise<Bytes> {
  const pdf = await PDFDocument.load(script, { updateMetadata: false });
  for (const { id, is, bytes, work } of files) {
    const pages = is === 'jpeg' ? [await pageOf(pdf, bytes)] : await pagesFrom(pdf, bytes);
    if (pages.length === 0) continue;
    const font = await pdf.embedFont(StandardFonts.HelveticaBold);
    for (const [index, page] of pages.entries()) {
      if (is !== 'jpeg') pdf.addPage(page);
      const marks = marksOn(work, surfaces.file(id, index + 1));
      const notes = marks.filter(({ is }) => is === 'note');
      for (const mark of marks)
        if (mark.is === 'note') drawNote(page, mark, String(notes.indexOf(mark) + 1), font);
        else drawMark(page, mark);
    }
  }
  return new Uint8Array(await pdf.save());
}

async function pagesFrom(pdf: PDFDocument, bytes: Uint8Array): Promise<PDFPage[]> {
  const from = await readable(bytes);
  return from ? pdf.copyPages(from.pdf, from.pages) : [];
}

/** A4 (ISO 216), in points. */
const sheet = { width: (210 / 25.4) * 72, height: (297 / 25.4) * 72 };

/** A picture of a whole page as a page. */
async function pageOf(pdf: PDFDocument, bytes: Uint8Array): Promise<PDFPage> {
  const page = pdf.addPage([sheet.width, sheet.height]);
  page.drawImage(await pdf.embedJpg(bytes), { x: 0, y: 0, ...sheet });
  return page;
}

/** Several PDFs as one, in order. */
export async function joinedPdf(parts: readonly Uint8Array[]): Promise<Bytes> {
  const all = await PDFDocument.create();
  for (const part of parts) {
    const from = await PDFDocument.load(part, { updateMetadata: false });
    for (const page of await all.copyPages(from, from.getPageIndices())) all.addPage(page);
  }
  return new Uint8Array(await all.save());
}

/** Where a page, as it is seen, has its upper left corner, which way its width runs, and how long a thousandth of it is. */
function seen(page: PDFPage): { x: number; y: number; turn: number; unit: number } {
  const { x, y, width, height } = page.getCropBox();
  const turn = ((page.getRotation().angle % 360) + 360) % 360;
  const unit = (turn % 180 === 0 ? width : height) / 1000;
  const corner = {
    0: [x, y + height],
    90: [x, y],
    180: [x + width, y],
    270: [x + width, y + height],
  }[turn] ?? [x, y + height];
  return { x: corner[0] ?? 0, y: corner[1] ?? 0, turn, unit };
}

const red = rgb(0.702, 0.149, 0.118);
const white = rgb(1, 1, 1);

/** Twice: a pale edge under it keeps it to be seen on dark and on light. */
function drawMark(page: PDFPage, mark: LayerMark): void {
  const { x, y, turn, unit } = seen(page);
  for (const [width, color] of [
    [14, white],
    [7, red],
  ] as const)
    page.drawSvgPath(layerPath(mark), {
      ...{ x, y, scale: unit, rotate: degrees(turn) },
      borderColor: color,
      borderWidth: width,
    });
}

function drawNote(
  page: PDFPage,
  { points }: LayerMark,
  number: string,
  font: Awaited<ReturnType<PDFDocument['embedFont']>>,
): void {
  const { x, y, turn, unit } = seen(page);
  const [right = 0, down = 0] = points.map((value) => value * unit);
  const [cos, sin] = [Math.cos((turn * Math.PI) / 180), Math.sin((turn * Math.PI) / 180)];
  // To the right of the page as it is seen, and down it.
  const at = (across: number, below: number) => ({
    x: x + across * cos + below * sin,
    y: y + across * sin - below * cos,
  });
  const size = 28 * unit;
  page.drawCircle({
    ...at(right, down),
    size: 22 * unit,
    color: white,
    borderColor: rgb(0, 0, 0),
    borderWidth: 4 * unit,
  });
  const half = font.widthOfTextAtSize(number, size) / 2;
  page.drawText(number, { ...at(right - half, down + size * 0.35), size, font, rotate: degrees(turn) });
}
