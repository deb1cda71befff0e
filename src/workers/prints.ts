import { proxy } from 'comlink';
import type { StickerOf } from '@/core/intake/paper/stickers';
import type { TestSheetWords } from '@/core/intake/paper/testSheet';
import type { PrintWish } from '@/store/answerPapers';
import type { PrintMade, PrintsWorker } from './prints.worker';
import { stoppable, type Work } from './stoppable';
import { paperWorker } from './paperWorker';

export type { PrintMade };

type Progress = (done: number, all: number) => void;

const begun = () => paperWorker('prints');

/** Makes answer papers, with their PDF. */
export const makePapers = (
  wish: PrintWish,
  tab: { id: string; where: string } | null,
  now: string,
  progress: Progress,
): Work<PrintMade> =>
  stoppable<PrintsWorker, PrintMade>(begun(), (worker) => worker.make(wish, tab, now, proxy(progress)));

/** The PDF of answer papers that were made before. */
export const papersAgain = (printId: string, progress: Progress): Work<PrintMade> =>
  stoppable<PrintsWorker, PrintMade>(begun(), (worker) => worker.again(printId, proxy(progress)));

/** A sheet to try a scanner with. */
export const testSheet = (words: TestSheetWords): Work<Blob> =>
  stoppable<PrintsWorker, Blob>(begun(), (worker) => worker.testSheet(words));

/** Stickers with the codes of people, for papers that were printed elsewhere. */
export const stickers = (title: string, people: readonly StickerOf[]): Work<Blob> =>
  stoppable<PrintsWorker, Blob>(begun(), (worker) => worker.stickers(title, people));
