import type { Student } from '@/core/model/people';
import type { PdfWorker } from './pdf.worker';
import { stoppable, type Work } from './stoppable';

/** The join slips of a group as PDF. */
export function slipsPdf(
  students: Student[],
  groupName: string,
  origin: string,
): Work<Uint8Array<ArrayBuffer>> {
  const worker = new Worker(new URL('./pdf.worker.ts', import.meta.url), { type: 'module' });
  return stoppable<PdfWorker, Uint8Array<ArrayBuffer>>(worker, (remote) =>
    remote.slips(students, groupName, origin),
  );
}
