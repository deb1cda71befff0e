// @vitest-environment jsdom
import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { buildDemo } from '@demo/buildDemo';
import { at, studentOf } from '../../tests/unit/samples';
import { fullName } from '@/core/model/names';
import { replaceDesk } from '@/store/backup';
import { studentData } from '@/store/studentData';
import { desk } from '@/store/tables';
import { studentDataPage } from './studentData';

beforeEach(async () => {
  await desk.delete();
  await desk.open();
  await replaceDesk(buildDemo(Date.parse(at)));
});

const read = (html: string) => new DOMParser().parseFromString(html, 'text/html');

describe('one student’s data as a page', () => {
  it('has every answer, mark and message of theirs, nobody else’s, and no key', async () => {
    const student = await desk.students.get('student05');
    const data = await studentData('student05');
    if (!student || !data) throw new Error('no such student in the demo');
    const page = read(studentDataPage(data, at));
    const text = page.body.textContent ?? '';
    expect(page.querySelector('h1')?.textContent).toBe(fullName(student));
    for (const word of [student.number, student.email, 'Monday evening', 'Quiz 1: lights and marks is back'])
      expect(text).toContain(word);
    const attempts = await desk.attempts.where({ studentId: 'student05' }).toArray();
    expect(page.querySelectorAll('h3')).toHaveLength(attempts.length);
    // Counted apart: a row for every answer that was given.
    const given = sumBy(attempts, ({ answers }) => Object.keys(answers).length);
    const answers = data.sittings.flatMap((sitting) => sitting.attempts.flatMap((each) => each.answers));
    expect(answers.filter(({ version }) => version === 'counts')).toHaveLength(given);
    for (const answer of answers) expect(text).toContain(answer.text);
    const marks = await desk.marks
      .where('attemptId')
      .anyOf(attempts.map(({ id }) => id))
      .toArray();
    expect(marks.length).toBeGreaterThan(0);
    for (const { comment } of marks) expect(text).toContain(comment);
    const reasons = attempts.flatMap(({ events }) => events.flatMap(({ reason }) => reason ?? []));
    for (const reason of reasons) expect(text).toContain(reason);
    for (const other of await desk.students.where('id').notEqual('student05').toArray())
      expect(text.includes(fullName(other)), fullName(other)).toBe(false);
    const keys = (await desk.papers.toArray()).flatMap(({ questions }) =>
      questions.flatMap((question) => ('modelAnswer' in question && question.modelAnswer) || []),
    );
    expect(keys.length).toBeGreaterThan(0);
    expect(keys.filter((key) => text.includes(String(key)))).toEqual([]);
  });

  it('has what was changed in a mark, what stands in mark books, why a result is held back, and how many pages were scanned', async () => {
    const [attempt] = await desk.attempts.where({ studentId: 'student64', sittingId: 'lights' }).toArray();
    const questionId = attempt?.questionIds[0] ?? '';
    const mark = { points: 1, lines: [], comment: 'Now better', aside: false };
    await desk.marks.put({
      ...mark,
      ...{ attemptId: attempt?.id ?? '', questionId, markerId: 'teacher', sittingId: 'lights', at },
      history: [
        { at, by: 'teacher', why: 'seen again', before: { ...mark, comment: 'At first too little' } },
      ],
    });
    await desk.markBooks.toCollection().modify((book) => {
      for (const column of book.columns) if (column.kind === 'typed') column.values.student64 = 7.5;
    });
    const heldBack = { at, reason: 'Has to talk to me' };
    await desk.releases.put({ sittingId: 'lights', studentId: 'student64', releasedAt: at, heldBack });
    const data = await studentData('student64');
    const text = read(studentDataPage(data ?? expect.fail(), at)).body.textContent ?? '';
    for (const words of [
      'Now better',
      'At first too little',
      'seen again',
      '7.5',
      'Has to talk to me',
      'Scanned pages',
    ])
      expect(text).toContain(words);
  });

  it('shows words as they were typed, whatever they look like', () => {
    const student = studentOf({ familyName: '<script>alert(1)</script>', fields: { 'A & B': '"x"' } });
    const page = read(studentDataPage({ student, groups: [], typed: [], sittings: [] }, at));
    expect(page.querySelectorAll('script')).toHaveLength(0);
    expect(page.body.textContent).toContain('<script>alert(1)</script>');
    expect(page.body.textContent).toContain('A & B"x"');
  });

  it('is null for who is not there', async () => {
    expect(await studentData('nobody')).toBeNull();
  });
});
