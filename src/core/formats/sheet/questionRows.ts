import { kindNamed, type KindName, type Question } from '../../kinds';
import { optionLetter } from '../../kinds/optionLetter';
import type { SchemeLine } from '../../kinds/schemeLine';
import { pointsFrom } from '../../marking/typedPoints';
import { plainText } from '../../basics/richWords';
import type { TableRow } from '../csv/table';
import { sheetKindCalled, sheetKinds, sheetOf } from './kinds';
import type { QuestionColumn } from './questionColumns';
import { Unreadable, type BadReason, type RowCells } from '../../kinds/sheet/SheetKind';

/** A row that is no question, and why; `cell` is what could not be used. */
export interface BadQuestionRow {
  line: number;
  reason: BadReason;
  cell: string;
}

export interface QuestionRows {
  good: { line: number; question: Question }[];
  bad: BadQuestionRow[];
}

/**
 * Questions from the rows of a sheet. With options a row is one choice, or several choices where its key names
 * several; without, its key makes it true or false, a number, a short text, or without a key an open text. A column
 * of kinds, where there is one, decides instead.
 *
 * @param meanings one a column
 */
export function questionRows(
  rows: readonly TableRow[],
  meanings: readonly QuestionColumn[],
  newId: () => string,
): QuestionRows {
  const read: QuestionRows = { good: [], bad: [] };
  for (const row of rows) {
    try {
      read.good.push({ line: row.line, question: questionFrom(row, meanings, newId) });
    } catch (error) {
      if (!(error instanceof Unreadable)) throw error;
      read.bad.push({ line: row.line, reason: error.reason, cell: error.cell });
    }
  }
  return read;
}

function questionFrom(row: TableRow, meanings: readonly QuestionColumn[], newId: () => string): Question {
  const cells = (meaning: QuestionColumn) =>
    meanings.flatMap((each, column) => (each === meaning ? [row.cells[column] ?? ''] : []));
  const cell = (meaning: QuestionColumn) => cells(meaning)[0] ?? '';
  const stem = cell('stem');
  const own: RowCells = { options: cells('option').filter(Boolean), key: cell('key') };
  const kind = kindOfRow(cell('kind'), own);
  // A text with gaps asks by itself.
  if (!stem && kind !== 'gaps') throw new Unreadable('noStem', '');
  const empty = kindNamed(kind).empty(newId);
  const points = cell('points') ? pointsFrom(cell('points')) : empty.points;
  if (points === null || points < 0 || points > 1000) throw new Unreadable('badPoints', cell('points'));
  const tags = tagsIn(cell('tags'));
  const read = sheetOf(kind).read(empty, own, newId);
  return keepable({
    ...(kindNamed(kind).withScheme?.(read, schemeFrom(cell('scheme'), newId)) ?? read),
    stem,
    points,
    tags: [...new Set(tags)],
    commentRight: cell('commentRight'),
    commentWrong: cell('commentWrong'),
  });
}

/** A question that the desk can keep: what is shown as good is. */
function keepable(question: Question): Question {
  const checked = kindNamed(question.kind).schema.safeParse(question);
  if (checked.success) return checked.data;
  const [issue] = checked.error.issues;
  const value = (issue?.path ?? []).reduce<unknown>(
    (inside, step) => (inside as Record<PropertyKey, unknown> | undefined)?.[step],
    question,
  );
  if (Array.isArray(value)) throw new Unreadable('tooMany', String(issue?.path.at(-1) ?? ''));
  throw new Unreadable('tooLong', shortened(String(value)));
}

const shortened = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text);

/** "tides, streams"; by semicolons where a tag has a comma of its own: "speed, time, distance; tides". */
const tagsIn = (cell: string) =>
  cell
    .split(cell.includes(';') ? ';' : ',')
    .map((tag) => tag.trim())
    .filter(Boolean);

function tagsCell(tags: readonly string[]): string {
  if (!tags.some((tag) => tag.includes(','))) return tags.join(', ');
  return `${tags.join('; ')}${tags.length === 1 ? ';' : ''}`;
}

/** "A named light (1); its bearing (0.5)" */
function schemeFrom(cell: string, newId: () => string): SchemeLine[] {
  return cell
    .split(/;|\n/)
    .map((line) => line.trim())
    .filter(Boolean)
    .map((line) => {
      const [, text = '', typed = ''] = /^(.*\S)\s*\(([^()]*)\)$/s.exec(line) ?? [];
      const points = pointsFrom(typed.replace(/^[-−]/, ''));
      if (points === null || points > 1000) throw new Unreadable('badScheme', shortened(line));
      return { id: newId(), text, points: /^[-−]/.test(typed) ? -points : points };
    });
}

const schemeCell = (scheme: readonly SchemeLine[]) =>
  scheme
    .filter(({ text }) => text.trim())
    .map(({ text, points }) => `${text} (${points})`)
    .join('; ');

/** What a row is called or, without a name, seems to be from its options and key alone. */
function kindOfRow(called: string, cells: RowCells): KindName {
  const kind = called ? sheetKindCalled(called) : sheetKinds.find((name) => sheetOf(name)?.suits(cells));
  if (!kind) throw new Unreadable('unknownKind', called);
  return kind;
}

/** A question that a row cannot hold, and the fields that would be lost or become others. */
export interface LeftQuestion {
  question: Question;
  fields: string[];
}

