import { mostText } from '../basics/mostText';
import { kindOf, type Question, type Response } from '../kinds';
import { pointsFrom } from '../marking/typedPoints';
import { studentFrom, type ReadRow } from '../formats/csv/studentRows';
import type { TableRow } from '../formats/csv/table';
import type { AnswerColumns, ColumnRole } from './columns';
import { instantFrom, type DayOrder } from './times';

/** A cell that could not be used. The rest of its row can. */
export interface BadCell {
  line: number;
  column: number;
  cell: string;
  why: 'noAnswer' | 'noPoints' | 'tooManyPoints' | 'noTime' | 'tooLong';
}

/** One row of a sheet of answers, as it was understood. */
export interface AnswerRow {
  /** The line of the sheet. */
  line: number;
  person: ReadRow;
  /** By question; blank ones are not there. */
  answers: Record<string, Response>;
  /** The questions whose cells hold what can be no answer. */
  unread: string[];
  /** Points that somebody gave already, by question. */
  points: Record<string, number>;
  startedAt: string | null;
  handedInAt: string | null;
}

export interface AnswerRows {
  rows: AnswerRow[];
  bad: BadCell[];
}

/**
 * The rows of a sheet of answers. A cell that can be no answer to its question is left out and said; a blank one is not answered.
 *
 * @param rows without heading and key
 * @param questions by which the answers are read
 */
export function answerRows(
  rows: readonly TableRow[],
  { roles, names }: AnswerColumns,
  questions: readonly Question[],
  order: DayOrder,
): AnswerRows {
  const byId = new Map(questions.map((question) => [question.id, question]));
  const people = roles.map(({ is }) =>
    is === 'answers' || is === 'points' || is === 'startedAt' || is === 'handedInAt'
      ? ('nothing' as const)
      : is,
  );
  const read: AnswerRows = { rows: [], bad: [] };
  for (const row of rows) {
    const is: AnswerRow = {
      line: row.line,
      person: studentFrom(row, people, names),
      answers: {},
      unread: [],
      points: {},
      startedAt: null,
      handedInAt: null,
    };
    for (const [column, role] of roles.entries()) {
      const cell = (row.cells[column] ?? '').trim();
      const why = cell && take(is, role, cell, byId, order);
      if (why) read.bad.push({ line: row.line, column, cell: cell.slice(0, 60), why });
    }
    read.rows.push(is);
  }
  return read;
}

/** What was read, by question and cell: of ten thousand picks there are few that differ. */
const known = new WeakMap<Question, Map<string, Response | null>>();
/** Of one question no more are held: words of one's own are all different. */
const mostHeld = 500;

function readAs(question: Question, cell: string): Response | null {
  const held = known.get(question) ?? new Map<string, Response | null>();
  if (held.size === 0) known.set(question, held);
  const before = held.get(cell);
  if (before !== undefined) return before;
  const response = kindOf(question).fromText(question, cell);
  if (held.size < mostHeld) held.set(cell, response);
  return response;
}

/** Puts what a cell says into its row. @returns why it cannot be used */
function take(
  row: AnswerRow,
  role: ColumnRole,
  cell: string,
  questions: ReadonlyMap<string, Question>,
  order: DayOrder,
): BadCell['why'] | null {
  if (role.is === 'startedAt' || role.is === 'handedInAt') {
    row[role.is] = instantFrom(cell, order);
    return row[role.is] === null ? 'noTime' : null;
  }
  if (role.is !== 'answers' && role.is !== 'points') return null;
  const question = questions.get(role.questionId);
  if (!question) return null;
  if (role.is === 'points') {
    const points = pointsFrom(cell.replace(/\s*\/\s*\d+([.,]\d+)?$/, ''));
    if (points === null || points < 0) return 'noPoints';
    // More than there are is not given in passing: it wants a reason, in Mark.
    if (points > question.points) return 'tooManyPoints';
    row.points[question.id] = points;
    return null;
  }
  const response = cell.length > mostText ? null : readAs(question, cell);
  if (response) row.answers[question.id] = response;
  else row.unread.push(question.id);
  return response ? null : cell.length > mostText ? 'tooLong' : 'noAnswer';
}
