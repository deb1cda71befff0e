import Papa from 'papaparse';
import { Refused } from '../../basics/refused';
import { guarded, unguarded } from './guard';

/** One row of a table, with the line of the file it starts on, from 1. */
export interface TableRow {
  line: number;
  cells: string[];
}

/**
 * The rows of separated text (RFC 4180, with comma, semicolon or tab, whichever fits). Rows of only empty cells
 * are left out, and the apostrophe that guarded a text. A quoted cell may hold line breaks, so lines are counted in the text and not by rows.
 *
 * @throws {Refused} where a cell that begins with a quotation mark does not end with one: it would swallow the rows behind it
 */
export function tableFrom(text: string): TableRow[] {
  const source = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  const rows: TableRow[] = [];
  let line = 1;
  let at = 0;
  Papa.parse<string[]>(source, {
    delimiter: delimiterOf(source),
    newline: '\n',
    step: ({ data, meta, errors }) => {
      if (errors.some(({ type }) => type === 'Quotes')) throw new Refused('openQuote', `line ${line}`);
      const cells = data.map((cell) => unguarded(cell).trim());
      if (cells.some((cell) => cell !== '')) rows.push({ line, cells });
      for (; at < meta.cursor; at++) if (source.charCodeAt(at) === 10) line++;
    },
  });
  return rows;
}

/** The separator that splits most of the first rows, and those into most cells; a tab wins a tie, then a semicolon. */
function delimiterOf(text: string): string {
  const counted = ['\t', ';', ','].map((delimiter) => {
    const { data } = Papa.parse<string[]>(text, {
      delimiter,
      newline: '\n',
      preview: 10,
      skipEmptyLines: true,
    });
    const first = data[0]?.length ?? 1;
    const split = data.map((row) => row.length).filter((length) => length > 1);
    const fewest = Math.min(...split);
    // A title above the rows is split by none. But names below "Name" have a comma of their own: "Okafor, Amara".
    const names = delimiter === ',' && first === 1 && fewest === 2;
    return { delimiter, rows: names ? 0 : split.length, fewest, first };
  });
  counted.sort((a, b) => b.rows - a.rows || b.fewest - a.fewest || b.first - a.first);
  return counted[0]?.rows ? counted[0].delimiter : '\t';
}

/** A cell of a table that is written: text stays text, whatever it looks like. */
export type Cell = string | number | null;

/** How separated text is written. */
export interface CsvForm {
  separator: ',' | ';' | '\t';
  decimal: '.' | ',';
  /** Whether it begins with the byte order mark by which some spreadsheets know UTF-8. */
  mark: boolean;
  /** Whether text that a spreadsheet would run or change gets an apostrophe before it. */
  guard: boolean;
}

/** As RFC 4180 has it, for a spreadsheet. */
export const usualCsv: CsvForm = { separator: ',', decimal: '.', mark: true, guard: true };

/**
 * Rows as separated text: RFC 4180 but for the separator, CRLF, UTF-8. Numbers stay numbers, with the decimal sign of their
 * reader.
 */
export function csvFrom(rows: readonly (readonly Cell[])[], form: Partial<CsvForm> = {}): string {
  const { separator, decimal, mark, guard } = { ...usualCsv, ...form };
  const cell = (value: Cell): string => {
    if (value === null) return '';
    if (typeof value === 'number') return String(value).replace('.', decimal);
    return guard ? guarded(value) : value;
  };
  const csv = Papa.unparse(
    rows.map((row) => row.map(cell)),
    { delimiter: separator, newline: '\r\n' },
  );
  return `${mark ? '\uFEFF' : ''}${csv}\r\n`;
}
