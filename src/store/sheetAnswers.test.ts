import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { beforeEach, describe, expect, it } from 'vitest';
import { sittingOf, studentOf, tideChoice, openQuestion } from '../../tests/unit/samples';
import { questionFigures, totalFigures } from '@/core/analysis/sittingFigures';
import { bodyOf } from '@/core/formats/csv/heading';
import { textRows } from '@/core/formats/csv/textRows';
import type { TableRow } from '@/core/formats/csv/table';
import { guessAnswerColumns as guessColumns } from '@/core/intake/columns';
import { seatsOf } from '@/core/seats/seats';
import { undo } from './command';
import { sittingRecords } from './queries';
import { bringAnswers } from './bringAnswers';
import { asKept, keepColumns, lookAtSheet, type SheetChoices } from './sheetAnswers';
import { desk } from './tables';

const guessAnswerColumns = (
  rows: Parameters<typeof guessColumns>[0],
  questions: Parameters<typeof guessColumns>[1],
) => guessColumns(rows, questions, (column) => `column-${column + 1}`);

const now = '2026-11-27T10:00:00.000Z';

beforeEach(async () => {
  await Promise.all(desk.tables.map((table) => table.clear()));
});

const choicesFor = (rows: readonly TableRow[], part: Partial<SheetChoices> = {}): SheetChoices => ({
  into: { is: 'newPaper', title: 'From a form' },
  columns: guessAnswerColumns(rows, null),
  keyRow: null,
  made: {},
  dayOrder: 'dayFirst',
  several: 'attempts',
  ...part,
});
const guests = { are: 'guests' } as const;
const bodyRows = (rows: readonly TableRow[]) => bodyOf(rows, 0).length;

