export type PaperPart = 'madeUpScans' | 'pdf' | 'prints' | 'scans' | 'scripts';

/** A worker that makes or reads pages. These alone may run WebAssembly: scripts/start.mjs gives them their policy. */
export const paperWorker = (name: PaperPart): Worker =>
  new Worker(new URL('./paper.worker.ts', import.meta.url), { type: 'module', name });
