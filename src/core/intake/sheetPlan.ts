import { groupBy } from '../basics/groupBy';
import { finder } from '../formats/csv/studentRows';
import { forgiveAll, forgiven } from '../kinds/forgiving';
import { kindOf, type Question, type Response } from '../kinds';
import type { HandMark } from '../model/mark';
import { fullName, registerName } from '../model/names';
import type { Student } from '../model/people';
import type { Attempt } from '../model/sitting';
import type { AnswerRow } from './sheetRows';

/** Whose a row is. */
export type RowOwner =
  /** By the name alone, where nobody else has it. */
  | { is: 'known'; studentId: string; by: 'number' | 'email' | 'name' }
  | { is: 'new'; name: string }
  /** Two students have the name, and the row says no number or email. */
  | { is: 'ambiguous'; name: string }
  /** The row says nothing of who it is. */
  | { is: 'nameless' };

/** What becomes of a student who sent several rows. */
export type SeveralRows = 'attempts' | 'last';

/** What becomes of one row. */
export interface PlannedRow {
  row: AnswerRow;
  owner: RowOwner;
  /** The same for all rows of one person. */
  who: string;
  /** Which attempt of its student it is, from 1. */
  number: number;
  /** The attempt that it was brought in as before. */
  attempt: Attempt | null;
  /** `older`: another row of the student counts instead. */
  becomes: 'new' | 'changed' | 'same' | 'older' | 'ambiguous';
  /** The questions whose answers are others than before. */
  changed: string[];
  /** The questions whose points come from the sheet: nobody marked them here. */
  points: string[];
}

/**
 * What bringing a sheet in does, before it is done: whose each row is, which attempt of whom, and what of it is new.
 *
 * @param students all of the desk
 * @param sittingId the sitting that it is brought into; null: a new one
 * @param attempts those of that sitting
 * @param marks those of that sitting: what was marked here is not written over
 * @param questions those that the sheet has a column of answers for
 */
export function sheetPlan(
  rows: readonly AnswerRow[],
  several: SeveralRows,
  students: readonly Student[],
  sittingId: string | null,
  {
    attempts,
    marks,
  }: { attempts: readonly Attempt[]; marks: readonly Pick<HandMark, 'attemptId' | 'questionId'>[] },
  questions: readonly Question[],
): PlannedRow[] {
  const owned = ownersOf(students, sittingId);
  const before = new Map(
    attempts
      .filter(({ source }) => source === 'sheet')
      .map((attempt) => [`${attempt.studentId} ${attempt.number}`, attempt]),
  );
  const others = new Map<string, number>();
  for (const { studentId, number, source } of attempts)
    if (source !== 'sheet') others.set(studentId, Math.max(others.get(studentId) ?? 0, number));
  const marked = new Set(marks.map(({ attemptId, questionId }) => `${attemptId} ${questionId}`));
  const all = rows.map((row) => {
    const owner = owned(row);
    return { row, owner, who: whoOf(owner, row) };
  });
  const planned = new Map<AnswerRow, PlannedRow>();
  for (const of of groupBy(all, ({ who }) => who).values()) {
    const inTime = [...of].sort((a, b) => timeOf(a.row) - timeOf(b.row) || a.row.line - b.row.line);
    const counted = several === 'last' ? inTime.slice(-1) : inTime;
    for (const each of inTime) {
      const { row, owner } = each;
      const studentId = owner.is === 'known' ? owner.studentId : null;
      const place = counted.indexOf(each);
      const number = place + 1 + (studentId === null ? 0 : (others.get(studentId) ?? 0));
      const attempt = studentId === null || place < 0 ? null : (before.get(`${studentId} ${number}`) ?? null);
      const changed = attempt ? changedIn(attempt, row, questions) : [];
      const points = Object.keys(row.points).filter((id) => !attempt || !marked.has(`${attempt.id} ${id}`));
      const fresh = changed.length + points.length > 0 ? 'changed' : 'same';
      const becomes = place < 0 ? 'older' : owner.is === 'ambiguous' ? 'ambiguous' : attempt ? fresh : 'new';
      planned.set(row, { ...each, number, attempt, changed, points, becomes });
    }
  }
  return rows.flatMap((row) => planned.get(row) ?? []);
}

const timeOf = ({ handedInAt, startedAt }: AnswerRow) => Date.parse(handedInAt ?? startedAt ?? '') || 0;

/** The same for all rows of one person; nameless ones are each somebody else. */
function whoOf(owner: RowOwner, { line, person }: AnswerRow): string {
  if (owner.is === 'known') return owner.studentId;
  if (owner.is === 'nameless') return `line ${line}`;
  return person.number
    ? `number ${person.number}`
    : person.email
      ? `email ${person.email.toLowerCase()}`
      : plain(owner.name);
}

const plain = (name: string) => forgiven(name, { ...forgiveAll, punctuation: true });

/** What someone is called of whom a sheet says nothing. */
export const rowName = (line: number) => `Row ${line}`;

/** Finds whose a row is: by number, by email, else by a name that one student has. Guests are found again by theirs. */
function ownersOf(students: readonly Student[], sittingId: string | null): (row: AnswerRow) => RowOwner {
  const theirs = students.filter(
    ({ role, onlySittingId }) => role === undefined || (role === 'guest' && onlySittingId === sittingId),
  );
  const byCode = finder(theirs);
  const byId = new Map(theirs.map((student) => [student.id, student]));
  const byName = new Map<string, Set<Student>>();
  for (const student of theirs)
    if (student.archivedAt === undefined)
      for (const name of [fullName(student), registerName(student)].map(plain))
        byName.set(name, (byName.get(name) ?? new Set()).add(student));
  return ({ line, person }) => {
    const code = person.number || person.email ? byCode(person) : null;
    if (code !== null) {
      const by = person.number && byId.get(code)?.number === person.number ? 'number' : 'email';
      return { is: 'known', studentId: code, by };
    }
    const said = fullName(person) || person.number || person.email;
    const name = said || rowName(line);
    const [only, another] = byName.get(plain(name)) ?? [];
    if (another && !person.number && !person.email) return { is: 'ambiguous', name };
    // One with another number is somebody else of the same name.
    if (only && !another && (!person.number || !only.number))
      return { is: 'known', studentId: only.id, by: 'name' };
    return said ? { is: 'new', name } : { is: 'nameless' };
  };
}

/** Both were made by `fromText`: equal answers have equal text. */
const text = (response: Response) => JSON.stringify(response);

/** The questions to which an attempt has another answer than the row. */
function changedIn({ answers }: Attempt, row: AnswerRow, questions: readonly Question[]): string[] {
  return questions
    .filter((question) => {
      // What could not be read says nothing of what was there.
      if (row.unread.includes(question.id)) return false;
      const [was, is] = [answers[question.id]?.response, row.answers[question.id]];
      if (was === undefined || is === undefined)
        return (was !== undefined && !kindOf(question).isBlank(was)) !== (is !== undefined);
      return text(was) !== text(is);
    })
    .map(({ id }) => id);
}
