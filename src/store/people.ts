import { Student, Group, fullName } from '@/core/model/people';
import type { IncomingStudent } from '@/core/formats/csv/studentRows';
import { runCommand } from './command';
import { newId, newJoinCode } from './ids';
import { desk } from './tables';

export async function createGroup(name: string, now: string) {
  const group = Group.parse({ id: newId(), name: name.trim(), createdAt: now });
  return runCommand(
    { command: 'createGroup', said: `Group ${group.name} made`, about: group.id },
    now,
    async (record) => {
      await record.add('groups', group);
      return group.id;
    },
  );
}

export async function renameGroup(id: string, name: string, now: string) {
  return runCommand(
    { command: 'renameGroup', said: `Group renamed to ${name.trim()}`, about: id },
    now,
    async (record) => {
      const group = await desk.groups.get(id);
      if (group) await record.put('groups', Group.parse({ ...group, name: name.trim() }));
    },
  );
}

/** Takes a group off the desk. Its students stay when they are in another group or have an attempt. */
export async function deleteGroup(id: string, now: string) {
  const group = await desk.groups.get(id);
  return runCommand(
    { command: 'deleteGroup', said: `Group ${group?.name ?? ''} deleted`, about: id },
    now,
    async (record) => {
      for (const student of await desk.students.where('groupIds').equals(id).toArray()) {
        const groupIds = student.groupIds.filter((groupId) => groupId !== id);
        const attempts = await desk.attempts.where('studentId').equals(student.id).count();
        if (groupIds.length === 0 && attempts === 0) await record.remove('students', [student.id]);
        else await record.put('students', { ...student, groupIds });
      }
      await record.remove('groups', [id]);
    },
  );
}

/** Brings students into a group: new ones get a join code, known ones get the group as well. */
export async function bringIn(groupId: string, incoming: readonly IncomingStudent[], now: string) {
  const said = incoming.length === 1 ? '1 student brought in' : `${incoming.length} students brought in`;
  return runCommand({ command: 'bringIn', said, about: groupId }, now, async (record) => {
    const taken = new Set((await desk.students.toArray()).map((student) => student.joinCode));
    const added: Student[] = [];
    for (const row of incoming) {
      const known = row.knownId === null ? undefined : await desk.students.get(row.knownId);
      if (known)
        await record.put('students', { ...known, groupIds: [...new Set([...known.groupIds, groupId])] });
      else
        added.push(
          Student.parse({
            id: newId(),
            familyName: row.familyName,
            givenName: row.givenName,
            number: row.number,
            email: row.email,
            joinCode: newJoinCode(taken),
            groupIds: [groupId],
          }),
        );
    }
    await record.addAll('students', added);
  });
}

export async function changeStudent(student: Student, now: string) {
  const said = `${fullName(student)} changed`;
  return runCommand({ command: 'changeStudent', said, about: student.id }, now, (record) =>
    record.put('students', Student.parse(student)),
  );
}

/** Takes a student out of a group; one without any other group and without attempts leaves the desk. */
export async function takeOutOfGroup(studentId: string, groupId: string, now: string) {
  const student = await desk.students.get(studentId);
  const said = `${student ? fullName(student) : 'Student'} taken out of the group`;
  return runCommand({ command: 'takeOutOfGroup', said, about: groupId }, now, async (record) => {
    if (!student) return;
    const groupIds = student.groupIds.filter((id) => id !== groupId);
    const attempts = await desk.attempts.where('studentId').equals(studentId).count();
    if (groupIds.length === 0 && attempts === 0) await record.remove('students', [studentId]);
    else await record.put('students', { ...student, groupIds });
  });
}
