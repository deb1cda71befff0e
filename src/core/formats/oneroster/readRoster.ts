import { z } from 'zod';
import { finder, type BadRow, type IncomingStudent, type KnownStudent } from '../csv/studentRows';
import { decodeText } from '../csv/decodeText';
import { tableFrom, type TableRow } from '../csv/table';
import { Refused } from '../../basics/refused';
import { unpacked } from '../unpacked';

/** One class of the register, with its students. */
export interface RosterClass {
  sourcedId: string;
  title: string;
  /** The same object for a student who is in several classes. */
  students: IncomingStudent[];
}

export interface Roster {
  classes: RosterClass[];
  /** Files of the package that hold nothing for us, and rows that were left out, with why. */
  ignored: string[];
  bad: (Omit<BadRow, 'reason'> & {
    file: string;
    reason: BadRow['reason'] | 'unknownClass' | 'unknownUser';
  })[];
}

type Row = { line: number; of: (column: string) => string };

/**
 * Students and classes from a OneRoster package of CSV files, version 1.1 or 1.2 (1EdTech OneRoster CSV Binding):
 * users.csv, classes.csv and enrollments.csv; other files are ignored and named. Rows that the register marks to be
 * deleted are left out. A user's number is `identifier`, else `sourcedId`.
 *
 * @throws {Refused} when it is no zip, one of the three is missing, or a column that is needed is
 */
export async function readRoster(bytes: Uint8Array, known: readonly KnownStudent[]): Promise<Roster> {
  const files = new Map(
    [...(await unpacked(bytes))].map(([path, content]) => [
      path.toLowerCase().split('/').at(-1) ?? path,
      content,
    ]),
  );
  const users = rowsOf(files, 'users.csv', ['sourcedid', 'givenname', 'familyname']);
  const classes = rowsOf(files, 'classes.csv', ['sourcedid', 'title']);
  const enrollments = rowsOf(files, 'enrollments.csv', ['classsourcedid', 'usersourcedid', 'role']);
  const roster: Roster = { classes: [], ignored: [], bad: [] };
  for (const name of files.keys())
    if (!/^(users|classes|enrollments|manifest)\.csv$/.test(name)) roster.ignored.push(name);

  const gone = (row: Row) => row.of('status').toLowerCase() === 'tobedeleted';
  const deleted = [...users, ...classes, ...enrollments].filter(gone).length;
  if (deleted > 0) roster.ignored.push(`${deleted} ${deleted === 1 ? 'row' : 'rows'} marked to be deleted`);

  const students = studentsFrom(
    users.filter((row) => !gone(row)),
    known,
    roster,
  );
  const byClass = new Map<string, RosterClass>();
  for (const row of classes.filter((each) => !gone(each))) {
    const sourcedId = row.of('sourcedid');
    const made = { sourcedId, title: row.of('title') || row.of('classcode') || sourcedId, students: [] };
    byClass.set(sourcedId, made);
  }
  let others = 0;
  for (const row of enrollments.filter((each) => !gone(each))) {
    if (row.of('role').toLowerCase() !== 'student') {
      others++;
      continue;
    }
    const into = byClass.get(row.of('classsourcedid'));
    const student = students.get(row.of('usersourcedid'));
    const place = { file: 'enrollments.csv', line: row.line };
    if (!into) roster.bad.push({ ...place, reason: 'unknownClass', cell: row.of('classsourcedid') });
    else if (student === undefined)
      roster.bad.push({ ...place, reason: 'unknownUser', cell: row.of('usersourcedid') });
    else if (student && !into.students.includes(student)) into.students.push(student);
  }
  if (others > 0)
    roster.ignored.push(`${others} ${others === 1 ? 'enrollment' : 'enrollments'} of others than students`);
  roster.classes = [...byClass.values()].filter((each) => each.students.length > 0);
  return roster;
}

/** Everyone in users.csv by sourcedId; null where the row is bad. */
function studentsFrom(
  users: readonly Row[],
  known: readonly KnownStudent[],
  roster: Roster,
): Map<string, IncomingStudent | null> {
  const knownIdOf = finder(known);
  const numbers = new Set<string>();
  const students = new Map<string, IncomingStudent | null>();
  for (const row of users) {
    const bad = (reason: BadRow['reason'], cell: string) => {
      roster.bad.push({ file: 'users.csv', line: row.line, reason, cell });
      students.set(row.of('sourcedid'), null);
    };
    const [familyName, givenName] = [row.of('familyname'), row.of('givenname')];
    const [number, email] = [row.of('identifier') || row.of('sourcedid'), row.of('email')];
    if (!familyName && !givenName) bad('noName', '');
    else if ([familyName, givenName, number, email].some((cell) => cell.length > 200))
      bad('tooLong', `${familyName.slice(0, 40)}…`);
    else if (numbers.has(number)) bad('sameNumber', number);
    else {
      numbers.add(number);
      const address = z.email().safeParse(email).success ? email : '';
      if (email && !address)
        roster.bad.push({ file: 'users.csv', line: row.line, reason: 'badEmail', cell: email });
      students.set(row.of('sourcedid'), {
        line: row.line,
        familyName,
        givenName,
        number,
        email: address,
        knownId: knownIdOf({ number, email: address }),
      });
    }
  }
  return students;
}

/** The rows of one file, by the names of its columns in any case and order. */
function rowsOf(files: ReadonlyMap<string, Uint8Array>, name: string, needed: readonly string[]): Row[] {
  const bytes = files.get(name);
  if (!bytes) throw new Refused('missingFile', name);
  const [header, ...rows] = tableFrom(decodeText(bytes));
  const columns = (header?.cells ?? []).map((cell) => cell.toLowerCase().replace(/[\s_]/g, ''));
  for (const column of needed)
    if (!columns.includes(column)) throw new Refused('missingColumn', name, column);
  return rows.map((row: TableRow) => ({
    line: row.line,
    of: (column) => (row.cells[columns.indexOf(column)] ?? '').replace(/\s+/g, ' ').trim(),
  }));
}
