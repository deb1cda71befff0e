import { proxy, wrap, type Remote } from 'comlink';
import type { TableRow } from '@/core/formats/csv/table';
import type { SheetChoices } from '@/store/sheetAnswers';
import type { IntakeWorker, SheetSummary } from './intake.worker';
import { Stopped, type Work } from './stoppable';
import { deskWorker } from './deskWorker';

export type { SheetSummary } from './intake.worker';

type Bringing = IntakeWorker['bring'];

/** A sheet of answers that is understood in a worker, and kept from there. */
export interface SheetIntake {
  look: (choices: SheetChoices) => Promise<SheetSummary>;
  /** Stopped, it keeps nothing of it; the sheet can be looked at and brought in again. */
  bring: (...args: Parameters<Bringing>) => Work<Awaited<ReturnType<Bringing>>>;
  end: () => void;
}

/** Gives the rows of a sheet to a worker of their own. */
export function openSheet(rows: readonly TableRow[]): SheetIntake {
  let now = begun(rows);
  const anew = () => {
    now.end();
    now = begun(rows);
  };
  return {
    look: (choices) => now.does((worker) => worker.look(choices)),
    bring: (...args) => {
      const progress = args[5];
      const result = now.does((worker) =>
        worker.bring(...(args.slice(0, 5) as HeadOf<Parameters<Bringing>>), proxy(progress)),
      );
      // With the worker goes its transaction: nothing of it is kept.
      return { result, stop: anew };
    },
    end: () => now.end(),
  };
}

type HeadOf<T> = T extends [...infer Head, unknown] ? Head : never;

/** A worker that has the rows. What it is asked is rejected with `Stopped` once it was ended. */
function begun(rows: readonly TableRow[]) {
  const worker = deskWorker('intake');
  const remote = wrap<IntakeWorker>(worker);
  let stop: () => void = () => undefined;
  const ended = new Promise<never>((_, reject) => {
    stop = () => reject(new Stopped('Stopped'));
  });
  // Nobody may be waiting for anything when it ends.
  ended.catch(() => undefined);
  const opened = remote.open(rows);
  return {
    does: <T>(job: (remote: Remote<IntakeWorker>) => Promise<T>): Promise<T> =>
      Promise.race([opened.then(() => job(remote)), ended]),
    end: () => {
      worker.terminate();
      stop();
    },
  };
}