/** What of a paper a sheet holds, and what it cannot. */
export interface QuestionTable {
  rows: (string | number | null)[][];
  left: LeftQuestion[];
}

/**
 * Questions as the rows of a sheet, with a heading, so that they can be read in again. A question of which something that
 * scores it or is asked would be lost is left out: that is found by reading its row again.
 */
export function questionTable(questions: readonly Question[]): QuestionTable {
  const held: SheetRow[] = [];
  const left: LeftQuestion[] = [];
  for (const question of questions) {
    const row = rowOf(question);
    const fields = lostFields(question, row);
    if (fields.length === 0) held.push(row);
    else left.push({ question, fields });
  }
  const columns = columnsOf(Math.max(0, ...held.map(({ option }) => option.length)));
  const rows = held.map((row) => columns.map(({ cell }) => cell(row) || null));
  return { rows: [columns.map(({ name }) => name), ...rows], left };
}

/** What stands in the row of a question, by the meaning of its column. */
interface SheetRow extends Record<Exclude<QuestionColumn, 'option' | 'points' | 'nothing'>, string> {
  option: readonly string[];
  points: number;
}

interface SheetColumn {
  name: string;
  meaning: QuestionColumn;
  cell: (row: SheetRow) => string | number;
}

function columnsOf(options: number): SheetColumn[] {
  const plain = (meaning: Exclude<QuestionColumn, 'option' | 'nothing'>, name: string): SheetColumn => ({
    name,
    meaning,
    cell: (row) => row[meaning],
  });
  return [
    plain('kind', 'Kind'),
    plain('stem', 'Question'),
    ...Array.from({ length: options }, (_, index): SheetColumn => ({
      name: `Option ${optionLetter(index)}`,
      meaning: 'option',
      cell: ({ option }) => option[index] ?? '',
    })),
    plain('key', 'Key'),
    plain('scheme', 'Mark scheme'),
    plain('points', 'Points'),
    plain('commentRight', 'Comment when right'),
    plain('commentWrong', 'Comment'),
    plain('tags', 'Tags'),
  ];
}

function rowOf(question: Question): SheetRow {
  const { options, key } = sheetOf(question.kind).cells(question);
  return {
    kind: kindNamed(question.kind).label,
    stem: plainText(question.stem),
    option: options,
    key,
    scheme: schemeCell(kindNamed(question.kind).scheme?.(question) ?? []),
    points: question.points,
    commentRight: question.commentRight,
    commentWrong: question.commentWrong,
    tags: tagsCell(question.tags),
  };
}

/** What stays on the desk when a question goes out as a row, and is said of all of them. */
const staysHere = new Set([
  'id',
  'note',
  'link',
  'partId',
  'bankId',
  'hints',
  'commentPart',
  'commentTrue',
  'commentFalse',
]);

/** The fields that reading a row again does not give back as they were. */
function lostFields(question: Question, row: SheetRow): string[] {
  const columns = columnsOf(row.option.length);
  const cells = columns.map(({ cell }) => String(cell(row)).trim());
  let ids = 0;
  const again = questionRows(
    [{ line: 1, cells }],
    columns.map(({ meaning }) => meaning),
    () => `again${ids++}`,
  ).good[0]?.question;
  if (!again) return ['kind'];
  const [before, after] = [plainFields(question), plainFields(again)];
  return [...new Set([...Object.keys(before), ...Object.keys(after)])].filter(
    (field) => !staysHere.has(field) && JSON.stringify(before[field]) !== JSON.stringify(after[field]),
  );
}

/** The fields of a question with ids that only say which is which, and without comments on single options. */
function plainFields(question: Question): Record<string, unknown> {
  const { scheme, ...rest } = question as Question & { scheme?: SchemeLine[] };
  const written = scheme?.filter(({ text }) => text.trim());
  const fields = { ...rest, ...(written && { scheme: written }) };
  const names = new Map<string, string>();
  named(fields, names);
  const plain = (value: unknown): unknown => {
    if (Array.isArray(value)) {
      const inside = value.map(plain);
      // A list of words or ids, as tags and keys are, says the same in any order.
      return inside.every((each) => typeof each === 'string') ? inside.sort() : inside;
    }
    if (typeof value === 'string') return names.get(value) ?? value.trim();
    if (typeof value === 'number') return Math.round(value * 10_000) / 10_000;
    return value !== null && typeof value === 'object' ? plainEntries(value) : value;
  };
  const plainEntries = (value: object): Record<string, unknown> =>
    Object.fromEntries(
      sortedEntries(value)
        .filter(([name]) => name !== 'comment')
        .map(([name, each]): [string, unknown] => [names.get(name) ?? name, plain(each)])
        .sort(([a], [b]) => (a < b ? -1 : 1)),
    );
  return plainEntries(fields);
}

/** Numbers the ids in what is said of a question, in the order in which they are met. */
function named(value: unknown, names: Map<string, string>): void {
  if (value === null || typeof value !== 'object') return;
  if ('id' in value && typeof value.id === 'string' && !names.has(value.id))
    names.set(value.id, `#${names.size}`);
  for (const [, inside] of Array.isArray(value) ? value.entries() : sortedEntries(value))
    named(inside, names);
}

const sortedEntries = (value: object): [string, unknown][] =>
  Object.entries(value).sort(([a], [b]) => (a < b ? -1 : 1));
