import { mergedBook } from '@/core/markbook/mergedBook';
import { done } from '@/words/done';
import { CommandFault } from '@/core/model/commandFault';
import { Student, Group } from '@/core/model/people';
import { type Attempt } from '@/core/model/sitting';
import { Opening } from '@/core/model/release';
import { groupBy } from '@/core/basics/groupBy';
import { mergedStudent } from '@/core/people/doubles';
import { withCourse, type CourseNames } from '@/core/sittings/deskOrder';
import { placesOf, sameGroup } from '@/core/people/places';
import { rosterChanges, updated } from '@/core/people/rosterChanges';
import { attemptState, isAside, settled, termsFor, type Terms } from '@/core/attempts/terms';
import type { IncomingStudent } from '@/core/formats/csv/studentRows';
import { runCommand, type Recorder } from './command';
import type { Command } from './commandTables';
import { newId, newJoinCode } from './ids';
import { moveOwned, removeOwned } from './owners';
import { desk } from './tables';

export async function createGroup(name: string, now: string) {
  const group = Group.parse({ id: newId(), name: name.trim(), createdAt: now });
  return runCommand(
    { command: 'createGroup', said: done.groupCreated(group.name), about: group.id },
    now,
    async (record) => {
      await record.add('groups', group);
      return group.id;
    },
  );
}

export async function renameGroup(id: string, name: string, now: string) {
  return runCommand(
    { command: 'renameGroup', said: done.groupRenamed(name.trim()), about: id },
    now,
    async (record) => {
      const group = await desk.groups.get(id);
      if (group) await record.put('groups', Group.parse({ ...group, name: name.trim() }));
    },
  );
}

/** Says what course and term a group belongs to; empty: none. */
export async function describeGroup(id: string, names: CourseNames, now: string) {
  const group = await desk.groups.get(id);
  if (!group) return null;
  const said = done.groupDescribed(group.name);
  return runCommand({ command: 'describeGroup', said, about: id }, now, (record) =>
    record.put('groups', Group.parse(withCourse(group, names))),
  );
}

/** Takes a group off the desk. Its students stay when they are in another group or have an attempt. */
export async function deleteGroup(id: string, now: string) {
  const group = await desk.groups.get(id);
  return runCommand(
    { command: 'deleteGroup', said: done.groupDeleted(group?.name ?? ''), about: id },
    now,
    async (record) => {
      await leaveGroup(record, await desk.students.where('groupIds').equals(id).toArray(), id);
      await record.remove('groups', [id]);
    },
  );
}

/** What a list may do to students who are on the desk already. */
export interface BringChoices {
  /** Take over what the list has otherwise: names, numbers, emails, own fields. */
  update?: boolean;
  /** Take those out of the group who are not in the list. */
  takeOutGone?: boolean;
}

/**
 * Brings students into a group, or into those that their rows name: new ones get a join code, known ones get the group as
 * well. A group that is not there is made.
 */
export async function bringIn(
  groupId: string,
  incoming: readonly IncomingStudent[],
  now: string,
  choices: BringChoices = {},
) {
  return runCommand(
    { command: 'bringIn', said: done.studentsImported(incoming.length), about: groupId },
    now,
    async (record) => {
      const groupFor = await groupMaker(record, now);
      const places: IncomingPlace[] = [];
      const own = (await desk.groups.get(groupId))?.name ?? '';
      for (const { group, students } of placesOf(incoming, own))
        places.push({ groupId: group === null ? groupId : await groupFor(group), incoming: students });
      await bringInto(record, places, choices);
    },
  );
}

/** Brings whole classes in, in one step: a class goes into the group of its name, which is made where there is none. */
export async function bringClasses(
  classes: readonly { title: string; students: readonly IncomingStudent[] }[],
  now: string,
  choices: BringChoices = {},
) {
  const all = new Set(classes.flatMap(({ students }) => students));
  const said = done.classesImported(all.size, classes.length);
  return runCommand({ command: 'bringClasses', said }, now, async (record) => {
    const groupFor = await groupMaker(record, now);
    const places: IncomingPlace[] = [];
    for (const { title, students } of classes)
      places.push({ groupId: await groupFor(title), incoming: students });
    await bringInto(record, places, choices);
  });
}

