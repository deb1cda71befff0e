import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, attemptOf, samples, sittingOf, studentOf } from '../../tests/unit/samples';
import { Student } from '@/core/model/people';
import { byRegister, fullName, registerName } from '@/core/model/names';
import { joinCodeFrom, joinCodeShown } from '@/core/basics/joinCode';
import { emptyTables, replaceDesk } from './backup';
import { undo } from './command';
import { newJoinCode } from './ids';
import { createPaper, deletePaper } from './papers';
import { bringIn, changeStudent, createGroup, deleteGroup, renameGroup, takeOutOfGroup } from './people';
import { groupRows, sittingFrame } from './queries';
import { desk } from './tables';

const row = { line: 1, familyName: 'Okafor', givenName: 'Amara', number: '2101', email: '', knownId: null };

beforeEach(async () => {
  await desk.delete();
  await desk.open();
});

describe('bringing students in', () => {
  it('gives everyone a join code of their own that reads back however it is typed', async () => {
    const { result: groupId } = await createGroup('Monday', at);
    await bringIn(groupId, [row, { ...row, givenName: 'Linh' }, { ...row, givenName: 'Mateo' }], at);
    const students = await desk.students.toArray();
    expect(new Set(students.map((student) => student.joinCode)).size).toBe(3);
    for (const student of students) {
      expect(Student.safeParse(student).success).toBe(true);
      expect(joinCodeFrom(` ${joinCodeShown(student.joinCode).toLowerCase()}`)).toBe(student.joinCode);
    }
  });

  it('a student known by number gets the second group as well, and stays one student', async () => {
    const { result: monday } = await createGroup('Monday', at);
    const { result: friday } = await createGroup('Friday', at);
    await bringIn(monday, [row], at);
    const [known] = await desk.students.toArray();
    await bringIn(friday, [{ ...row, knownId: known?.id ?? null }], at);
    expect(await desk.students.count()).toBe(1);
    expect((await desk.students.toArray())[0]?.groupIds).toEqual([monday, friday]);
    expect((await groupRows()).map(({ group, students }) => [group.name, students])).toEqual([
      ['Friday', 1],
      ['Monday', 1],
    ]);
  });

  it('is taken back in one step', async () => {
    const { result: groupId } = await createGroup('Monday', at);
    await bringIn(
      groupId,
      Array.from({ length: 40 }, (_, line) => ({ ...row, line, number: String(line) })),
      at,
    );
    expect(await undo(at)).toMatchObject({ outcome: 'undone', said: '40 students imported' });
    expect(await desk.students.count()).toBe(0);
    expect(await desk.groups.count()).toBe(1);
  });

  it('refuses a group without a name, and keeps nothing of it', async () => {
    await expect(createGroup('   ', at)).rejects.toThrow();
    expect(await desk.groups.count()).toBe(0);
    expect(await desk.log.count()).toBe(0);
  });

  it('never gives a code that is taken', () => {
    const taken = new Set<string>();
    for (let count = 0; count < 500; count++) newJoinCode(taken);
    expect(taken.size).toBe(500);
  });
});

describe('who leaves a group', () => {
  beforeEach(() =>
    replaceDesk({
      ...emptyTables,
      groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
      students: [studentOf(), studentOf({ id: 'student2', joinCode: 'ABCDEF', familyName: 'Tran' })],
      papers: [
        {
          id: 'paper1',
          title: 'T',
          instructions: '',
          questions: Object.values(samples),
          createdAt: at,
          changedAt: at,
        },
      ],
      paperVersions: [
        {
          paperId: 'paper1',
          version: 1,
          frozenAt: at,
          title: 'T',
          instructions: '',
          questions: Object.values(samples),
        },
      ],
      sittings: [sittingOf()],
      attempts: [attemptOf()],
    }),
  );

  it('stays on the desk with the attempts, and in the sitting that was sat', async () => {
    await takeOutOfGroup(['student1'], 'group1', at);
    expect(await desk.students.get('student1')).toMatchObject({ groupIds: [] });
    expect((await sittingFrame('sitting1'))?.students.map((student) => student.id)).toEqual([
      'student1',
      'student2',
    ]);
  });

  it('leaves the desk without attempts and without another group', async () => {
    await takeOutOfGroup(['student2'], 'group1', at);
    expect(await desk.students.get('student2')).toBeUndefined();
    await undo(at);
    expect(await desk.students.get('student2')).toMatchObject({ groupIds: ['group1'] });
  });

  it('goes the same way when the whole group is deleted', async () => {
    await deleteGroup('group1', at);
    expect((await desk.students.toArray()).map((student) => student.id)).toEqual(['student1']);
    expect((await sittingFrame('sitting1'))?.groups).toEqual([]);
  });

  it('a student and a group are renamed, and a bad code is never kept', async () => {
    await changeStudent(studentOf({ givenName: 'Ngozi' }), at);
    await renameGroup('group1', ' Tuesday ', at);
    expect(await desk.students.get('student1')).toMatchObject({ givenName: 'Ngozi' });
    expect(await desk.groups.get('group1')).toMatchObject({ name: 'Tuesday' });
    await expect(changeStudent(studentOf({ joinCode: 'O0O0O0' }), at)).rejects.toThrow();
  });

  it('a paper with a sitting stays; one without goes and comes back', async () => {
    await expect(deletePaper('paper1', at)).rejects.toThrow('paperInUse');
    const { result: paperId } = await createPaper('Draft', at);
    await deletePaper(paperId, at);
    expect(await desk.papers.get(paperId)).toBeUndefined();
    await undo(at);
    expect(await desk.papers.get(paperId)).toMatchObject({ title: 'Draft' });
  });
});

describe('names', () => {
  it('are written as said and as in a register, also when one half is missing', () => {
    expect([fullName(studentOf()), registerName(studentOf())]).toEqual(['Amara Okafor', 'Okafor, Amara']);
    expect([fullName(studentOf({ familyName: '' })), registerName(studentOf({ givenName: '' }))]).toEqual([
      'Amara',
      'Okafor',
    ]);
  });

  it('stand in the order of a register, whatever their accents and capitals', () => {
    const names = ['Öz', 'okafor', 'Park', 'Okafor'].map((familyName, index) =>
      studentOf({ familyName, givenName: `${9 - index}` }),
    );
    expect(names.sort(byRegister).map((student) => student.familyName)).toEqual([
      'Okafor',
      'okafor',
      'Öz',
      'Park',
    ]);
  });
});
