import { describe, expect, it } from 'vitest';
import { counter, openQuestion, studentOf, tideChoice } from '../../../tests/unit/samples';
import { bodyOf } from '../formats/csv/heading';
import { textRows } from '../formats/csv/textRows';
import { kindOf } from '../kinds';
import { broughtAgain, broughtAttempt } from './broughtAttempt';
import { guessAnswerColumns as guessColumns } from './columns';
import { sheetFault } from './sheetFault';
import { paperFromSheet } from './sheetPaper';
import { sheetPlan } from './sheetPlan';
import { answerRows } from './sheetRows';
import { dayOrderOf, instantFrom } from './times';

const columnQuestion = (column: number) => `column-${column + 1}`;
const guessAnswerColumns = (
  rows: Parameters<typeof guessColumns>[0],
  questions: Parameters<typeof guessColumns>[1],
) => guessColumns(rows, questions, columnQuestion);

const now = '2026-11-27T10:00:00.000Z';

/** As a form gives it. */
const form = textRows(
  [
    'Timestamp,Your name,Student number,What is the name of the stream that runs out?,Is HW before LW?,Which lights are red?,How far in 2 h at 6 kn?,Why do springs come after new moon?,Points,Score',
    '23/11/2026 18:01:02,Okafor; Amara,0071,ebb,True,Port; Not under command,12,"Because sun and moon pull in one line, and the water answers about two days later",2,80%',
    '23/11/2026 18:02:00,Ines Duarte,0072,Ebb,False,Port,"12,0","The moon is in line with the sun then, so that both tides add up at one place",1.5,70%',
    '23/11/2026 18:03:00,Kai Lindqvist,,flood,True,Port; Not under command,24,"I do not know but I think it has to do with the moon being new",,10%',
    '23/11/2026 18:04:00,Ines Duarte,0072,ebb,True,Port,12,"Both pull in one line and the sea needs a day or two to follow them",3,75%',
  ].join('\n'),
);

describe('the columns of a sheet of answers', () => {
  it('are guessed from their names and from what stands in them', () => {
    const { heading, roles } = guessAnswerColumns(form, null);
    expect(heading).toBe(0);
    expect(roles).toEqual([
      { is: 'handedInAt' },
      { is: 'fullName' },
      { is: 'number' },
      ...[3, 4, 5, 6, 7].map((column) => ({ is: 'answers', questionId: columnQuestion(column) })),
      { is: 'points', questionId: columnQuestion(7) },
      { is: 'nothing' },
    ]);
  });

  it('make questions of the kinds that their answers look like', () => {
    const columns = guessAnswerColumns(form, null);
    const { questions } = paperFromSheet(bodyOf(form, 0), columns, null, {}, counter('o'));
    expect(questions.map(({ kind }) => kind)).toEqual([
      'oneChoice',
      'trueFalse',
      'severalChoices',
      'number',
      'openText',
    ]);
    expect(questions.map(({ stem }) => stem)).toContain('How far in 2 h at 6 kn?');
  });

  it('a date with a time of day is when a row came, whatever its column is called', () => {
    const sheet = textRows(
      'When\tName\tWhich?\n13/11/2026 18:00\tInes Duarte\tebb\n14/11/2026 18:01\tKai Lindqvist\tebb',
    );
    expect(guessAnswerColumns(sheet, null).roles[0]).toEqual({ is: 'handedInAt' });
  });

  it('without a heading every row is a student’s', () => {
    expect(guessAnswerColumns(textRows('a\tb\na\tb\nb\ta'), null).heading).toBeNull();
    // Numbers above numbers are picks, however different the first row is.
    expect(guessAnswerColumns(textRows('1,2\n3,4\n1,2'), null).heading).toBeNull();
  });

  it('go to the questions of a paper by words, by number, and what is left by order', () => {
    const questions = [
      { ...tideChoice, id: 'a', stem: 'How much of the range in the third hour?' },
      { ...openQuestion, id: 'b', stem: 'Say why.' },
      { ...openQuestion, id: 'c', stem: 'And why not?' },
    ];
    const sheet = (titles: string) => textRows(`${titles}\nx\t3/12\ty\tz`);
    const of = (titles: string) =>
      guessAnswerColumns(sheet(titles), questions).roles.map((role) =>
        role.is === 'answers' ? role.questionId : role.is,
      );
    expect(of('Name\tHow much of the range in the third hour\tWhy, then\tWhy not, then')).toEqual([
      'fullName',
      'a',
      'b',
      'c',
    ]);
    expect(of('Name\tQ3\tQ1\tQ2')).toEqual(['fullName', 'c', 'a', 'b']);
    expect(of('Name\t2. Say why\t3\t1')).toEqual(['fullName', 'b', 'c', 'a']);
  });
});

