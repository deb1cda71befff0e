import { proxy, wrap, type Remote } from 'comlink';
import type { BackupFault, Progress } from '@/core/formats/backup';
import type { ClashChoice, PartPlan } from '@/core/formats/backup/joinPart';
import type { DeskCopy } from '@/core/model/deskCopy';
import type { BackupWorker } from './backup.worker';
import { stoppable, type Work } from './stoppable';
import { deskWorker } from './deskWorker';

/** A backup that can be put in place: how many students, groups, papers, sittings and attempts it holds; or its fault. */
export type BackupFound =
  | {
      savedAt: string;
      counts: number[];
      /** Where it is a part of a desk: what it is called, and what taking it in would do. */
      part?: string;
      plan?: PartPlan;
    }
  | { fault: BackupFault };

const newWorker = () => deskWorker('backup');

/** The whole desk as a file, with the pictures of scanned pages or without. */
export const savedDesk = (savedAt: string, withPages: boolean, progress: Progress): Work<Blob> =>
  stoppable<BackupWorker, Blob>(newWorker(), (remote) => remote.save(savedAt, withPages, proxy(progress)));

/** Some sittings with all they need, as a file that another desk can take in. */
export const savedPart = (
  part: string,
  sittingIds: string[],
  savedAt: string,
  progress: Progress,
): Work<Blob> =>
  stoppable<BackupWorker, Blob>(newWorker(), (remote) =>
    remote.savePart(part, sittingIds, savedAt, proxy(progress)),
  );

/** A backup: a file, or a copy on the server and what it is sealed with. */
export type BackupSource = File | { copy: DeskCopy; secret: string };

/** A backup being read; what was good is held until it is put in place or closed. */
export interface OpenBackup {
  found: Promise<BackupFound>;
  put: (progress: Progress) => Promise<void>;
  /** Takes a part of a desk in, as was chosen by the ids of its clashes. */
  join: (
    choices: [string, ClashChoice][],
    tab: { id: string; where: string } | null,
    now: string,
    progress: Progress,
  ) => Promise<void>;
  close: () => void;
}

export function openBackup(source: BackupSource, progress: Progress): OpenBackup {
  const worker = newWorker();
  const remote: Remote<BackupWorker> = wrap<BackupWorker>(worker);
  return {
    found:
      source instanceof File
        ? remote.read(source, proxy(progress))
        : remote.readOnServer(source.copy, source.secret, proxy(progress)),
    put: (told) => remote.put(proxy(told)),
    join: (choices, tab, now, told) => remote.join(choices, tab, now, proxy(told)),
    close: () => worker.terminate(),
  };
}
