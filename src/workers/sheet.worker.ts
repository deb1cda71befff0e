import { expose } from 'comlink';
import { readRoster, type Roster } from '@/core/formats/oneroster/readRoster';
import { Refused, type Refusal } from '@/core/formats/refused';
import { workbookFrom, workbookRows } from '@/core/formats/sheet/workbook';

/** A register that was read, or why it was not. */
export type RegisterReply = { read: Roster } | { refused: { why: Refusal; place: string; detail: string } };

/** Workbooks and registers are read and written here, so that the page goes on and can stop it. */
const sheetWorker = {
  workbookRows,
  workbookFrom,
  register: (bytes: Uint8Array, known: Parameters<typeof readRoster>[1]): RegisterReply => {
    try {
      return { read: readRoster(bytes, known) };
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      const { why, place, detail } = error;
      return { refused: { why, place, detail } };
    }
  },
};
export type SheetWorker = typeof sheetWorker;

expose(sheetWorker);
