import { proxy } from 'comlink';
import type { MadeUpScans, MadeUpWorker } from './madeUpScans.worker';
import { stoppable, type Work } from './stoppable';
import { paperWorker } from './paperWorker';

/** Scans of papers that a made-up class filled in, as a PDF. */
export const makeUpScans = (wish: MadeUpScans, progress: (done: number, all: number) => void): Work<Blob> =>
  stoppable<MadeUpWorker, Blob>(paperWorker('madeUpScans'), (worker) => worker.make(wish, proxy(progress)));
