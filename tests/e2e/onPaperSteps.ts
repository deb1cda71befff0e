import { PDFDocument } from '@cantoo/pdf-lib';
import type { Canvas } from '@napi-rs/canvas';
import type { Page } from '@playwright/test';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chanceFrom } from '@/core/basics/chance';
import type { Rect } from '@/core/basics/rect';
import { scanned, usualFaults } from '@/core/intake/standIn/scanned';
import type { Stroke } from '@/core/intake/standIn/madeUpCopy';
import { draw, grayOf, jpegOf } from '../../scripts/paperNode';

/** What is printed, written and scanned in tests of answers on paper. */

export const folder = () => mkdtempSync(join(tmpdir(), 'gribbet-paper-'));

/** What a button saves, as a path. */
export async function saved(page: Page, name: string | RegExp): Promise<string> {
  const coming = page.waitForEvent('download');
  await page.getByRole('button', { name }).click();
  const path = join(folder(), 'saved');
  await (await coming).saveAs(path);
  return path;
}

const pen = { width: 0.5, grey: 0.15 };
/** A cross in a box. */
export const cross = ({ x, y, w, h }: Rect): Stroke[] => [
  {
    ...pen,
    points: [
      { x: x + 0.5, y: y + 0.5 },
      { x: x + w - 0.5, y: y + h - 0.5 },
    ],
  },
  {
    ...pen,
    points: [
      { x: x + w - 0.5, y: y + 0.5 },
      { x: x + 0.5, y: y + h - 0.5 },
    ],
  },
];
/** A short stroke that may be a tick, or a slip. */
export const slip = ({ x, y, w, h }: Rect): Stroke[] => [
  {
    ...pen,
    points: [
      { x: x + w / 2 - 0.15, y: y + h / 2 },
      { x: x + w / 2 + 0.15, y: y + h / 2 },
    ],
  },
];
/** A line of writing in an area. */
export const writing = ({ x, y }: Rect): Stroke[] => [
  {
    ...pen,
    points: Array.from({ length: 30 }, (_, at) => ({ x: x + 4 + at * 1.5, y: y + 3 + (at % 2) * 3 })),
  },
];

/** Scans of filled in papers, each page by its strokes, as a PDF of pictures. */
export async function scansOf(pages: { page: Canvas; strokes: Stroke[]; upsideDown?: boolean }[]) {
  const pdf = await PDFDocument.create();
  const chance = chanceFrom(4);
  for (const { page, strokes, upsideDown = false } of pages) {
    draw(page, strokes);
    const scan = scanned(grayOf(page), { ...usualFaults, fold: 0, upsideDown: upsideDown ? 1 : 0 }, chance);
    const picture = await pdf.embedJpg(jpegOf(scan, 70));
    pdf.addPage([595, 842]).drawImage(picture, { x: 0, y: 0, width: 595, height: 842 });
  }
  return Buffer.from(await pdf.save());
}
