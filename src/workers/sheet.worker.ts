import { expose } from 'comlink';
import { workbookFrom, workbookRows } from '@/core/formats/sheet/workbook';

/** Workbooks are read and written here, so that the page goes on and can stop it. */
const sheetWorker = { workbookRows, workbookFrom };
export type SheetWorker = typeof sheetWorker;

expose(sheetWorker);
