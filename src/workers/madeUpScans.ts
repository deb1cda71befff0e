import { proxy } from 'comlink';
import type { MadeUpScans, MadeUpWorker } from './madeUpScans.worker';
import { stoppable, type Work } from './stoppable';

/** Scans of papers that a made-up class filled in, as a PDF. */
export const makeUpScans = (wish: MadeUpScans, progress: (done: number, all: number) => void): Work<Blob> =>
  stoppable<MadeUpWorker, Blob>(
    new Worker(new URL('./madeUpScans.worker.ts', import.meta.url), { type: 'module' }),
    (worker) => worker.make(wish, proxy(progress)),
  );
