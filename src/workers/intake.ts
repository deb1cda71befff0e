import { proxy, wrap } from 'comlink';
import type { TableRow } from '@/core/formats/csv/table';
import type { SheetChoices } from '@/store/sheetAnswers';
import type { IntakeWorker, SheetSummary } from './intake.worker';
import { Stopped } from './stoppable';

export type { SheetSummary } from './intake.worker';

/** A sheet of answers that is being understood in a worker, and kept from there. */
export interface SheetIntake {
  look: (choices: SheetChoices) => Promise<SheetSummary>;
  /** Stopping it keeps nothing of it. */
  bring: (...args: [...Parameters<IntakeWorker['bring']>]) => {
    result: ReturnType<IntakeWorker['bring']>;
    stop: () => void;
  };
  end: () => void;
}

/** Gives the rows of a sheet to a worker of their own. */
export function openSheet(rows: readonly TableRow[]): SheetIntake {
  const worker = new Worker(new URL('./intake.worker.ts', import.meta.url), { type: 'module' });
  const remote = wrap<IntakeWorker>(worker);
  const opened = remote.open(rows);
  return {
    look: async (choices) => {
      await opened;
      return remote.look(choices);
    },
    bring: (choices, people, groupIds, now, tab, progress) => {
      let stop: () => void = () => undefined;
      const stopped = new Promise<never>((_, reject) => {
        // With the worker goes its transaction: nothing of it is kept.
        stop = () => {
          worker.terminate();
          reject(new Stopped('Stopped'));
        };
      });
      const brought = remote.bring(choices, people, groupIds, now, tab, proxy(progress));
      return { result: Promise.race([brought, stopped]), stop };
    },
    end: () => worker.terminate(),
  };
}
