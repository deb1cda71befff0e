import { decodeText } from '../csv/decodeText';
import type { TableRow } from '../csv/table';
import { textRows } from '../csv/textRows';
import { Refused } from '../../basics/refused';
import { largestSheet } from './bounds';
import { workbookRows } from './workbook';

/**
 * The rows of a file: the first sheet of an XLSX or ODS workbook, or separated text. What it is is told by its bytes; one that
 * is called a workbook and is none is not guessed at.
 *
 * @param name what the file is called
 * @throws {Refused} where it is neither, is damaged or too large; `place` is where in it
 */
export async function sheetRows(bytes: Uint8Array, name = ''): Promise<TableRow[]> {
  if (bytes.length > largestSheet) throw new Refused('tooLarge', '', `${largestSheet / 1e6} MB`);
  // A zip begins so (APPNOTE.TXT of the zip format, 4.3.7), and both sorts of workbook are one.
  const zip = [0x50, 0x4b, 0x03, 0x04].every((byte, at) => bytes[at] === byte);
  if (!zip && /\.(xlsx|ods)$/i.test(name)) throw new Refused('notWorkbook', '');
  return zip ? workbookRows(bytes) : textRows(decodeText(bytes));
}
