import { kindNamed, type KindName, type Question } from '../../kinds';
import { optionLetter } from '../../kinds/options';
import { pointsFrom } from '../../marking/typedPoints';
import { plainText } from '../../model/richText';
import type { TableRow } from '../csv/table';
import { sheetKindCalled, sheetKinds, sheetOf } from './kinds';
import type { QuestionColumn } from './questionColumns';
import { Unreadable, type BadReason, type RowCells } from './SheetKind';

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
    meanings.flatMap((each, column) => (each === meaning ? [unguarded(row.cells[column] ?? '')] : []));
  const cell = (meaning: QuestionColumn) => cells(meaning)[0] ?? '';
  const stem = cell('stem');
  if (!stem) throw new Unreadable('noStem', '');
  const own: RowCells = { options: cells('option').filter(Boolean), key: cell('key') };
  const kind = kindOfRow(cell('kind'), own);
  const form = sheetOf(kind);
  if (!form) throw new Unreadable('unknownKind', cell('kind'));
  const empty = kindNamed(kind).empty(newId);
  const points = cell('points') ? pointsFrom(cell('points')) : empty.points;
  if (points === null || points < 0 || points > 1000) throw new Unreadable('badPoints', cell('points'));
  const tags = cell('tags')
    .split(/[,;]/)
    .map((tag) => tag.trim())
    .filter(Boolean);
  return {
    ...form.read(empty, own, newId),
    stem,
    points,
    tags: [...new Set(tags)].slice(0, 50),
    commentRight: cell('commentRight'),
    commentWrong: cell('commentWrong'),
  };
}

/** What a row is called or, without a name, seems to be from its options and key alone. */
function kindOfRow(called: string, cells: RowCells): KindName {
  const kind = called ? sheetKindCalled(called) : sheetKinds.find((name) => sheetOf(name)?.suits(cells));
  if (!kind) throw new Unreadable('unknownKind', called);
  return kind;
}

/** A cell without the apostrophe that keeps a spreadsheet from taking it for a formula. */
function unguarded(cell: string): string {
  return cell.replace(/^'(?=[=+\-@\t\r])/, '');
}

/** What of a paper a sheet holds, and what it cannot. */
export interface QuestionTable {
  rows: (string | number | null)[][];
  /** Questions of kinds that no row can hold, or that lose something in one. */
  left: Question[];
}

/** Questions as the rows of a sheet, with a header, so that they can be read in again. */
export function questionTable(questions: readonly Question[]): QuestionTable {
  const held = questions.filter((question) => holdsInRow(question));
  const widest = Math.max(
    0,
    ...held.map((question) => ('options' in question ? question.options.length : 0)),
  );
  const letters = Array.from({ length: widest }, (_, index) => `Option ${optionLetter(index)}`);
  const header = ['Kind', 'Question', ...letters, 'Key', 'Points', 'Comment when right', 'Comment', 'Tags'];
  const rows = held.map((question) => {
    const options = 'options' in question ? question.options.map((option) => plainText(option.text)) : [];
    return [
      kindNamed(question.kind).label,
      plainText(question.stem),
      ...letters.map((_, index) => options[index] ?? null),
      sheetOf(question.kind)?.keyCell(question) ?? null,
      question.points,
      question.commentRight || null,
      question.commentWrong || null,
      question.tags.join(', ') || null,
    ];
  });
  return { rows: [header, ...rows], left: questions.filter((question) => !held.includes(question)) };
}

/** Whether a row can hold all that scores a question. Notes, per-option comments and links stay on the desk. */
function holdsInRow(question: Question): boolean {
  const form = sheetOf(question.kind);
  return form !== undefined && typeof question.stem === 'string' && !question.working && form.holds(question);
}