describe('the key of a row', () => {
  const sheet = textRows(
    'Name\tQ1\tQ2\tQ3\nKEY\tB\t12\t\nAmara Okafor\tA\t13\tx y\nKai Lindqvist\tB\t12\tx\nIna Berg\tB\t11\t\nOtto Marsh\tA\t12\t',
  );

  it('is taken for each question; a question without one has no key yet', () => {
    const columns = guessAnswerColumns(sheet, null);
    const key = sheet[1] ?? null;
    const { questions, badKeys } = paperFromSheet(
      sheet.slice(2),
      columns,
      key,
      { 2: { kind: 'number', points: 2, tags: ['speed'] } },
      counter('o'),
    );
    expect(badKeys).toEqual([]);
    expect(
      questions.map((question) => [kindOf(question).hasKey(question), kindOf(question).keyText(question)]),
    ).toEqual([
      [true, 'B  B'],
      [true, '12'],
      [false, ''],
    ]);
    expect(questions[1]).toMatchObject({ points: 2, tags: ['speed'], id: 'column-3' });
  });

  it('typed for a question holds over the row', () => {
    const { questions } = paperFromSheet(
      sheet.slice(2),
      guessAnswerColumns(sheet, null),
      sheet[1] ?? null,
      { 1: { key: 'A' }, 3: { kind: 'openText', key: 'because' }, 2: { key: ' ' } },
      counter('o'),
    );
    expect(questions.map((question) => kindOf(question).keyText(question))).toEqual([
      'A  A',
      '12',
      'because',
    ]);
  });

  it('that is no answer to its question is named', () => {
    const { badKeys } = paperFromSheet(
      sheet.slice(2),
      guessAnswerColumns(sheet, null),
      { line: 2, cells: ['KEY', 'perhaps', '', ''] },
      { 1: { kind: 'trueFalse' } },
      counter('o'),
    );
    expect(badKeys).toEqual([{ column: 1, cell: 'perhaps' }]);
  });
});

describe('the rows', () => {
  const questions = [
    { ...tideChoice, id: 'a' },
    { ...openQuestion, id: 'b', points: 3 },
  ];
  const sheet = textRows(
    'Student number\tName\tHanded in\tQ1\tQ2\tPoints\n0071\tAmara Okafor\t2026-11-23 18:00\t3/12\tbecause\t2\n0072\tIna Berg\t2026-11-23 25:00\t7/12\t\t9\n\tKai Lindqvist\t2026-11-22 18:00\tB\tso\t',
  );
  const columns = guessAnswerColumns(sheet, questions);
  const read = answerRows(bodyOf(sheet, 0), columns, questions, 'dayFirst');

  it('give answers, points and times; what cannot be used is named by row and column', () => {
    const [first, second] = read.rows;
    expect(first?.answers).toEqual({ a: { picked: ['b'] }, b: { text: 'because' } });
    expect(first?.points).toEqual({ b: 2 });
    expect(first?.handedInAt).toBe(new Date(2026, 10, 23, 18, 0).toISOString());
    expect(second?.answers).toEqual({});
    expect(read.bad).toEqual([
      { line: 3, column: 2, cell: '2026-11-23 25:00', why: 'noTime' },
      { line: 3, column: 3, cell: '7/12', why: 'noAnswer' },
      { line: 3, column: 5, cell: '9', why: 'tooManyPoints' },
    ]);
  });

  it('belong to students by number, email or a name that only one has', () => {
    const students = [
      studentOf({ id: 's1', number: '0071', familyName: 'Okafor', givenName: 'Amara', joinCode: 'A2A2A2' }),
      studentOf({ id: 's2', number: '', familyName: 'Lindqvist', givenName: 'Kai', joinCode: 'A3A3A3' }),
      studentOf({ id: 's3', number: '9', familyName: 'Berg', givenName: 'Ina', joinCode: 'A4A4A4' }),
    ];
    const plan = sheetPlan(read.rows, 'attempts', students, null, { attempts: [], marks: [] }, questions);
    expect(plan.map(({ owner }) => owner)).toEqual([
      { is: 'known', studentId: 's1', by: 'number' },
      { is: 'new', name: 'Ina Berg' },
      { is: 'known', studentId: 's2', by: 'name' },
    ]);
    const twins = [
      ...students,
      studentOf({ id: 's4', number: '', familyName: 'Lindqvist', givenName: 'Kai', joinCode: 'A5A5A5' }),
    ];
    expect(
      sheetPlan(read.rows, 'attempts', twins, null, { attempts: [], marks: [] }, questions)[2],
    ).toMatchObject({
      owner: { is: 'ambiguous', name: 'Kai Lindqvist' },
      becomes: 'ambiguous',
    });
  });

  it('of one student are attempts in the order of their times, or the last alone', () => {
    const rows = [
      { ...read.rows[0], line: 2, handedInAt: '2026-11-23T19:00:00.000Z' },
      { ...read.rows[0], line: 3, handedInAt: '2026-11-23T18:00:00.000Z' },
    ] as typeof read.rows;
    const numbers = (several: 'attempts' | 'last') =>
      sheetPlan(rows, several, [], null, { attempts: [], marks: [] }, questions).map(
        ({ number, becomes }) => [becomes, number],
      );
    expect(numbers('attempts')).toEqual([
      ['new', 2],
      ['new', 1],
    ]);
    expect(numbers('last')).toEqual([
      ['new', 1],
      ['older', 0],
    ]);
  });

  it('brought in again, only what is new or changed; what was there is kept as an earlier version', () => {
    const students = [studentOf({ id: 's1', number: '0071', joinCode: 'A2A2A2' })];
    const [first] = read.rows;
    if (!first) throw new Error('there is a first row');
    const attempt = broughtAttempt(first, questions, {
      ...{ id: 'x', sittingId: 'sitting1', studentId: 's1', number: 1, paperVersion: 1, now },
    });
    const marks = [{ attemptId: 'x', questionId: 'b' }];
    const again = (row: typeof first) =>
      sheetPlan([row], 'attempts', students, 'sitting1', { attempts: [attempt], marks }, questions)[0];
    expect(again(first)).toMatchObject({ becomes: 'same', changed: [] });
    const other = { ...first, answers: { a: { picked: ['c'] } } };
    expect(again(other)).toMatchObject({ becomes: 'changed', changed: ['a', 'b'] });
    // A cell that can be no answer leaves the one that was there.
    expect(again({ ...other, unread: ['b'] })).toMatchObject({ changed: ['a'] });
    // Points are taken where nobody marked here.
    expect(again({ ...first, points: { a: 1, b: 3 } })).toMatchObject({ becomes: 'changed', points: ['a'] });
    const next = broughtAgain(attempt, other, ['a', 'b'], '2026-11-28T10:00:00.000Z');
    expect(next.answers).toEqual({ a: { response: { picked: ['c'] }, at: '2026-11-28T10:00:00.000Z' } });
    expect(next.earlier?.map(({ questionId, response }) => [questionId, response])).toEqual([
      ['a', { picked: ['b'] }],
      ['b', { text: 'because' }],
    ]);
  });
});

