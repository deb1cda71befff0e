import { proxy } from 'comlink';
import type { FileRef } from '@/core/basics/file';
import type { OrRefused } from '@/core/basics/refused';
import type { Scan } from '@/core/model/scan';
import type { FileRead, Pile, ScansProgress, ScansWorker } from './scans.worker';
import { stoppable, type Work } from './stoppable';
import { paperWorker } from './paperWorker';

export type { FileRead, Pile, ScansProgress };

const begun = () => paperWorker('scans');

/** Reads scanned files into a sitting; stopped, what was read of them so far waits for the rest. */
export const readScans = (
  sittingId: string,
  files: readonly File[],
  /** What all of them are of, where it was printed elsewhere; null: codes say it. */
  pile: Pile | null,
  tab: { id: string; where: string } | null,
  now: string,
  progress: (at: ScansProgress) => void,
): Work<FileRead[]> =>
  stoppable<ScansWorker, FileRead[]>(begun(), (worker) =>
    worker.read(sittingId, files, pile, tab, now, proxy(progress)),
  );

/** Reads one page anew as what somebody says it is. @returns whether its boxes were found */
export const placeScanAs = (
  scanId: string,
  place: NonNullable<Scan['place']>,
  tab: { id: string; where: string } | null,
  now: string,
): Work<boolean> =>
  stoppable<ScansWorker, boolean>(begun(), (worker) => worker.placeAs(scanId, place, tab, now));

/** The pages of a blank paper that was printed elsewhere, kept as pictures. */
export const blankPages = (files: readonly File[]): Work<OrRefused<FileRef[]>> =>
  stoppable<ScansWorker, OrRefused<FileRef[]>>(begun(), (worker) => worker.blanks(files));

/** Turns a page upside down that lies so. */
export const turnScan = (
  scanId: string,
  tab: { id: string; where: string } | null,
  now: string,
): Work<boolean> =>
  stoppable<ScansWorker, boolean>(begun(), (worker) => worker.turn(scanId, tab, now).then(() => true));
