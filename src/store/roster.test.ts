import 'fake-indexeddb/auto';
import { greets, seesHome } from '../../tests/unit/studentSide';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../tests/unit/samples';
import { emptyTables, replaceDesk } from './backup';
import { undo } from './command';
import { deleteAttempts } from './exceptions';
import { outboxRows, removeMessage, sendMessages } from './outbox';
import {
  archiveStudents,
  bringBackStudents,
  bringClasses,
  bringIn,
  mergeStudents,
  newCodes,
  putInGroup,
} from './people';
import { sittingFrame, sittingRecords } from './queries';
import { clearRehearsal, playStep, rehearsalSteps, setUpRehearsal } from './rehearsal';
import { desk } from './tables';
import { keepTemplate, removeTemplate } from './templates';

const later = '2026-11-23T10:30:00.000Z';
const start = Date.parse(at);
const row = { line: 1, familyName: 'Okafor', givenName: 'Amara', number: '2101', email: '', knownId: null };

beforeEach(() =>
  replaceDesk({
    ...emptyTables,
    groups: [
      { id: 'group1', name: 'Monday', createdAt: at },
      { id: 'group2', name: 'Friday', createdAt: at },
    ],
    students: [
      studentOf(),
      studentOf({ id: 'other', givenName: 'Amara C.', number: '', joinCode: 'B2B2B2' }),
    ],
    papers: [
      {
        id: 'paper1',
        title: 'Tides',
        instructions: '',
        questions: paperQuestions,
        createdAt: at,
        changedAt: at,
      },
    ],
    paperVersions: [
      {
        paperId: 'paper1',
        version: 1,
        frozenAt: at,
        title: 'Tides',
        instructions: '',
        questions: paperQuestions,
      },
    ],
    sittings: [sittingOf()],
  }),
);

describe('groups', () => {
  it('students move, or are in both, and the undo takes either back', async () => {
    await putInGroup(['student1'], 'group2', 'group1', at);
    expect((await desk.students.get('student1'))?.groupIds).toEqual(['group2']);
    await putInGroup(['student1', 'other'], 'group1', null, at);
    expect((await desk.students.get('student1'))?.groupIds).toEqual(['group2', 'group1']);
    expect(await undo(at)).toMatchObject({ said: '2 students added to Monday' });
    expect((await desk.students.get('student1'))?.groupIds).toEqual(['group2']);
  });

  it('whoever is archived is in no list and no sitting to come, keeps what was sat, and comes back', async () => {
    await desk.attempts.add(attemptOf({ studentId: 'other' }));
    await archiveStudents(['student1', 'other'], at);
    expect((await sittingFrame('sitting1'))?.students.map(({ id }) => id)).toEqual(['other']);
    expect(await seesHome('K7M4QX', start)).toEqual([]);
    expect(await seesHome('B2B2B2', start)).toHaveLength(1);
    await bringBackStudents(['student1'], at);
    expect(await seesHome('K7M4QX', start)).toHaveLength(1);
  });

  it('a new code opens what the old one did, and the old one nothing', async () => {
    await newCodes(['student1'], at);
    const code = (await desk.students.get('student1'))?.joinCode ?? '';
    expect(code).not.toBe('K7M4QX');
    expect(await greets('K7M4QX')).toBeNull();
    expect(await greets(code)).toMatchObject({ givenName: 'Amara' });
  });
});

describe('bringing a list in again', () => {
  it('takes over what it has otherwise, brings archived ones back, and takes the others out, as chosen', async () => {
    await archiveStudents(['student1'], at);
    await bringIn('group1', [{ ...row, knownId: 'student1', email: 'new@example.org' }], at, {
      update: true,
      takeOutGone: true,
    });
    const student = await desk.students.get('student1');
    expect(student).toMatchObject({ email: 'new@example.org', joinCode: 'K7M4QX' });
    expect(student?.archivedAt).toBeUndefined();
    expect((await desk.students.get('other'))?.groupIds).toEqual([]);
    await undo(at);
    expect((await desk.students.get('other'))?.groupIds).toEqual(['group1']);
  });

  it('classes of a register go into groups of their name; a student in two is one student', async () => {
    const nia = { ...row, familyName: 'Mwangi', givenName: 'Nia', number: '7' };
    const classes = [
      { title: 'Monday', students: [nia, { ...row, knownId: 'student1' }] },
      { title: 'New class', students: [nia] },
    ];
    await bringClasses(classes, at);
    const made = (await desk.groups.toArray()).find(({ name }) => name === 'New class');
    const [added] = await desk.students.filter(({ number }) => number === '7').toArray();
    expect(added?.groupIds).toEqual(['group1', made?.id]);
    expect(await desk.students.count()).toBe(3);
    expect(await undo(at)).toMatchObject({ said: '2 students imported in 2 groups' });
    expect(await desk.groups.count()).toBe(2);
  });
});

