import type { OfferedComment } from '../../marking/commentBank';
import { pointsFrom } from '../../marking/typedPoints';
import { csvFrom, type TableRow } from './table';

const heading = ['Comment', 'Code', 'Points', 'Used here', 'Used elsewhere'];

/** The comments of a bank as CSV, with how often each was used. */
export const commentsCsv = (comments: readonly OfferedComment[]): string =>
  csvFrom([
    heading,
    ...comments.map(({ text, code, points, uses, usesElsewhere }) => [
      text,
      code,
      points,
      uses,
      usesElsewhere,
    ]),
  ]);

/** One comment as it was read. */
export interface ReadComment {
  text: string;
  code: string;
  points: number | null;
}

/** A row that is no comment, by its line in the file. */
export interface BadComment {
  line: number;
  why: 'noText' | 'tooLong' | 'badPoints';
}

/**
 * Comments from a table: the comment, its code and its points, in this order. A first row that says so is a heading; columns
 * behind these are left alone.
 */
export function commentRows(rows: readonly TableRow[]): { good: ReadComment[]; bad: BadComment[] } {
  const good: ReadComment[] = [];
  const bad: BadComment[] = [];
  const isHeading = rows[0]?.cells[0]?.toLowerCase() === heading[0]?.toLowerCase();
  for (const { line, cells } of isHeading ? rows.slice(1) : rows) {
    const [text = '', code = '', typed = ''] = cells;
    const points = typed === '' ? null : pointsFrom(typed);
    if (text === '') bad.push({ line, why: 'noText' });
    else if (text.length > 20_000 || code.length > 500) bad.push({ line, why: 'tooLong' });
    else if (typed !== '' && (points === null || Math.abs(points) > 1000))
      bad.push({ line, why: 'badPoints' });
    else good.push({ text, code, points });
  }
  return { good, bad };
}

/** A cell without the apostrophe that keeps a spreadsheet from reading it as a formula. */