describe('times as they are written', () => {
  it('day or month first is told by a date that can only be one', () => {
    expect(dayOrderOf(['03/04/2026', '13/04/2026'])).toBe('dayFirst');
    expect(dayOrderOf(['03/04/2026', '04/13/2026'])).toBe('monthFirst');
    expect(dayOrderOf(['03/04/2026', '2026-04-13'])).toBeNull();
  });

  it('are read by that order, in the reader’s zone unless they say one', () => {
    const local = new Date(2026, 3, 3, 14, 5, 9).toISOString();
    for (const text of ['03/04/2026 14:05:09', '3.4.2026, 14:05:09', '03/04/26 2:05:09 PM'])
      expect(instantFrom(text, 'dayFirst')).toBe(local);
    expect(instantFrom('04/03/2026 2:05:09 pm', 'monthFirst')).toBe(local);
    // Source: ISO 8601-1:2019, 5.4.2 (an example of its combined representations).
    expect(instantFrom('1985-04-12T23:20:30Z', 'dayFirst')).toBe('1985-04-12T23:20:30.000Z');
    expect(instantFrom('1985-04-12T23:20:30+04:00', 'dayFirst')).toBe('1985-04-12T19:20:30.000Z');
    for (const text of ['31/02/2026', '12:00', 'yesterday', '1/1/2026 24:10'])
      expect(instantFrom(text, 'dayFirst')).toBeNull();
  });
});

describe('before a sheet is brought in', () => {
  const ready = { rows: 5, questions: 3, stops: 0, title: 'Week 9', groupName: null };

  it('what stands in the way is said, the first of it', () => {
    expect(sheetFault(ready)).toBeNull();
    expect(sheetFault({ ...ready, title: null })).toBeNull();
    expect(sheetFault({ ...ready, title: ' ', groupName: '' })).toBe('noTitle');
    expect(sheetFault({ ...ready, groupName: '' })).toBe('noGroupName');
    expect(sheetFault({ ...ready, stops: 1, title: '' })).toBe('badColumns');
    expect(sheetFault({ ...ready, rows: 0 })).toBe('nothingNew');
    expect(sheetFault({ ...ready, rows: 0, questions: 0 })).toBe('noAnswers');
  });
});
