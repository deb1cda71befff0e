import { read, utils, write, type CellObject, type DenseWorkSheet } from '@e965/xlsx';
import { XMLValidator } from 'fast-xml-parser';
import type { TableRow } from '../csv/table';
import { Refused } from '../../basics/refused';
import { unpacked, type PackageFiles } from '../unpacked';
import { textOf } from '../textOf';
import { packed } from '../zip';
import { mostCells, mostRows } from './bounds';

/** What a workbook may unpack to: 1,200,000 cells take about a third of it. */
const mostUnpacked = { file: 96 * 1024 * 1024, together: 144 * 1024 * 1024 };

/**
 * The rows of the first sheet of an XLSX (ECMA-376) or ODS (OASIS OpenDocument) workbook, as they are shown there: but a
 * number without a format of its own, and a percentage, with all their digits. Formulas are read by their value only.
 * Rows of only empty cells are left out.
 *
 * @throws {Refused} when it is no workbook, a damaged one or one too large; `place` is the file within it
 */
export async function workbookRows(bytes: Uint8Array): Promise<TableRow[]> {
  const files = await unpacked(bytes, mostUnpacked);
  checkSheets(files);
  const sheet = firstSheet(files);
  const rows = sheet['!data'];
  return rows.flatMap((row: (CellObject | undefined)[] | undefined, index) => {
    const texts = Array.from(row ?? [], (cell) => (cell ? shownText(cell) : ''));
    return texts.some(Boolean) ? [{ line: index + 1, cells: texts }] : [];
  });
}

function firstSheet(files: PackageFiles): DenseWorkSheet {
  let found: DenseWorkSheet | undefined;
  try {
    const workbook = read(
      packed(Object.fromEntries([...files].map(([path, file]) => [path, [file, { level: 0 }]]))),
      {
        type: 'array',
        dense: true,
        sheets: 0,
        cellHTML: false,
        cellFormula: false,
        cellNF: true,
        sheetRows: mostRows + 1,
      },
    );
    found = workbook.Sheets[workbook.SheetNames[0] ?? ''] as DenseWorkSheet | undefined; // as `dense` asks for
  } catch {
    // The package has words of its own for it; the teacher reads ours.
    throw new Refused('notWorkbook', '');
  }
  if (!found) throw new Refused('noSheet', '');
  if (found['!data'].length > mostRows)
    throw new Refused('tooManyCells', `row ${mostRows + 1}`, `${mostRows} rows`);
  return found;
}

/** A cell as it is shown; a plain number and a percentage with all their digits. */
function shownText({ t, v, w, z }: CellObject): string {
  if (t === 'n' && typeof v === 'number') {
    const format = typeof z === 'string' ? z : 'General';
    if (format === 'General') return String(v);
    // Twelve digits: what a decimal becomes by being doubled does not show.
    if (/^[0#.]+\s?%$/.test(format)) return `${Number((v * 100).toPrecision(12))}%`;
  }
  return (w ?? String(v ?? '')).trim();
}

/** Whether the sheets can be read at all, and within bounds, before the package that reads them fills the memory. */
function checkSheets(files: PackageFiles): void {
  if (!files.has('xl/workbook.xml') && !files.has('content.xml'))
    throw new Refused('notWorkbook', 'xl/workbook.xml, content.xml');
  for (const [path, file] of files) {
    if (!/^(xl\/(workbook|sharedStrings|styles|worksheets\/[^/]+)|content|styles)\.xml$/.test(path)) continue;
    const text = textOf(file);
    const valid = XMLValidator.validate(text);
    if (valid !== true) throw new Refused('notXml', `${path}, line ${valid.err.line}`, valid.err.msg);
    const cells =
      path === 'content.xml' ? openDocumentCells(text) : [...text.matchAll(/<(?:\w+:)?c[\s>/]/g)].length;
    if (cells > mostCells) throw new Refused('tooManyCells', path, `${mostCells} cells`);
  }
}

/** How many cells with something in them, those that are there by repeating too (OpenDocument 1.3, 19.675 and 19.679). */
function openDocumentCells(xml: string): number {
  let cells = 0;
  let rows = 1;
  for (const [, name, attributes = '', end] of xml.matchAll(
    /<table:(table-row|table-cell)\b([^>]*?)(\/?)>/g,
  )) {
    const repeated = (what: string) =>
      Number(new RegExp(`number-${what}-repeated=["'](\\d+)`).exec(attributes)?.[1] ?? 1);
    if (name === 'table-row') rows = repeated('rows');
    else if (!end || attributes.includes('office:value-type')) cells += rows * repeated('columns');
  }
  return cells;
}

/** Rows as an XLSX or ODS workbook of one sheet. Text stays text: a cell never becomes a formula. */
export function workbookFrom(
  rows: readonly (readonly (string | number | null)[])[],
  name: string,
  bookType: 'xlsx' | 'ods' = 'xlsx',
): Uint8Array<ArrayBuffer> {
  const sheet = utils.aoa_to_sheet(rows.map((row) => [...row]));
  const workbook = utils.book_new();
  utils.book_append_sheet(workbook, sheet, name.replace(/[[\]:*?/\\]/g, ' ').slice(0, 31) || 'Sheet');
  return new Uint8Array(write(workbook, { type: 'array', bookType }) as ArrayBuffer); // what `array` gives
}
