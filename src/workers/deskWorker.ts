export type DeskPart =
  | 'backup'
  | 'copies'
  | 'deskSync'
  | 'intake'
  | 'near'
  | 'packets'
  | 'qti'
  | 'rehearsal'
  | 'sheet'
  | 'takeOver';

/** A worker of the desk: one that reads and writes what the desk holds. */
export const deskWorker = (name: DeskPart): Worker =>
  new Worker(new URL('./desk.worker.ts', import.meta.url), { type: 'module', name });
