import { proxy } from 'comlink';
import type { ScriptsMade, ScriptsProgress, ScriptsWorker } from './scripts.worker';
import { stoppable, type Work } from './stoppable';
import { paperWorker } from './paperWorker';

export type { ScriptsMade, ScriptsProgress };

/** Marked scripts as a PDF of all, or a zip of one each. */
export const makeScripts = (
  wish: Parameters<ScriptsWorker['make']>[0],
  progress: (now: ScriptsProgress) => void,
): Work<ScriptsMade> =>
  stoppable<ScriptsWorker, ScriptsMade>(paperWorker('scripts'), (worker) =>
    worker.make(wish, proxy(progress)),
  );
