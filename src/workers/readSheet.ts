import type { Remote } from 'comlink';
import type { TableRow } from '@/core/formats/csv/table';
import type { Roster } from '@/core/formats/oneroster/readRoster';
import type { OrRefused } from '@/core/basics/refused';
import type { SheetWorker } from './sheet.worker';
import { stoppable, type Work } from './stoppable';
import { deskWorker } from './deskWorker';

const inWorker = <T>(job: (worker: Remote<SheetWorker>) => Promise<T>): Work<T> =>
  stoppable<SheetWorker, T>(deskWorker('sheet'), job);

/** The rows of a file: separated text, or the first sheet of an XLSX or ODS workbook. */
export function readSheet(file: File): Work<OrRefused<TableRow[]>> {
  return inWorker(async (worker) => worker.sheetRows(new Uint8Array(await file.arrayBuffer()), file.name));
}

export function workbookOf(
  rows: (string | number | null)[][],
  name: string,
  bookType: 'xlsx' | 'ods' = 'xlsx',
): Work<Uint8Array<ArrayBuffer>> {
  return inWorker((worker) => worker.workbookFrom(rows, name, bookType));
}

/** Students and classes of a school register; what the desk knows already is found by number and email. */
export function readRegister(
  file: File,
  known: { id: string; number: string; email: string }[],
): Work<OrRefused<Roster>> {
  return inWorker(async (worker) => worker.register(new Uint8Array(await file.arrayBuffer()), known));
}
