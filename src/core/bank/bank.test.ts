import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sum } from 'remeda';
import { at, samples } from '../../../tests/unit/samples';
import { discrimination } from '../analysis/discrimination';
import type { Question } from '../kinds';
import type { BankQuestion } from '../model/bank';
import type { Paper } from '../model/paper';
import {
  bankRows,
  discriminationBand,
  facilityBand,
  filteredRows,
  linkedCopy,
  sameQuestion,
  type BankFilter,
  type QuestionRecord,
} from './bankRows';

describe('discrimination', () => {
  const reference = (name: string) => new URL(`../../../tests/reference/${name}`, import.meta.url);
  const expected = JSON.parse(readFileSync(reference('lsat6.expected.json'), 'utf8')) as {
    items: { name: string; r_rest: number }[];
  };
  const table = readFileSync(reference('lsat6.csv'), 'utf8')
    .trim()
    .split(/\r?\n/)
    .slice(1)
    .map((line) =>
      line
        .split(',')
        .slice(-expected.items.length)
        .map((cell) => Number(cell.replaceAll('"', ''))),
    );
  const totals = table.map((row) => sum(row));

  // Values of R (psych) for Bock & Lieberman 1970, in tests/reference: the corrected item–total correlation.
  it.each(expected.items.map((item, index) => [item.name, index, item.r_rest] as const))(
    '%s',
    (_, index, rest) => {
      const points = table.map((row) => row[index] ?? 0);
      expect(Math.abs((discrimination(points, totals) ?? 0) / rest - 1)).toBeLessThan(1e-9);
    },
  );

  it('is not known for one answer, nor where all are the same; always −1 to 1', () => {
    expect(discrimination([1], [3])).toBeNull();
    expect(discrimination([1, 1], [3, 2])).toBeNull();
    expect(() => discrimination([1], [])).toThrow(RangeError);
    const pair = fc.tuple(fc.integer({ min: 0, max: 4 }), fc.integer({ min: 0, max: 40 }));
    fc.assert(
      fc.property(fc.array(pair, { minLength: 2 }), (pairs) => {
        const r = discrimination(
          pairs.map(([points]) => points),
          pairs.map(([points, rest]) => points + rest),
        );
        if (r !== null) expect(Math.abs(r)).toBeLessThanOrEqual(1 + 1e-12);
      }),
    );
  });
});

describe('the bank', () => {
  const entry: BankQuestion = { id: 'b1', question: samples.trueFalse, createdAt: at, changedAt: at };
  const linked = linkedCopy(entry, () => 'new1');
  const paper = (id: string, questions: Question[]): Paper => ({
    id,
    title: `Paper ${id}`,
    instructions: '',
    questions,
    createdAt: at,
    changedAt: at,
  });
  const record = (questionId: string, opensAt: string, facility: number | null): QuestionRecord => ({
    questionId,
    sittingId: `s ${opensAt}`,
    title: 'Tides',
    version: 1,
    asSat: null,
    opensAt,
    scored: facility === null ? 0 : 30,
    facility,
    discrimination: facility === null ? null : facility - 0.5,
  });
  const papers = [paper('p', [linked, samples.number]), paper('q', [{ ...linked, id: 'new2', points: 3 }])];
  const rows = bankRows([entry], papers, [
    record('new1', '2026-09-01T10:00:00.000Z', 0.8),
    record('new2', '2026-10-01T10:00:00.000Z', 0.6),
    record('new2', '2026-11-01T10:00:00.000Z', null),
  ]);
  const all: BankFilter = {
    words: '',
    tag: '',
    kind: '',
    where: 'all',
    order: 'words',
    points: null,
    facility: '',
    discrimination: '',
  };

  it('a question taken from the bank is linked and shares no id', () => {
    expect(linked).toMatchObject({ id: 'new1', bankId: 'b1', kind: 'trueFalse' });
    expect(sameQuestion(linked, entry.question)).toBe(true);
    expect(sameQuestion({ ...linked, points: 2 }, entry.question)).toBe(false);
  });

  it('lists each question once, with where it is used and whether it is still the same there', () => {
    expect(rows.map((row) => row.id)).toEqual(['b1', 'q6']);
    expect(rows[0]?.uses).toEqual([
      { paperId: 'p', title: 'Paper p', questionId: 'new1', same: true },
      { paperId: 'q', title: 'Paper q', questionId: 'new2', same: false },
    ]);
    expect(rows[1]).toMatchObject({ entry: null, lastUsed: null, record: null });
  });

  it('its figures are those of the latest sitting that has any', () => {
    expect(rows[0]?.record?.facility).toBe(0.6);
    expect(rows[0]?.lastUsed).toBe('2026-11-01T10:00:00.000Z');
  });

  it('the lines between hard and easy, weak and good', () => {
    expect([0, 0.39, 0.4, 0.8, 0.81, 1].map(facilityBand)).toEqual([
      'hard',
      'hard',
      'middling',
      'middling',
      'easy',
      'easy',
    ]);
    expect([-1, 0.19, 0.2, 1].map(discriminationBand)).toEqual(['weak', 'weak', 'good', 'good']);
  });

  it('keeps the record of every sitting, the latest first', () => {
    expect(rows[0]?.records.map(({ opensAt, facility }) => [opensAt.slice(0, 7), facility])).toEqual([
      ['2026-11', null],
      ['2026-10', 0.6],
      ['2026-09', 0.8],
    ]);
  });

  it('is searched by words in any order, in what is asked, the key and the tags', () => {
    const ids = (filter: Partial<BankFilter>) =>
      filteredRows(rows, { ...all, ...filter }).map((row) => row.id);
    expect(ids({ words: 'WHITE stern' })).toEqual(['b1']);
    expect(ids({ words: 'nm 18' })).toEqual(['q6']);
    expect(ids({ kind: 'number' })).toEqual(['q6']);
    expect(ids({ where: 'bank' })).toEqual(['b1']);
    expect(ids({ where: 'neverUsed' })).toEqual(['q6']);
    expect(ids({ tag: 'none such' })).toEqual([]);
    expect(ids({ points: 1 })).toEqual(['b1']);
    expect(ids({ points: 7 })).toEqual([]);
    expect(ids({ facility: 'middling' })).toEqual(['b1']);
    expect(ids({ facility: 'easy' })).toEqual([]);
    expect(ids({ discrimination: 'weak' })).toEqual(['b1']);
    expect(ids({ discrimination: 'good' })).toEqual([]);
    expect(ids({ order: 'facility' })).toEqual(['b1', 'q6']);
    expect(ids({ order: 'lastUsed' })).toEqual(['q6', 'b1']);
  });
});