describe('a sheet of answers becomes a sitting', () => {
  // Source: psychTools::iqitems (SAPA project); values by R 4.2.2 and psych 2.2.9, as tests/reference/iqitems.expected.json says.
  it('with figures equal to those of a published table: picks in, a row with the key, figures out', async () => {
    const read = (name: string) =>
      readFileSync(new URL(`../../tests/reference/${name}`, import.meta.url), 'utf8');
    const expected = JSON.parse(read('iqitems.expected.json')) as {
      key: number[];
      n: number;
      total: { mean: number; sd: number };
      items: { name: string; mean: number }[];
    };
    const [heading = '', ...picks] = read('iqitems.csv').trim().split('\n');
    const rows = textRows([heading, expected.key.join(','), ...picks].join('\n'));
    const choices = choicesFor(rows, { keyRow: 1 });
    const look = await lookAtSheet(rows, choices);
    expect(new Set(look.questions.map(({ kind }) => kind))).toEqual(new Set(['oneChoice']));
    expect([look.bad, look.badKeys, look.stops]).toEqual([[], [], []]);
    const { result } = await bringAnswers(rows, choices, guests, [], now);
    expect(result.attempts).toBe(expected.n);
    const records = await sittingRecords(result.sittingId);
    if (!records) throw new Error('there is a sitting');
    const seats = seatsOf(records, Date.parse(now));
    const totals = totalFigures(seats);
    expect(totals?.mean).toBeCloseTo(expected.total.mean, 9);
    expect(totals?.standardDeviation).toBeCloseTo(expected.total.sd, 9);
    const items = questionFigures(records.questions, seats);
    expect(items.map(({ facility }) => facility?.toFixed(9))).toEqual(
      expected.items.map(({ mean }) => mean.toFixed(9)),
    );
  }, 120_000);

  it('into a paper that exists, with its students, new ones in a group, and points that were given', async () => {
    await desk.students.add(
      studentOf({ id: 's1', number: '0071', familyName: 'Okafor', givenName: 'Amara', groupIds: ['g1'] }),
    );
    await desk.groups.add({ id: 'g1', name: 'Evening', createdAt: now });
    await desk.papers.add({
      ...{ id: 'paper', title: 'Tides', instructions: '', createdAt: now, changedAt: now },
      questions: [
        { ...tideChoice, id: 'a' },
        { ...openQuestion, id: 'b', points: 3 },
      ],
    });
    const rows = textRows(
      'Number\tName\t1\t2\tPoints\n0071\tAmara Okafor\tB\tbecause\t2\n0099\tIna Berg\tC\tso\t',
    );
    const columns = guessAnswerColumns(rows, (await desk.papers.get('paper'))?.questions ?? []);
    const choices = choicesFor(rows, {
      columns,
      into: { is: 'paper', paperId: 'paper', title: 'Evening test' },
    });
    const look = await lookAtSheet(rows, choices);
    expect(look.groups).toEqual([{ groupId: 'g1', students: 1 }]);
    const { result, said } = await bringAnswers(
      rows,
      choices,
      { are: 'students', groupId: 'g1' },
      ['g1'],
      now,
    );
    expect(said).toBe('Answers of 2 attempts imported');
    const records = await sittingRecords(result.sittingId);
    if (!records) throw new Error('there is a sitting');
    expect(records.sitting).toMatchObject({ title: 'Evening test', groupIds: ['g1'], closedToStartsAt: now });
    const seats = seatsOf(records, Date.parse(now));
    expect(
      seats.map(({ student, state, scorecard }) => [
        student.number,
        state,
        scorecard?.total,
        scorecard?.waiting,
      ]),
    ).toEqual([
      ['0099', 'handedIn', 0, 1],
      ['0071', 'handedIn', 3, 0],
    ]);
    // All of it is gone again with one undo, and what was there before stays.
    expect((await undo('2026-11-27T10:01:00.000Z')).outcome).toBe('undone');
    expect([
      await desk.sittings.count(),
      await desk.attempts.count(),
      await desk.marks.count(),
      await desk.paperVersions.count(),
    ]).toEqual([0, 0, 0, 0]);
    expect((await desk.students.toArray()).map(({ id }) => id)).toEqual(['s1']);
  });

  it('brought in again with more rows, only what is new or changed is', async () => {
    const sheet = (more: string) =>
      textRows(
        `Name\tWhere does it flow?\tWhy?\nAmara Okafor\tnorth\tthe moon\nKai Lindqvist\tsouth\t${more}`,
      );
    const first = sheet('the sun');
    const { result } = await bringAnswers(first, choicesFor(first), guests, [], now);
    const again = sheet('the wind\nIna Berg\tnorth\t');
    const into = { is: 'sitting', sittingId: result.sittingId } as const;
    const records = await sittingRecords(result.sittingId);
    const columns = guessAnswerColumns(again, records?.questions ?? []);
    const choices = choicesFor(again, { into, columns });
    const look = await lookAtSheet(again, choices);
    expect(look.planned.map(({ becomes }) => becomes)).toEqual(['same', 'changed', 'new']);
    const kept = await desk.attempts.toArray();
    const { result: brought } = await bringAnswers(again, choices, guests, [], now);
    expect(brought).toEqual({ sittingId: result.sittingId, attempts: 2 });
    expect(await desk.attempts.count()).toBe(3);
    const same = kept.find(({ id }) => id === look.planned[0]?.attempt?.id);
    expect(await desk.attempts.get(same?.id ?? '')).toEqual(same);
    const changed = await desk.attempts.get(look.planned[1]?.attempt?.id ?? '');
    expect(changed?.earlier?.map(({ response }) => response)).toEqual([{ text: 'the sun' }]);
  });

  it('of one student in several rows, the last counts; nobody gets another attempt by it, in a sitting that is there neither', async () => {
    const rows = textRows('Name\tWhere?\nAmara Okafor\tnorth\nAmara Okafor\tsouth\nIna Berg\tnorth');
    const { result } = await bringAnswers(rows, choicesFor(rows), guests, [], now);
    const records = await sittingRecords(result.sittingId);
    if (!records) throw new Error('there is a sitting');
    expect(records.sitting.attempts).toBeUndefined();
    const amara = seatsOf(records, Date.parse(now)).find(({ student }) => student.familyName === 'Okafor');
    expect([amara?.attemptCount, amara?.attempt?.number]).toEqual([2, 2]);
    const again = textRows('Name\tWhere?\nIna Berg\tnorth\nIna Berg\twest');
    const into = { is: 'sitting', sittingId: result.sittingId } as const;
    const columns = guessAnswerColumns(again, records.questions);
    await bringAnswers(again, choicesFor(again, { into, columns }), guests, [], now);
    expect((await desk.sittings.get(result.sittingId))?.attempts).toBeUndefined();
  });

  it('two students of one name are told apart, or left out and said', async () => {
    await desk.students.bulkAdd([
      studentOf({ id: 's1', number: '', familyName: 'Okafor', givenName: 'Amara', joinCode: 'A2A2A2' }),
      studentOf({ id: 's2', number: '', familyName: 'Okafor', givenName: 'Amara', joinCode: 'A3A3A3' }),
    ]);
    const rows = textRows('Name\tWhere?\nAmara Okafor\tnorth\nIna Berg\tsouth');
    const { result } = await bringAnswers(rows, choicesFor(rows), guests, [], now);
    expect(result.attempts).toBe(1);
    expect((await desk.attempts.toArray()).some(({ studentId }) => studentId.startsWith('s'))).toBe(false);
  });

  it('rows without a name are guests of their own, found again by their row', async () => {
    const rows = textRows('Where?\tWhy?\nnorth\tmoon\nnorth\tmoon');
    const { result } = await bringAnswers(rows, choicesFor(rows), guests, [], now);
    expect((await desk.students.toArray()).map(({ familyName }) => familyName).sort()).toEqual([
      'Row 2',
      'Row 3',
    ]);
    const choices = choicesFor(rows, {
      into: { is: 'sitting', sittingId: result.sittingId },
      columns: guessAnswerColumns(rows, (await sittingRecords(result.sittingId))?.questions ?? []),
    });
    expect((await lookAtSheet(rows, choices)).planned.map(({ becomes }) => becomes)).toEqual([
      'same',
      'same',
    ]);
  });

  it('a kind that its answers cannot make is said before', async () => {
    const rows = textRows('Name\tWhere?\nAmara Okafor\tnorth\nIna Berg\tnorth');
    const look = await lookAtSheet(rows, choicesFor(rows, { made: { 1: { kind: 'oneChoice' } } }));
    expect(look.stops.map(({ code }) => code)).toEqual(['fewOptions']);
    await expect(
      bringAnswers(rows, choicesFor(rows, { made: { 1: { kind: 'oneChoice' } } }), guests, [], now),
    ).rejects.toThrow('paperNotReady');
    expect(await desk.papers.count()).toBe(0);
  });

  it('columns are read as those of the same names were the last time', async () => {
    await desk.sittings.add(sittingOf({ id: 'sitting1' }));
    const rows = textRows('Name\tWhat else\nAmara Okafor\tnorth');
    const columns = guessAnswerColumns(rows, null);
    await keepColumns('sitting1', { ...columns, roles: [{ is: 'fullName' }, { is: 'own' }] });
    expect((await asKept('sitting1', columns)).roles).toEqual([{ is: 'fullName' }, { is: 'own' }]);
    expect(bodyRows(rows)).toBe(1);
  });
});
