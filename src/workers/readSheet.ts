import type { Remote } from 'comlink';
import { decodeText } from '@/core/formats/csv/decodeText';
import { tableFrom, type TableRow } from '@/core/formats/csv/table';
import type { RegisterReply, SheetWorker } from './sheet.worker';
import { stoppable, type Work } from './stoppable';

const inWorker = <T>(job: (worker: Remote<SheetWorker>) => Promise<T>): Work<T> =>
  stoppable<SheetWorker, T>(
    new Worker(new URL('./sheet.worker.ts', import.meta.url), { type: 'module' }),
    job,
  );

/** The rows of a file: separated text, or the first sheet of an XLSX or ODS workbook. */
export function readSheet(file: File): Work<TableRow[]> {
  if (!/\.(xlsx|ods)$/i.test(file.name))
    return {
      result: file.arrayBuffer().then((buffer) => tableFrom(decodeText(new Uint8Array(buffer)))),
      stop: () => undefined,
    };
  return inWorker(async (worker) => worker.workbookRows(new Uint8Array(await file.arrayBuffer())));
}

export function workbookOf(rows: (string | number | null)[][], name: string): Work<Uint8Array<ArrayBuffer>> {
  return inWorker((worker) => worker.workbookFrom(rows, name));
}

/** Students and classes of a school register; what the desk knows already is found by number and email. */
export function readRegister(
  file: File,
  known: { id: string; number: string; email: string }[],
): Work<RegisterReply> {
  return inWorker(async (worker) => worker.register(new Uint8Array(await file.arrayBuffer()), known));
}