/** Gives the id of the group of a name, and makes it where there is none. */
async function groupMaker(record: Recorder, now: string): Promise<(name: string) => Promise<string>> {
  const groups = await desk.groups.toArray();
  return async (name) => {
    const known = groups.find((group) => sameGroup(group.name, name));
    if (known) return known.id;
    const made = Group.parse({ id: newId(), name: name.trim(), createdAt: now });
    groups.push(made);
    await record.add('groups', made);
    return made.id;
  };
}

interface IncomingPlace {
  groupId: string;
  incoming: readonly IncomingStudent[];
}

async function bringInto(
  record: Recorder,
  places: readonly IncomingPlace[],
  { update, takeOutGone }: BringChoices,
): Promise<void> {
  const before = await desk.students.toArray();
  const byId = new Map(before.map((student) => [student.id, student]));
  const taken = new Set(before.map((student) => student.joinCode));
  const added = new Map<IncomingStudent, Student>();
  const changed = new Map<string, Student>();
  for (const { groupId, incoming } of places) {
    for (const row of incoming) {
      const student = row.knownId === null ? undefined : (changed.get(row.knownId) ?? byId.get(row.knownId));
      if (student) {
        const { archivedAt: _, ...back } = update ? updated(student, row) : student;
        changed.set(student.id, { ...back, groupIds: [...new Set([...student.groupIds, groupId])] });
      } else {
        const fresh = added.get(row) ?? freshStudent(row, taken);
        added.set(row, { ...fresh, groupIds: [...fresh.groupIds, groupId] });
      }
    }
    if (takeOutGone)
      for (const student of rosterChanges(incoming, before, groupId).gone) {
        const now = changed.get(student.id) ?? student;
        changed.set(student.id, { ...now, groupIds: now.groupIds.filter((id) => id !== groupId) });
      }
  }
  for (const student of changed.values()) await record.put('students', Student.parse(student));
  await record.addAll('students', [...added.values()]);
}

export function freshStudent(
  { familyName, givenName, number, email, fields }: IncomingStudent,
  taken: Set<string>,
) {
  return Student.parse({
    id: newId(),
    familyName,
    givenName,
    number,
    email,
    joinCode: newJoinCode(taken),
    groupIds: [],
    ...(fields && { fields }),
  } satisfies Student);
}

/** @param base as the student was when the row was opened: what was changed elsewhere since stays */
export async function changeStudent(student: Student, now: string, base?: Student) {
  const said = done.studentEdited(student);
  return runCommand({ command: 'changeStudent', said, about: student.id }, now, (record) =>
    record.putChanged('students', Student.parse(student), base),
  );
}

/** Several students and what becomes of each, in one step. */
async function changeStudents(
  command: Command,
  words: (students: readonly Student[]) => string,
  ids: readonly string[],
  now: string,
  change: (student: Student) => Student,
) {
  const students = (await desk.students.bulkGet([...ids])).filter((student) => student !== undefined);
  const [only] = students;
  return runCommand({ command, said: words(students), about: only?.id ?? null }, now, async (record) => {
    for (const student of students) await record.put('students', Student.parse(change(student)));
  });
}

/** Puts students into a group; with `from`, out of that one. */
export async function putInGroup(ids: readonly string[], groupId: string, from: string | null, now: string) {
  const group = await desk.groups.get(groupId);
  const name = group?.name ?? '';
  const words = from === null ? done.addedTo(name) : done.movedTo(name);
  return changeStudents('putInGroup', words, ids, now, (student) => ({
    ...student,
    groupIds: [...new Set([...student.groupIds.filter((id) => id !== from), groupId])],
  }));
}

/** Out of every list from now on; attempts and results stay. */
export async function archiveStudents(ids: readonly string[], now: string) {
  return changeStudents('archiveStudents', done.archived, ids, now, (student) => ({
    ...student,
    archivedAt: now,
  }));
}

export async function bringBackStudents(ids: readonly string[], now: string) {
  return changeStudents(
    'bringBackStudents',
    done.restored,
    ids,
    now,
    ({ archivedAt: _, ...student }) => student,
  );
}

/** New join codes: the old ones open nothing any more. Attempts go on with the new one. */
export async function newCodes(ids: readonly string[], now: string) {
  const taken = new Set((await desk.students.toArray()).map((student) => student.joinCode));
  return changeStudents('newCodes', done.newCodes, ids, now, (student) => ({
    ...student,
    joinCode: newJoinCode(taken),
  }));
}

