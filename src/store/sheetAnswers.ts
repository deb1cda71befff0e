import { z } from 'zod';
import { CommandFault } from '@/core/model/commandFault';
import { bodyOf } from '@/core/formats/csv/heading';
import type { TableRow } from '@/core/formats/csv/table';
import { broughtAgain, broughtAttempt } from '@/core/intake/broughtAttempt';
import { ColumnRole, type AnswerColumns } from '@/core/intake/columns';
import { paperFromSheet, type BadKey, type ColumnChoices } from '@/core/intake/sheetPaper';
import { rowName, sheetPlan, type PlannedRow, type SeveralRows } from '@/core/intake/sheetPlan';
import { answerRows, type AnswerRows, type BadCell } from '@/core/intake/sheetRows';
import { dayOrderOf, type DayOrder } from '@/core/intake/times';
import { itemsOf } from '@/core/kinds/items';
import type { Finding } from '@/core/basics/common';
import { kindOf, type Question } from '@/core/kinds';
import { HandMark, ownMarker } from '@/core/model/mark';
import { Paper } from '@/core/model/paper';
import { Group, Student } from '@/core/model/people';
import type { Attempt } from '@/core/model/sitting';
import { Sitting } from '@/core/model/sitting';
import { done } from '@/words/done';
import { runCommand, type Recorder } from './command';
import { newId } from './ids';
import { freezePaper } from './papers';
import { freshStudent } from './people';
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

/** Where people go who are not on the desk yet. */
export type NewPeople =
  { are: 'guests' } | { are: 'students'; groupId: string } | { are: 'students'; groupName: string };

