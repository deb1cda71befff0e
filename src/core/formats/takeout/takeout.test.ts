import { XMLParser } from 'fast-xml-parser';
import { unzipSync, strFromU8 } from 'fflate';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  at,
  attemptOf,
  markOf,
  openQuestion,
  paperQuestions,
  sittingOf,
  studentOf,
} from '../../../../tests/unit/samples';
import { ownMarker } from '../../model/mark';
import { seatsOf } from '../../seats/seats';
import { workbookFrom, workbookRows } from '../sheet/workbook';
import { arrangedTable, columnChoices, withHeading } from './exportTable';
import { gradesTable } from './grades';
import { answersTableOf, markingTable } from './markingDetail';
import { messagesTable } from './messages';

const students = [
  studentOf({ number: '007', fields: { period: '3' } }),
  studentOf({
    id: 'student2',
    familyName: '-Lee',
    givenName: 'Wei',
    number: '12345678901234567890',
    email: '',
  }),
];
const handedIn = '2026-11-23T10:30:00.000Z';
const records = {
  sitting: sittingOf({ closesAt: '2026-11-23T10:20:00.000Z' }),
  questions: paperQuestions,
  students,
  allowances: [],
  attempts: [
    attemptOf({
      answers: { q1: { response: { picked: ['b'] }, at }, q4: { response: { text: '=iron' }, at } },
      earlier: [{ questionId: 'q4', response: { text: 'steel' }, at }],
      handedInAt: handedIn,
      timeOnMs: { q4: 61_400 },
    }),
  ],
  marks: [
    markOf({
      ...{ points: 2.5, lines: [openQuestion.kind === 'openText' ? (openQuestion.scheme[0]?.id ?? '') : ''] },
      comment: 'Say why',
      note: 'ask again',
      adjustment: { points: -0.5, reason: 'no unit' },
      history: [
        { at, by: ownMarker, why: '', before: null },
        {
          at: handedIn,
          by: ownMarker,
          why: 'read again',
          before: { points: 1, lines: [], comment: '', aside: false },
        },
      ],
    }),
  ],
  releases: [{ sittingId: 'sitting1', studentId: 'student1', releasedAt: handedIn }],
  openings: [{ sittingId: 'sitting1', studentId: 'student1', at: [handedIn, '2026-11-24T10:30:00.000Z'] }],
};
const now = Date.parse('2026-11-25T11:00:00.000Z');
const about = {
  questions: paperQuestions,
  seats: seatsOf(records, now),
  groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
  scale: { by: 'percent' as const, lines: [{ grade: 'pass', from: 0.4 }] },
  now,
};
/** The cells of a row by what their columns are called. */
const named = (rows: ReturnType<typeof withHeading>, row: number) =>
  Object.fromEntries((rows[0] ?? []).map((title, index) => [title, rows[row]?.[index] ?? null]));

describe('grades', () => {
  const rows = withHeading(gradesTable(about));

  it('have own fields, the grade, lateness and how often the result was opened', () => {
    expect(named(rows, 1)).toMatchObject({
      ...{ number: '007', period: '3', group: 'Monday', percent: 43.8, grade: 'pass', minutes: 30 },
      ...{ 'late by (minutes)': 10, 'times opened': 2, 'handed back': handedIn },
    });
    expect(named(rows, 2)).toMatchObject({
      'family name': '-Lee',
      state: 'not started',
      total: null,
      'Q1 (1)': null,
    });
  });

  it('as chosen and ordered: sets of columns go together, and every cell stays below its heading', () => {
    const table = gradesTable(about);
    const choices = columnChoices(table, { points: 'points per question' });
    expect(choices.at(-1)).toEqual({ id: 'points', title: 'points per question', columns: 4 });
    fc.assert(
      fc.property(
        fc.shuffledSubarray(choices.map(({ id }) => id)),
        fc.subarray(choices.map(({ id }) => id)),
        (order, left) => {
          const arranged = withHeading(arrangedTable(table, { order, left }));
          const before = named(rows, 1);
          const after = named(arranged, 1);
          expect(before).toMatchObject(after);
          const gone = table.columns.filter(({ id, set }) => left.includes(set ?? id)).length;
          expect(arranged[0]).toHaveLength(table.columns.length - gone);
        },
      ),
    );
  });
});

describe('marking and answers', () => {
  it('say of each answer which lines were met, what was added, by whom, when, and what was changed', () => {
    const rows = withHeading(markingTable(about, (id) => (id === ownMarker ? 'Mina' : id)));
    expect(rows).toHaveLength(1 + paperQuestions.length);
    expect(named(rows, 4)).toMatchObject({
      ...{ question: '4', points: 2.5, 'points by': 'by hand', adjustment: -0.5, reason: 'no unit' },
      ...{ comment: 'Say why', 'private note': 'ask again', 'marked by': 'Mina', 'times changed': 2 },
      history: `${at} Mina: – to 1; ${handedIn} Mina: 1 to 2.5, read again`,
    });
  });

  it('answers come with their earlier versions and the time spent', () => {
    const rows = withHeading(answersTableOf(about));
    expect(rows).toHaveLength(1 + paperQuestions.length + 1);
    expect(named(rows, 4)).toMatchObject({
      version: 'counts',
      answer: '=iron',
      'seconds on it': 61,
      points: 2.5,
    });
    expect(named(rows, 5)).toMatchObject({ version: 'earlier', answer: 'steel', points: null });
  });

  it('messages and openings stand in the order in which they were', () => {
    const message = {
      id: 'm',
      sittingId: 'sitting1',
      studentId: 'student2',
      email: '',
      subject: 'Back',
      text: '',
      at,
    };
    expect(
      withHeading(messagesTable(about, [message]))
        .slice(1)
        .map((row) => row.slice(-5)),
    ).toEqual([
      ['message', at, 'Back', 'in the outbox', null],
      ['result opened', handedIn, null, 'in the desk’s browser', null],
      ['result opened', '2026-11-24T10:30:00.000Z', null, 'in the desk’s browser', null],
    ]);
  });
});

describe('a workbook', () => {
  const rows = [
    ['number', 'family name', 'total'],
    ['007', '-Lee', 7.5],
    ['12345678901234567890', '=HYPERLINK("x")', null],
    ['1e5', '@home', -1],
  ];

  it.each(['xlsx', 'ods'] as const)(
    '%s: read again it is what was written, and no text is a formula',
    async (as) => {
      const bytes = workbookFrom(rows, 'Grades', as);
      const read = (await workbookRows(bytes)).map(({ cells }) =>
        rows[0]?.map((_, column) => cells[column] ?? ''),
      );
      expect(read).toEqual(rows.map((row) => row.map((cell) => (cell === null ? '' : String(cell)))));
      // By another reader: the XML itself (ECMA-376 18.3.1.40 has formulas in f; OpenDocument 1.3, 19.642 in table:formula).
      const files = unzipSync(bytes);
      const text = strFromU8(
        files[as === 'xlsx' ? 'xl/worksheets/sheet1.xml' : 'content.xml'] ?? new Uint8Array(),
      );
      expect(/<(\w+:)?f[ >]|table:formula/.test(text)).toBe(false);
      expect(new XMLParser().parse(text)).toBeTruthy();
      if (as === 'ods') expect(text).toContain('office:value="7.5"');
    },
  );
});
