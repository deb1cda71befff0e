import { read, utils, write } from '@e965/xlsx';
import type { TableRow } from '../csv/table';

/** More than this is no sheet of a class or a paper. */
export const largestWorkbook = 10_000_000;
const mostRows = 20_000;

/**
 * The rows of the first sheet of an XLSX or ODS workbook, as they are shown there. Formulas are read by their value
 * only. Rows of only empty cells are left out.
 *
 * @throws RangeError when it is too large; Error when it is no workbook
 */
export function workbookRows(bytes: Uint8Array): TableRow[] {
  if (bytes.length > largestWorkbook) throw new RangeError('The file is larger than 10 MB');
  // Both are zip files, which begin so (APPNOTE 4.3.7); anything else would be guessed at.
  if (![0x50, 0x4b, 0x03, 0x04].every((byte, at) => bytes[at] === byte))
    throw new Error('The file is no XLSX or ODS workbook');
  const workbook = read(bytes, {
    type: 'array',
    dense: true,
    cellHTML: false,
    cellFormula: false,
    sheetRows: mostRows,
  });
  const sheet = workbook.Sheets[workbook.SheetNames[0] ?? ''];
  if (!sheet) throw new Error('The workbook has no sheet');
  const cells = utils.sheet_to_json<unknown[]>(sheet, { header: 1, raw: false, defval: '', blankrows: true });
  return cells.flatMap((row, index) => {
    const texts = Array.from(row, (cell) => String(cell ?? '').trim());
    return texts.some(Boolean) ? [{ line: index + 1, cells: texts }] : [];
  });
}

/** Rows as an XLSX workbook of one sheet. Text stays text: a cell never becomes a formula. */
export function workbookFrom(
  rows: readonly (readonly (string | number | null)[])[],
  name: string,
): Uint8Array<ArrayBuffer> {
  const sheet = utils.aoa_to_sheet(rows.map((row) => [...row]));
  const workbook = utils.book_new();
  utils.book_append_sheet(workbook, sheet, name.replace(/[[\]:*?/\\]/g, ' ').slice(0, 31) || 'Sheet');
  return new Uint8Array(write(workbook, { type: 'array', bookType: 'xlsx' }) as ArrayBuffer); // what `array` gives
}
