import { z } from 'zod';
import { forgiveAll, forgiven } from '../kinds/forgiving';
import type { Question } from '../kinds';
import { plainText } from '../basics/richWords';
import { bodyOf } from '../formats/csv/heading';
import {
  columnMeanings,
  looksLikeEmail,
  meaningOfHeader,
  type ColumnMeaning,
} from '../formats/csv/studentColumns';
import type { TableRow } from '../formats/csv/table';

/** What a column of a sheet of answers holds. */
export const ColumnRole = z.discriminatedUnion('is', [
  z.object({ is: z.enum([...columnMeanings, 'startedAt', 'handedInAt']) }),
  /** Answers to a question, or points that somebody gave for them. */
  z.object({ is: z.enum(['answers', 'points']), questionId: z.string() }),
]);
export type ColumnRole = z.infer<typeof ColumnRole>;

/** How a sheet of answers is read. */
export interface AnswerColumns {
  /** Which row names the columns, from 0; those above it are left out. Null where none does. */
  heading: number | null;
  names: string[];
  /** One a column. */
  roles: ColumnRole[];
}

/**
 * What each column seems to hold; the teacher can change it.
 *
 * @param questions of the paper the answers are to; null: the paper is made from the sheet
 * @param idFor the id of the question that a column makes, where the paper is made from the sheet
 * @param chosen which row names the columns, where the teacher said so
 */
export function guessAnswerColumns(
  rows: readonly TableRow[],
  questions: readonly Question[] | null,
  idFor: (column: number) => string,
  chosen?: number | null,
): AnswerColumns {
  const heading = chosen === undefined ? guessHeading(rows) : chosen;
  const width = Math.max(0, ...rows.map(({ cells }) => cells.length));
  const titles = heading === null ? [] : (rows[heading]?.cells ?? []);
  const columns = Array.from({ length: width }, (_, column) => ({
    column,
    title: titles[column] ?? '',
    cells: bodyOf(rows, heading).map(({ cells }) => cells[column] ?? ''),
  }));
  const roles: ColumnRole[] = once(columns.map(({ title, cells }) => ownRole(title, cells)));
  withQuestions(columns, roles, questions, idFor);
  return {
    heading,
    names: columns.map(({ title, column }) => title || `Column ${column + 1}`),
    roles,
  };
}

/** A row whose cells name things that its columns do not hold: each is another one, and hardly any stands below it. */
function guessHeading(rows: readonly TableRow[]): number | null {
  const [first, ...rest] = rows;
  if (!first || rest.length === 0) return null;
  const cells = first.cells.filter(Boolean);
  const known = cells.filter((cell) => personOf(cell) !== 'nothing' || timeOf(cell) !== null).length;
  if (cells.some(looksLikeEmail)) return null;
  if (known > 1) return 0;
  if (new Set(cells).size < cells.length) return null;
  const below = first.cells.filter(
    (cell, column) =>
      cell &&
      rest.some((row) => forgiven(row.cells[column] ?? '', forgiveAll) === forgiven(cell, forgiveAll)),
  );
  return cells.length > 1 && below.length * 5 <= cells.length ? 0 : null;
}

