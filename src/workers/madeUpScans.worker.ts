import { PDFDocument } from '@cantoo/pdf-lib';
import { expose } from 'comlink';
import { chanceFrom } from '@/core/basics/chance';
import { shuffled } from '@/core/basics/shuffled';
import { itemsOf } from '@/core/kinds/items';
import type { Gray } from '@/core/intake/paper/geometry';
import { pageSize } from '@/core/intake/paper/sheet';
import { drawStrokes } from '@/core/intake/standIn/drawStrokes';
import { anyPen, filledPage } from '@/core/intake/standIn/madeUpCopy';
import { picksBy } from '@/core/intake/standIn/picks';
import { phoneFaults, scanned, usualFaults } from '@/core/intake/standIn/scanned';
import { desk } from '@/store/tables';
import { filePages, grayOfCanvas, jpegOf } from './scanPages';

/** How a made-up class and its scanner go about it. */
export interface MadeUpScans {
  printId: string;
  /** The PDF that was printed. */
  papers: Blob;
  /** Only the first so many copies. */
  copies: number;
  seed: number;
}

const shares = { missing: 0.02, double: 0.02, phone: 0.25, knows: 0.6 };
const points = 72 / 25.4;

/** Stands in for a class and a scanner, so that papers can be tried before any is printed. */
const madeUpWorker = {
  make: async (
    { printId, papers, copies, seed }: MadeUpScans,
    progress: (done: number, all: number) => void,
  ): Promise<Blob> => {
    const print = await desk.prints.get(printId);
    const sitting = print && (await desk.sittings.get(print.sittingId));
    const paper = sitting && (await desk.paperVersions.get([sitting.paperId, print.paperVersion]));
    if (!paper) throw new Error('printGone');
    const chance = chanceFrom(seed);
    const picks = picksBy(itemsOf(paper.questions), print, shares.knows, chance);
    const { pages, close } = await filePages(new Uint8Array(await papers.arrayBuffer()), 'papers.pdf');
    const wanted = pages.slice(0, copies * print.pages.length);
    const scans: Uint8Array[] = [];
    let pen = anyPen(chance);
    for (const [index, page] of wanted.entries()) {
      const at = index % print.pages.length;
      if (at === 0) pen = anyPen(chance);
      const { strokes } = filledPage(print.pages[at] ?? [], picks, pen, chance);
      const filled = withStrokes(await page.gray(), strokes);
      const times = chance.happens(shares.missing) ? 0 : chance.happens(shares.double) ? 2 : 1;
      for (let time = 0; time < times; time++)
        scans.push(
          await jpegOf(
            scanned(filled, chance.happens(shares.phone) ? phoneFaults : usualFaults, chance),
            0.6,
          ),
        );
      progress(index + 1, wanted.length);
    }
    close();
    const pdf = await PDFDocument.create();
    for (const jpeg of shuffled(scans, String(seed))) {
      const picture = await pdf.embedJpg(jpeg);
      const size = { width: pageSize.w * points, height: pageSize.h * points };
      pdf.addPage([size.width, size.height]).drawImage(picture, { x: 0, y: 0, ...size });
    }
    return new Blob([Uint8Array.from(await pdf.save())], { type: 'application/pdf' });
  },
};
export type MadeUpWorker = typeof madeUpWorker;

function withStrokes(page: Gray, strokes: Parameters<typeof drawStrokes>[1]): Gray {
  return grayOfCanvas(page, (context) => drawStrokes(context, strokes, page.width / pageSize.w));
}

expose(madeUpWorker);