describe('two rows that are one student', () => {
  it('attempts, marks, requests and results go to the kept one; numbers follow the time; one step back', async () => {
    await desk.attempts.bulkAdd([
      attemptOf({ id: 'second', startedAt: later, handedInAt: later }),
      attemptOf({ id: 'first', studentId: 'other', handedInAt: at }),
    ]);
    await desk.marks.add(markOf({ attemptId: 'first', points: 2 }));
    await mergeStudents('student1', 'other', later);
    const attempts = await desk.attempts.orderBy('id').toArray();
    expect(attempts.map(({ id, studentId, number }) => [id, studentId, number])).toEqual([
      ['first', 'student1', 1],
      ['second', 'student1', 2],
    ]);
    expect(await desk.students.count()).toBe(1);
    expect((await sittingRecords('sitting1'))?.marks).toHaveLength(1);
    expect((await undo(later)).outcome).toBe('undone');
    expect((await desk.attempts.get('first'))?.studentId).toBe('other');
    expect(await desk.students.count()).toBe(2);
  });

  it('a guest matched to a student who works at the same time: never two running', async () => {
    await desk.students.update('other', { role: 'guest', groupIds: [], onlySittingId: 'sitting1' });
    await desk.attempts.bulkAdd([
      attemptOf({ id: 'guest', studentId: 'other' }),
      attemptOf({ id: 'own', startedAt: later }),
    ]);
    const { said } = await mergeStudents('student1', 'other', later);
    expect(said).toBe('Guest Amara C. Okafor matched to Amara Okafor');
    expect(await desk.attempts.get('guest')).toMatchObject({ collectedAt: later, number: 1 });
    expect(await desk.attempts.get('own')).toMatchObject({ collectedAt: null, number: 2 });
  });

  it('are refused when they are not two', async () => {
    await expect(mergeStudents('student1', 'student1', at)).rejects.toThrow(/sameStudent/);
    await expect(mergeStudents('student1', 'nobody', at)).rejects.toThrow(/sameStudent/);
  });
});

describe('an attempt deleted permanently', () => {
  it('goes with its marks and files; what another attempt or a paper has stays; the log says so', async () => {
    const file = { id: 'mine', name: 'a.pdf', mediaType: 'application/pdf', size: 1 };
    const shared = { ...file, id: 'shared' };
    const bytes = new Uint8Array(1);
    await desk.assets.bulkAdd([
      { ...file, bytes },
      { ...shared, bytes },
    ]);
    await desk.attempts.bulkAdd([
      attemptOf({ files: [file, shared] }),
      attemptOf({ id: 'kept', studentId: 'other', files: [shared] }),
    ]);
    await desk.marks.add(markOf());
    await deleteAttempts(['attempt1'], at);
    expect(await desk.attempts.toCollection().primaryKeys()).toEqual(['kept']);
    expect(await desk.marks.count()).toBe(0);
    expect(await desk.assets.toCollection().primaryKeys()).toEqual(['shared']);
    expect((await desk.log.toArray()).at(-1)).toMatchObject({
      said: 'Attempt 1 of Amara Okafor deleted permanently',
      rows: 0,
    });
    expect((await undo(at)).outcome).toBe('nothing');
  });
});

describe('templates and the outbox', () => {
  it('settings are kept under a name, the same name again in its place', async () => {
    const settings = { name: ' Weekly ', timeLimitMs: 600_000, attempts: 1, counts: 'last' as const };
    await keepTemplate(settings, at);
    await keepTemplate({ ...settings, name: 'Weekly', attempts: 3, counts: 'mean' }, at);
    const [template, ...rest] = await desk.templates.toArray();
    expect(template).toMatchObject({ name: 'Weekly', attempts: 3, counts: 'mean' });
    expect(rest).toEqual([]);
    await removeTemplate(template?.id ?? '', at);
    expect(await desk.templates.count()).toBe(0);
  });

  it('a message is for one student, with the address it had then', async () => {
    await sendMessages('sitting1', [{ studentId: 'student1', subject: 'Tides', text: 'Please start' }], at);
    const [first] = await outboxRows();
    expect(first?.message.email).toBe('amara.okafor@example.org');
    await removeMessage(first?.message.id ?? '', at);
    expect(await outboxRows()).toEqual([]);
    await undo(at);
    expect(await outboxRows()).toHaveLength(1);
  });
});

describe('a rehearsal', () => {
  it('is sat by its class through the exchange, loses no answer, and goes without trace', async () => {
    const before = JSON.stringify(await Promise.all(desk.tables.map((table) => table.toArray())));
    const wish = { students: 12, lengthMs: 1_800_000, seed: 4 };
    const id = await setUpRehearsal('paper1', {}, wish, at);
    const { steps, joinCodes } = await rehearsalSteps(id, wish);
    const attempts = new Map<string, string>();
    const answered = new Map<string, unknown>();
    for (const step of steps) {
      const code = joinCodes[step.student] ?? '';
      await playStep(id, code, step, attempts, start + step.atMs);
      if (step.does === 'answer') answered.set(`${attempts.get(code)} ${step.questionId}`, step.response);
    }
    for (const [key, response] of answered) {
      const [attemptId = '', questionId = ''] = key.split(' ');
      expect((await desk.attempts.get(attemptId))?.answers[questionId]?.response).toEqual(response);
    }
    expect(answered.size).toBeGreaterThan(30);
    const records = await sittingRecords(id);
    expect(records?.attempts.filter(({ handedInAt }) => handedInAt !== null).length).toBeGreaterThan(5);
    await clearRehearsal(id);
    expect(JSON.stringify(await Promise.all(desk.tables.map((table) => table.toArray())))).toBe(before);
    await expect(clearRehearsal('sitting1')).rejects.toThrow(/notRehearsal/);
  });
});
