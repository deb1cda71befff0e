import { strFromU8, unzipSync } from 'fflate';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../../tests/unit/samples';
import { wholeAttempt } from '../../model/mark';
import { seatsOf } from '../../seats/seats';
import { registerResults, resultsDue, resultsPackage } from './writeResults';

const students = [
  studentOf({ number: '007' }),
  studentOf({ id: 'student2', number: '+12', familyName: 'Tran', joinCode: 'B2B2B2' }),
  studentOf({ id: 'student3', number: '', familyName: 'Silva', joinCode: 'C3C3C3' }),
  studentOf({ id: 'guest', number: '', role: 'guest', onlySittingId: 'sitting1', joinCode: 'D4D4D4' }),
];
const now = Date.parse('2026-11-25T11:00:00.000Z');
const records = {
  sitting: sittingOf({ title: 'Tides, "springs" and neaps', closesAt: '2026-11-23T10:20:00.000Z' }),
  questions: paperQuestions,
  students,
  allowances: [],
  attempts: [
    attemptOf({
      answers: { q1: { response: { picked: ['b'] }, at }, q4: { response: { text: 'iron' }, at } },
      handedInAt: '2026-11-23T10:30:00.000Z',
    }),
  ],
  marks: [markOf({ points: 2.5 }), markOf({ questionId: wholeAttempt, comment: 'Well, nearly' })],
  releases: [],
  openings: [],
};
const about = {
  ...{ sitting: records.sitting, seats: seatsOf(records, now), now },
  groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
  scale: { by: 'percent' as const, lines: [{ grade: 'pass', from: 0.4 }] },
};

describe('results for a register', () => {
  it('are one a student whom it knows, told once all is marked; what it cannot hold is listed', () => {
    const { results, losses } = registerResults(about);
    expect(results).toMatchObject([
      {
        ...{
          studentSourcedId: '007',
          score: 3.5,
          textScore: 'pass',
          scoreStatus: 'fully graded',
          late: true,
        },
        ...{ comment: 'Well, nearly', classSourcedId: 'group1', missing: false, scoreDate: '2026-11-23' },
      },
      { studentSourcedId: '+12', score: null, scoreStatus: 'not submitted', missing: true },
    ]);
    expect(losses).toEqual([
      { code: 'noNumber', names: ['Silva, Amara'] },
      { code: 'guests', count: 1 },
      { code: 'onlyTotals' },
      { code: 'classNames' },
    ]);
    // What the register has is not due again; what changed is a correction.
    const had = new Map(results.map((row) => [row.sourcedId, JSON.stringify(row)]));
    expect(resultsDue(results, new Map())).toEqual({ due: results, corrections: 0 });
    expect(resultsDue(results, had).due).toEqual([]);
    const [first, ...rest] = results;
    const changed = first ? [{ ...first, score: 4 }, ...rest] : [];
    expect(resultsDue(changed, had)).toMatchObject({ due: [{ score: 4 }], corrections: 1 });
    const unmarked = seatsOf({ ...records, marks: [] }, now);
    expect(registerResults({ ...about, seats: unmarked }).results[0]).toMatchObject({
      ...{ score: null, textScore: '', scoreStatus: 'partially graded' },
    });
  });

  // 1EdTech OneRoster 1.2, CSV Binding: a manifest says of each file whether it is there; from memory.
  it('are a package whose manifest names its files, every cell as it is, read by another reader', () => {
    const files = unzipSync(resultsPackage(about).zip);
    const rows = (name: string) => {
      const text = strFromU8(files[name] ?? new Uint8Array()).trimEnd();
      return Papa.parse<Record<string, string>>(text, { header: true, delimiter: ',' }).data;
    };
    const manifest = new Map(
      rows('manifest.csv').map(({ propertyName = '', value = '' }) => [propertyName, value]),
    );
    expect(manifest.get('oneroster.version')).toBe('1.2');
    for (const [name, is] of manifest)
      if (name.startsWith('file.')) expect(`${name.slice(5)}.csv` in files).toBe(is === 'bulk');
    expect(rows('lineItems.csv')).toMatchObject([
      {
        sourcedId: 'sitting1',
        title: 'Tides, "springs" and neaps',
        resultValueMax: '8',
        dueDate: '2026-11-23',
      },
    ]);
    expect(rows('results.csv')).toMatchObject([
      { studentSourcedId: '007', score: '3.5', textScore: 'pass', late: 'true', incomplete: 'false' },
      { studentSourcedId: '+12', score: '', missing: 'true' },
    ]);
    expect(rows('scoreScales.csv')).toMatchObject([{ type: 'textual', scoreScaleValue: 'pass:0.4' }]);
    const ids = rows('results.csv').map(({ sourcedId }) => sourcedId);
    expect(new Set(ids).size).toBe(ids.length);
    // The same results again are the same rows: nothing is doubled by sending them twice.
    expect(resultsPackage(about).zip).toEqual(resultsPackage(about).zip);
  });
});
