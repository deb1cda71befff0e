import Papa from 'papaparse';
import { Refused } from '../../basics/refused';

/** One row of a table, with the line of the file it starts on, from 1. */
export interface TableRow {
  line: number;
  cells: string[];
}

/**
 * The rows of separated text (RFC 4180, with comma, semicolon or tab, whichever fits). Rows of only empty cells
 * are left out. A quoted cell may hold line breaks, so lines are counted in the text and not by rows.
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
      const cells = data.map((cell) => cell.trim());
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

/**
 * Rows as CSV: RFC 4180, comma, CRLF, UTF-8 with a byte order mark by choice. Text that a spreadsheet could take
 * for a formula (it begins with = + - @, a tab or a return) gets an apostrophe before it; numbers stay numbers.
 */
export function csvFrom(rows: readonly (readonly (string | number | null)[])[], withMark: boolean): string {
  const csv = Papa.unparse(
    rows.map((row) => [...row]),
    { escapeFormulae: true, newline: '\r\n' },
  );
  return `${withMark ? '\uFEFF' : ''}${csv}\r\n`;
}
