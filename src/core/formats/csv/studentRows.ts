import { z } from 'zod';
import type { ColumnMeaning } from './studentColumns';
import type { TableRow } from './table';

/** A student as a row gives him, before he is one. */
export interface IncomingStudent {
  line: number;
  familyName: string;
  givenName: string;
  number: string;
  email: string;
  /** Fields of the teacher's own, by name. */
  fields?: Record<string, string>;
  /** The names of the groups that the row names; absent: the one it is brought into. */
  groups?: string[];
  /** The student on the desk who has the same number or email, to whom this row adds the group. */
  knownId: string | null;
}

export interface BadRow {
  line: number;
  reason: 'noName' | 'sameNumber' | 'badEmail' | 'tooLong';
  /** The cell it is about. */
  cell: string;
  /** For a number met twice: the line that had it first. */
  firstLine?: number;
}

export interface StudentRows {
  good: IncomingStudent[];
  bad: BadRow[];
}

export interface KnownStudent {
  id: string;
  number: string;
  email: string;
}

/**
 * Reads students from the rows of a table, and says of each bad row why. Nothing is changed by it.
 *
 * @param rows without the header
 * @param names what the columns are called: an own field has that name
 * @param known the students already on the desk
 */
export function studentRows(
  rows: readonly TableRow[],
  meanings: readonly ColumnMeaning[],
  known: readonly KnownStudent[],
  names: readonly string[] = [],
): StudentRows {
  const knownIdOf = finder(known);
  const lineOfNumber = new Map<string, number>();
  const result: StudentRows = { good: [], bad: [] };
  for (const row of rows) {
    const read = studentFrom(row, meanings, names);
    const bad = faultOf(read, lineOfNumber);
    if (read.number && !lineOfNumber.has(read.number)) lineOfNumber.set(read.number, row.line);
    if (bad) result.bad.push(bad);
    else {
      result.good.push({ ...read, knownId: knownIdOf(read) });
    }
  }
  return result;
}

/** Finds who is on the desk already: by number first, then by email. */
export function finder(known: readonly KnownStudent[]) {
  const byNumber = new Map(known.filter((each) => each.number).map((each) => [each.number, each.id]));
  const byEmail = new Map(
    known.filter((each) => each.email).map((each) => [each.email.toLowerCase(), each.id]),
  );
  return ({ number, email }: { number: string; email: string }): string | null =>
    byNumber.get(number) ?? byEmail.get(email.toLowerCase()) ?? null;
}

/** A student as a row has him, known or not. */
export type ReadRow = Omit<IncomingStudent, 'knownId'>;

export function studentFrom(
  row: TableRow,
  meanings: readonly ColumnMeaning[],
  names: readonly string[],
): ReadRow {
  const cell = (meaning: ColumnMeaning) => {
    const column = meanings.indexOf(meaning);
    return column < 0 ? '' : (row.cells[column] ?? '').replace(/\s+/g, ' ').trim();
  };
  const whole = namesFrom(cell('fullName'));
  const own = meanings.flatMap((meaning, column) => {
    const value = (row.cells[column] ?? '').trim();
    return meaning === 'own' && value
      ? [[(names[column] ?? `Column ${column + 1}`).slice(0, 60), value]]
      : [];
  });
  const groups = cell('group')
    .split(';')
    .map((name) => name.trim())
    .filter(Boolean);
  return {
    line: row.line,
    familyName: cell('familyName') || whole.familyName,
    givenName: cell('givenName') || whole.givenName,
    number: cell('number'),
    email: cell('email'),
    ...(groups.length > 0 && { groups }),
    ...(own.length > 0 && { fields: Object.fromEntries(own) as Record<string, string> }),
  };
}

/** "Okafor, Amara" or "Amara Okafor": after the comma, or all but the last word, is the given name. */
export function namesFrom(fullName: string): { familyName: string; givenName: string } {
  const [before = '', after] = fullName.split(/,(.*)/).map((part) => part.trim());
  if (after !== undefined) return { familyName: before, givenName: after };
  const words = before.split(' ');
  return { familyName: words.at(-1) ?? '', givenName: words.slice(0, -1).join(' ') };
}

function faultOf(row: ReadRow, lineOfNumber: ReadonlyMap<string, number>): BadRow | null {
  const { line } = row;
  if (!row.familyName && !row.givenName) return { line, reason: 'noName', cell: '' };
  for (const cell of [
    row.familyName,
    row.givenName,
    row.number,
    row.email,
    ...(row.groups ?? []),
    ...Object.values(row.fields ?? {}),
  ])
    if (cell.length > 200) return { line, reason: 'tooLong', cell: `${cell.slice(0, 40)}…` };
  const firstLine = lineOfNumber.get(row.number);
  if (row.number && firstLine !== undefined)
    return { line, reason: 'sameNumber', cell: row.number, firstLine };
  if (row.email && !z.email().safeParse(row.email).success)
    return { line, reason: 'badEmail', cell: row.email };
  return null;
}
