import { z } from 'zod';
import { CommandFault } from '@/core/model/commandFault';
import { bodyOf } from '@/core/formats/csv/heading';
import type { TableRow } from '@/core/formats/csv/table';
import { ColumnRole, type AnswerColumns } from '@/core/intake/columns';
import { paperFromSheet, type BadKey, type ColumnChoices } from '@/core/intake/sheetPaper';
import { sheetPlan, type PlannedRow, type SeveralRows } from '@/core/intake/sheetPlan';
import { answerRows, type AnswerRows, type BadCell } from '@/core/intake/sheetRows';
import { dayOrderOf, type DayOrder } from '@/core/intake/times';
import { itemsOf } from '@/core/kinds/items';
import type { Finding } from '@/core/basics/common';
import { kindOf, type Question } from '@/core/kinds';
import { newId } from './ids';
import { paperOf } from './queries';
import { desk } from './tables';

/** Where the answers of a sheet go. */
export type SheetInto =
  | { is: 'newPaper'; title: string }
  | { is: 'paper'; paperId: string; title: string }
  | { is: 'sitting'; sittingId: string };

/** What the teacher says of a sheet of answers. */
export interface SheetChoices {
  into: SheetInto;
  columns: AnswerColumns;
  /** Which row has the right answers, from 0; null: none. */
  keyRow: number | null;
  /** Of questions that are made, by column. */
  made: Record<number, ColumnChoices>;
  /** How dates are read that can be read either way. */
  dayOrder: DayOrder;
  several: SeveralRows;
}

export interface Understood {
  questions: Question[];
  badKeys: BadKey[];
  bad: BadCell[];
  planned: PlannedRow[];
}

/** What a sheet would bring, before anything is kept. */
export interface SheetLook extends Understood {
  /** Whether dates in it can be read either way. */
  datesEitherWay: boolean;
  /** Questions that cannot be made so: a choice without a second option. */
  stops: Finding[];
  /** The groups of the students that were found, with how many of them each has. */
  groups: { groupId: string; students: number }[];
}

/** The questions that answers are read by, of the paper they go into; null where it is made from the sheet. */
export async function questionsFor(into: SheetInto): Promise<Question[] | null> {
  if (into.is === 'newPaper') return null;
  if (into.is === 'paper') {
    const paper = await desk.papers.get(into.paperId);
    if (!paper) throw new CommandFault('paperGone');
    return itemsOf(paper.questions);
  }
  const sitting = await desk.sittings.get(into.sittingId);
  const paper = sitting && (await paperOf(sitting));
  if (!paper) throw new CommandFault('sittingOrStudentGone');
  return itemsOf(paper.questions);
}

/** Understands a sheet of answers against what is on the desk now; nothing is changed. */
export async function lookAtSheet(rows: readonly TableRow[], choices: SheetChoices): Promise<SheetLook> {
  const understood = await understand(rows, choices);
  const { roles, heading } = choices.columns;
  const dates = timeCells(bodyOf(rows, heading), roles);
  const known = understood.planned.flatMap(({ owner }) => (owner.is === 'known' ? [owner.studentId] : []));
  const counts = new Map<string, number>();
  for (const student of await desk.students.bulkGet([...new Set(known)]))
    for (const id of student?.groupIds ?? []) counts.set(id, (counts.get(id) ?? 0) + 1);
  return {
    ...understood,
    stops: choices.into.is === 'newPaper' ? understood.questions.flatMap(stopsIn) : [],
    datesEitherWay:
      dates.some((cell) => /^\d{1,2}[./-]\d{1,2}[./-]/.test(cell.trim())) && dayOrderOf(dates) === null,
    groups: [...counts]
      .map(([groupId, students]) => ({ groupId, students }))
      .sort((a, b) => b.students - a.students),
  };
}

const stopsIn = (question: Question): Finding[] =>
  kindOf(question)
    .findings(question)
    .filter(({ level }) => level === 'stops');

/** What a sheet says, held against what is on the desk now. */
export async function understand(rows: readonly TableRow[], choices: SheetChoices): Promise<Understood> {
  const { into, columns, several } = choices;
  const { questions, badKeys, read } = parsed(rows, choices, await questionsFor(into));
  const sittingId = into.is === 'sitting' ? into.sittingId : null;
  const [students, attempts, marks] = await Promise.all([
    desk.students.toArray(),
    sittingId === null ? [] : desk.attempts.where({ sittingId }).toArray(),
    sittingId === null ? [] : desk.marks.where({ sittingId }).toArray(),
  ]);
  const asked = askedIn(columns.roles, questions);
  const planned = sheetPlan(read.rows, several, students, sittingId, { attempts, marks }, asked);
  return { questions, badKeys, bad: read.bad, planned };
}

interface Parsed {
  questions: Question[];
  badKeys: BadKey[];
  read: AnswerRows;
}

/** The sheet that was parsed last: it is looked at before it is kept, and a million cells are read once. */
let last: { rows: readonly TableRow[]; by: string; is: Parsed } | null = null;

function parsed(
  rows: readonly TableRow[],
  { columns, keyRow, made, dayOrder }: SheetChoices,
  existing: Question[] | null,
): Parsed {
  const by = JSON.stringify([columns, keyRow, made, dayOrder, existing]);
  if (last?.rows === rows && last.by === by) return last.is;
  const key = keyRow === null ? null : (rows[keyRow] ?? null);
  const theirs = bodyOf(rows, columns.heading).filter((row) => row !== key);
  const { questions, badKeys } = existing
    ? { questions: existing, badKeys: [] }
    : paperFromSheet(theirs, columns, key, made, newId);
  const order = dayOrderOf(timeCells(theirs, columns.roles)) ?? dayOrder;
  const is = { questions, badKeys, read: answerRows(theirs, columns, questions, order) };
  last = { rows, by, is };
  return is;
}

const timeCells = (rows: readonly TableRow[], roles: readonly ColumnRole[]): string[] => {
  const columns = roles.flatMap(({ is }, column) =>
    is === 'startedAt' || is === 'handedInAt' ? [column] : [],
  );
  return rows.flatMap(({ cells }) => columns.map((column) => cells[column] ?? ''));
};

/** The questions that the sheet has a column for: of the others it says nothing. */
function askedIn(roles: readonly ColumnRole[], questions: readonly Question[]): Question[] {
  const asked = new Set(roles.flatMap((role) => (role.is === 'answers' ? [role.questionId] : [])));
  return questions.filter(({ id }) => asked.has(id));
}

const columnsKey = (sittingId: string) => `sheetColumns ${sittingId}`;
const KeptColumns = z.record(z.string(), ColumnRole);

/** Keeps how the columns of a sheet were read, by their names, for the next one that comes into the sitting. */
export async function keepColumns(sittingId: string, { names, roles }: AnswerColumns): Promise<void> {
  const value = Object.fromEntries(
    names.flatMap((name, column) => (roles[column] ? [[name, roles[column]]] : [])),
  );
  await desk.settings.put({ key: columnsKey(sittingId), value });
}

/** The columns as those of the same names were read the last time. */
export async function asKept(sittingId: string, columns: AnswerColumns): Promise<AnswerColumns> {
  const kept = KeptColumns.safeParse((await desk.settings.get(columnsKey(sittingId)))?.value).data ?? {};
  return {
    ...columns,
    roles: columns.roles.map((role, column) => kept[columns.names[column] ?? ''] ?? role),
  };
}