/**
 * Makes two rows one student: attempts, allowances, requests and results of the other go to the kept one. So a guest is
 * matched to a student, too. Where both have an attempt that runs, the one begun earlier is collected; where both have
 * a result handed back for one sitting, the kept one's stays.
 */
export async function mergeStudents(keptId: string, otherId: string, now: string) {
  const [kept, other] = await desk.students.bulkGet([keptId, otherId]);
  if (!kept || !other || keptId === otherId) throw new CommandFault('sameStudent');
  const said = done.merged(kept, other);
  return runCommand({ command: 'mergeStudents', said, about: keptId }, now, async (record) => {
    const attempts = await desk.attempts.where('studentId').anyOf([keptId, otherId]).toArray();
    const bySitting = groupBy(attempts, (attempt) => attempt.sittingId);
    for (const [sittingId, all] of bySitting) {
      if (!all.some((attempt) => attempt.studentId === otherId)) continue;
      const sitting = await desk.sittings.get(sittingId);
      const allowances = await desk.allowances.where({ sittingId }).toArray();
      const ofBoth = allowances.filter(({ studentId }) => studentId === keptId || studentId === otherId);
      const terms = sitting && termsFor(mergedStudent(kept, other), sitting, ofBoth, Date.parse(now));
      for (const attempt of joinedAttempts(all, keptId, now, terms)) await record.put('attempts', attempt);
    }
    await moveOwned(record, otherId, keptId, ['attempts'], (table, mine, theirs) =>
      table === 'openings' ? joinedOpenings(Opening.parse(mine), Opening.parse(theirs)) : mine,
    );
    for (const book of await desk.markBooks.toArray())
      await record.put('markBooks', mergedBook(book, keptId, otherId));
    for (const print of await desk.prints.toArray())
      if (print.copies.includes(otherId))
        await record.put('prints', {
          ...print,
          copies: print.copies.map((id) => (id === otherId ? keptId : id)),
        });
    await record.remove('students', [otherId]);
    await record.put('students', Student.parse(mergedStudent(kept, other)));
  });
}

const joinedOpenings = (mine: Opening, theirs: Opening): Opening => ({
  ...mine,
  at: [...mine.at, ...theirs.at].sort(),
  ...((mine.onDevice ?? theirs.onDevice) && {
    onDevice: [...(mine.onDevice ?? []), ...(theirs.onDevice ?? [])].sort(),
  }),
});

/** The attempts of two as those of one: numbered as they were begun, and only the last may run. */
function joinedAttempts(
  attempts: readonly Attempt[],
  studentId: string,
  now: string,
  terms: Terms | undefined,
): Attempt[] {
  const sorted = [...attempts].sort((a, b) => a.startedAt.localeCompare(b.startedAt));
  const lastOpen = sorted.findLast((attempt) => !isAside(attempt))?.id;
  return sorted.map((attempt, index) => {
    const moved = { ...attempt, studentId, number: index + 1 };
    const runs = terms && !isAside(attempt) && attemptState(attempt, terms, Date.parse(now)) === 'working';
    if (attempt.id === lastOpen || isAside(attempt) || !terms) return moved;
    if (!runs) return settled(moved, terms, Date.parse(now));
    const reason = 'Merged with another attempt';
    return {
      ...moved,
      collectedAt: now,
      events: [...attempt.events, { kind: 'collected', at: now, reason }],
    };
  });
}

/** Takes students out of a group; one without any other group and without attempts leaves the desk. */
export async function takeOutOfGroup(ids: readonly string[], groupId: string, now: string) {
  const students = (await desk.students.bulkGet([...ids])).filter((student) => student !== undefined);
  const said = done.removedFromGroup(students);
  return runCommand({ command: 'takeOutOfGroup', said, about: groupId }, now, (record) =>
    leaveGroup(record, students, groupId),
  );
}

async function leaveGroup(record: Recorder, students: readonly Student[], groupId: string): Promise<void> {
  for (const student of students) {
    const groupIds = student.groupIds.filter((id) => id !== groupId);
    const attempts = await desk.attempts.where('studentId').equals(student.id).count();
    if (groupIds.length === 0 && attempts === 0) {
      await removeOwned(record, 'students', student.id);
      await record.remove('students', [student.id]);
    } else await record.put('students', { ...student, groupIds });
  }
}
