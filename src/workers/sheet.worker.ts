import { expose } from 'comlink';
import { readRoster, type Roster } from '@/core/formats/oneroster/readRoster';
import { orRefused, type OrRefused } from '@/core/basics/refused';
import { sheetRows } from '@/core/formats/sheet/sheetRows';
import { workbookFrom } from '@/core/formats/sheet/workbook';
import type { TableRow } from '@/core/formats/csv/table';

/** Sheets and registers are read and written here, so that the page goes on and can stop it. */
const sheetWorker = {
  sheetRows: (bytes: Uint8Array, name: string): Promise<OrRefused<TableRow[]>> =>
    orRefused(() => sheetRows(bytes, name)),
  workbookFrom,
  register: (bytes: Uint8Array, known: Parameters<typeof readRoster>[1]): Promise<OrRefused<Roster>> =>
    orRefused(() => readRoster(bytes, known)),
};
export type SheetWorker = typeof sheetWorker;

expose(sheetWorker);