/** Names of columns are short, or ask for one's own; a question that has "name" in it is none. */
function personOf(title: string): ColumnMeaning {
  const own = title.replace(/^(what(\sis|[’']s)\s)?(your|my)\s+(.*?)\??$/i, '$4');
  return own.length > 30 || own.includes('?') || own.split(/\s+/).length > 4
    ? 'nothing'
    : meaningOfHeader(own);
}

function timeOf(title: string): 'startedAt' | 'handedInAt' | null {
  if (title.length > 30 || title.includes('?')) return null;
  const plain = title.toLowerCase();
  if (/^(start(ed)?|began|begin|opened)\b/.test(plain)) return 'startedAt';
  return /^(time ?stamp|date|time|submitted|completed|completion|finished|handed in|end(ed)?)\b/.test(plain)
    ? 'handedInAt'
    : null;
}

/** "Points", "Q1 [score]", "Question 2 - points": points somebody gave for the answers beside or named before it. */
const pointsTitle = /(^|[[(\-–:\s])(points|scores?|marks?)[\])]?$/i;
/** What is summed up of an attempt is computed here. */
const summedUp =
  /^(total|sum|overall|final)?\s*(points|scores?|marks?|grades?|percent(age)?|result|%)?(\s*\(?(out of|\/)\s*\d+\)?)?$/i;

function ownRole(title: string, cells: readonly string[]): ColumnRole {
  const filled = cells.filter(Boolean);
  if (filled.length === 0) return { is: 'nothing' };
  if (filled.filter(looksLikeEmail).length * 2 > filled.length) return { is: 'email' };
  const time = timeOf(title);
  if (time) return { is: time };
  // A date with a time of day, whatever the column is called, is when the row came.
  if (filled.filter(looksLikeInstant).length * 2 > filled.length) return { is: 'handedInAt' };
  const person = personOf(title);
  return { is: person };
}

const looksLikeInstant = (cell: string) => /^\d{1,4}[./-]\d{1,2}[./-]\d{1,4},?[ T]+\d{1,2}:\d{2}/.test(cell);

/** Every role of a person at most once: the first column that claims it has it. */
function once(roles: readonly ColumnRole[]): ColumnRole[] {
  return roles.map((role, column) =>
    roles.findIndex(({ is }) => is === role.is) === column ? role : { is: 'nothing' },
  );
}

interface Column {
  column: number;
  title: string;
  cells: readonly string[];
}

/** Gives the columns that are nobody's to the questions. */
function withQuestions(
  columns: readonly Column[],
  roles: ColumnRole[],
  questions: readonly Question[] | null,
  idFor: (column: number) => string,
): void {
  const open = columns.filter(({ column, cells }) => roles[column]?.is === 'nothing' && cells.some(Boolean));
  const asked = open.filter(
    ({ title }) => title === '' || !(summedUp.test(title) || pointsTitle.test(title)),
  );
  if (questions === null)
    for (const { column } of asked) roles[column] = { is: 'answers', questionId: idFor(column) };
  else
    for (const [column, questionId] of matchedQuestions(asked, questions))
      roles[column] = { is: 'answers', questionId };
  // Points belong to the answers that their title names, else to the answers before them.
  for (const { column, title } of open) {
    if (!pointsTitle.test(title) || (summedUp.test(title) && column === 0)) continue;
    const before = roles.slice(0, column).findLast((role) => role.is === 'answers');
    const named = columns.find(
      (other) =>
        other.title !== '' &&
        roles[other.column]?.is === 'answers' &&
        title.toLowerCase().startsWith(other.title.toLowerCase()),
    );
    const role = named ? roles[named.column] : roles[column - 1]?.is === 'answers' ? before : undefined;
    if (role?.is === 'answers') roles[column] = { is: 'points', questionId: role.questionId };
  }
}

const plain = (text: string) => forgiven(text, { ...forgiveAll, punctuation: true });

/** Columns and questions: by their words, by a number in the title, and what is left by order where it comes out even. */
function matchedQuestions(columns: readonly Column[], questions: readonly Question[]): Map<number, string> {
  const found = new Map<number, string>();
  const left = new Set(questions.map(({ id }) => id));
  const give = (column: number, id: string | undefined) => {
    if (id === undefined || !left.has(id)) return;
    found.set(column, id);
    left.delete(id);
  };
  const words = new Map(questions.map((question) => [question.id, plain(plainText(question.stem))]));
  for (const { column, title } of columns) {
    const said = plain(title.replace(/^\s*(q(uestion)?\s*)?\d{1,3}\s*[.):-]\s*/i, ''));
    if (said.length < 3) continue;
    const same = [...words].filter(([, stem]) => stem === said);
    const near = [...words].filter(
      ([, stem]) => said.length >= 8 && stem.length >= 8 && (stem.startsWith(said) || said.startsWith(stem)),
    );
    give(column, (same.length > 0 ? same : near.length === 1 ? near : [])[0]?.[0]);
  }
  for (const { column, title } of columns) {
    const number = /^\s*(?:q(?:uestion)?\s*)?(\d{1,3})\s*[.):-]?\s*$/i.exec(title)?.[1];
    if (number !== undefined && !found.has(column)) give(column, questions[Number(number) - 1]?.id);
  }
  const open = columns.filter(({ column }) => !found.has(column));
  if (open.length === left.size) for (const { column } of open) give(column, [...left][0]);
  return found;
}