interface Understood {
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

async function understand(rows: readonly TableRow[], choices: SheetChoices): Promise<Understood> {
  const { into, columns, several } = choices;
  const { questions, badKeys, read } = parsed(rows, choices, await questionsFor(into));
  const sittingId = into.is === 'sitting' ? into.sittingId : null;
  const [students, attempts] = await Promise.all([
    desk.students.toArray(),
    sittingId === null ? [] : desk.attempts.where({ sittingId }).toArray(),
  ]);
  const asked = askedIn(columns.roles, questions);
  const planned = sheetPlan(read.rows, several, students, sittingId, attempts, asked);
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

/** What was brought in. */
export interface Brought {
  sittingId: string;
  attempts: number;
}

/**
 * Brings a sheet of answers in, in one step: the paper where it is made from it, the sitting where it is a new one, the people who are
 * not on the desk yet, their attempts, and points that somebody gave. Rows whose student can't be told from another are left
 * out. Brought in again, only what is new or changed; earlier answers are kept as such.
 *
 * @param progress told how many of the rows are kept
 */
export async function bringAnswers(
  rows: readonly TableRow[],
  choices: SheetChoices,
  people: NewPeople,
  groupIds: readonly string[],
  now: string,
  progress: (done: number, of: number) => void = () => undefined,
) {
  const sittingId = choices.into.is === 'sitting' ? choices.into.sittingId : newId();
  let kept = 0;
  return runCommand(
    {
      command: 'bringAnswers',
      about: sittingId,
      // How many there were is known once they are kept.
      get said() {
        return done.sheetImported(kept);
      },
    },
    now,
    async (record): Promise<Brought> => {
      const { questions, planned } = await understand(rows, choices);
      const taken = planned.filter(({ becomes }) => becomes === 'new' || becomes === 'changed');
      kept = taken.length;
      const groupId = await groupFor(record, people, now);
      const sitting = await sittingFor(
        record,
        choices.into,
        sittingId,
        questions,
        taken,
        groupId,
        groupIds,
        now,
      );
      const studentOf = await studentsFor(record, taken, groupId, sitting.id);
      await keepAttempts(record, taken, questions, sitting, studentOf, now, progress);
      return { sittingId: sitting.id, attempts: taken.length };
    },
  );
}

/** The group that new people go into; null: they are guests. */
async function groupFor(record: Recorder, people: NewPeople, now: string): Promise<string | null> {
  if (people.are === 'guests') return null;
  if ('groupId' in people) return people.groupId;
  const group = Group.parse({ id: newId(), name: people.groupName.trim(), createdAt: now });
  await record.add('groups', group);
  return group.id;
}

async function sittingFor(
  record: Recorder,
  into: SheetInto,
  sittingId: string,
  questions: readonly Question[],
  taken: readonly PlannedRow[],
  groupId: string | null,
  groupIds: readonly string[],
  now: string,
): Promise<Sitting> {
  const all = [...new Set([...groupIds, ...(groupId === null ? [] : [groupId])])];
  const most = Math.max(1, ...taken.map(({ number }) => number));
  if (into.is === 'sitting') {
    const sitting = await desk.sittings.get(into.sittingId);
    const paper = sitting && (await desk.papers.get(sitting.paperId));
    if (!sitting || !paper) throw new CommandFault('sittingOrStudentGone');
    const paperVersion = sitting.paperVersion ?? (await freezePaper(record, paper, now)).version;
    const attempts = Math.min(50, Math.max(sitting.attempts ?? 1, most));
    const next: Sitting = {
      ...sitting,
      paperVersion,
      groupIds: [...new Set([...sitting.groupIds, ...all])],
      ...(attempts > 1 && { attempts }),
    };
    await record.put('sittings', next);
    return next;
  }
  const paper = await paperFor(record, into, questions, now);
  const { version } = await freezePaper(record, paper, now);
  const times = taken.flatMap(({ row }) => [row.startedAt ?? [], row.handedInAt ?? []].flat()).sort();
  const opensAt = times[0] ?? now;
  const sitting = Sitting.parse({
    id: sittingId,
    paperId: paper.id,
    paperVersion: version,
    title: into.title.trim() || paper.title,
    groupIds: all,
    opensAt,
    closesAt: times.at(-1) ?? now,
    timeLimitMs: null,
    accessCode: '',
    ...(most > 1 && { attempts: Math.min(50, most) }),
    closedToStartsAt: now,
    createdAt: now,
  } satisfies Sitting);
  await record.add('sittings', sitting);
  return sitting;
}

async function paperFor(
  record: Recorder,
  into: Exclude<SheetInto, { is: 'sitting' }>,
  questions: readonly Question[],
  now: string,
): Promise<Paper> {
  if (into.is === 'paper') {
    const paper = await desk.papers.get(into.paperId);
    if (!paper) throw new CommandFault('paperGone');
    return paper;
  }
  const paper = Paper.parse({
    id: newId(),
    title: into.title.trim(),
    instructions: '',
    questions,
    createdAt: now,
    changedAt: now,
  });
  await record.add('papers', paper);
  return paper;
}

/** Gives the student of each row: known, or made. Rows of one person have one student. */
async function studentsFor(
  record: Recorder,
  taken: readonly PlannedRow[],
  groupId: string | null,
  sittingId: string,
): Promise<(row: PlannedRow) => string> {
  const codes = new Set((await desk.students.toArray()).map(({ joinCode }) => joinCode));
  const made = new Map<string, Student>();
  const keyOf = ({ owner, row }: PlannedRow) => {
    if (owner.is === 'known') return null;
    const { familyName, givenName, number, email } = row.person;
    return owner.is === 'nameless'
      ? `line ${row.line}`
      : [number, email.toLowerCase(), number || email ? '' : `${familyName}, ${givenName}`].join(' ');
  };
  for (const each of taken) {
    const key = keyOf(each);
    if (key === null || made.has(key)) continue;
    const { person, line } = each.row;
    const named =
      person.familyName || person.givenName
        ? person
        : { ...person, familyName: person.number || person.email || rowName(line) };
    const student = freshStudent({ ...named, knownId: null }, codes);
    made.set(
      key,
      groupId === null
        ? Student.parse({ ...student, role: 'guest', onlySittingId: sittingId })
        : { ...student, groupIds: [groupId] },
    );
  }
  await record.addAll('students', [...made.values()]);
  return (each) =>
    each.owner.is === 'known' ? each.owner.studentId : (made.get(keyOf(each) ?? '')?.id ?? '');
}

/** So many are written at a time: a transaction that does nothing for long is closed by the browser. */
const atOnce = 250;

async function keepAttempts(
  record: Recorder,
  taken: readonly PlannedRow[],
  questions: readonly Question[],
  { id: sittingId, paperVersion }: Sitting,
  studentOf: (row: PlannedRow) => string,
  now: string,
  progress: (done: number, of: number) => void,
): Promise<void> {
  for (let from = 0; from < taken.length; from += atOnce) {
    const some = taken.slice(from, from + atOnce);
    const fresh: Attempt[] = [];
    const marks: HandMark[] = [];
    for (const each of some) {
      const { row, number, changed } = each;
      const attempt = each.attempt
        ? broughtAgain(each.attempt, row, changed, now)
        : broughtAttempt(row, questions, {
            ...{ id: newId(), sittingId, studentId: studentOf(each), number, now },
            paperVersion: paperVersion ?? 1,
          });
      if (each.attempt) await record.put('attempts', attempt);
      else fresh.push(attempt);
      for (const [questionId, points] of Object.entries(row.points))
        marks.push(givenMark(attempt, questionId, points, now));
    }
    await record.addMany('attempts', fresh);
    for (const mark of marks) await keepMark(record, mark);
    progress(Math.min(taken.length, from + atOnce), taken.length);
  }
}

/** Points that stand in the sheet; what was marked here since is not written over. */
async function keepMark(record: Recorder, mark: HandMark): Promise<void> {
  const { attemptId, questionId, markerId } = mark;
  if (!(await desk.marks.get([attemptId, questionId, markerId]))) await record.add('marks', mark);
}

const givenMark = (attempt: Attempt, questionId: string, points: number, now: string): HandMark =>
  HandMark.parse({
    attemptId: attempt.id,
    sittingId: attempt.sittingId,
    questionId,
    markerId: ownMarker,
    points,
    lines: [],
    comment: '',
    aside: false,
    at: now,
    history: [],
  } satisfies HandMark);

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
