import { wrap, type Remote } from 'comlink';
import { decodeText } from '@/core/formats/csv/decodeText';
import { tableFrom, type TableRow } from '@/core/formats/csv/table';
import type { SheetWorker } from '@/workers/sheet.worker';

/** Work with a workbook that can be stopped. */
export interface SheetWork<T> {
  result: Promise<T>;
  stop: () => void;
}

function inWorker<T>(job: (worker: Remote<SheetWorker>) => Promise<T>): SheetWork<T> {
  const worker = new Worker(new URL('../../workers/sheet.worker.ts', import.meta.url), { type: 'module' });
  let stop: () => void = () => undefined;
  const stopped = new Promise<never>((_, reject) => {
    stop = () => reject(new Error('Stopped'));
  });
  const result = Promise.race([job(wrap<SheetWorker>(worker)), stopped]).finally(() => worker.terminate());
  return { result, stop };
}

/** The rows of a file: separated text, or the first sheet of an XLSX or ODS workbook. */
export function readSheet(file: File): SheetWork<TableRow[]> {
  if (!/\.(xlsx|ods)$/i.test(file.name))
    return {
      result: file.arrayBuffer().then((buffer) => tableFrom(decodeText(new Uint8Array(buffer)))),
      stop: () => undefined,
    };
  return inWorker(async (worker) => worker.workbookRows(new Uint8Array(await file.arrayBuffer())));
}

export function workbookOf(
  rows: (string | number | null)[][],
  name: string,
): SheetWork<Uint8Array<ArrayBuffer>> {
  return inWorker((worker) => worker.workbookFrom(rows, name));
}
