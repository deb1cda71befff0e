import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../tests/unit/samples';
import type { SittingRecords } from '../seats/seats';
import { whatWaits } from './whatWaits';

const now = Date.parse(at) + 3 * 3_600_000;
const students = ['s1', 's2', 's3', 's4'].map((id) => studentOf({ id }));
const later = new Date(Date.parse(at) + 60_000).toISOString();
const answered = (id: string, text: string, handedInAt: string | null, more = {}) =>
  attemptOf({
    id: `a-${id}`,
    studentId: id,
    handedInAt,
    answers: { q4: { response: { text }, at }, ...more },
  });
const records = (part: Partial<SittingRecords> = {}): SittingRecords => ({
  sitting: sittingOf({ closesAt: null, timeLimitMs: null }),
  questions: paperQuestions,
  students,
  allowances: [],
  attempts: [
    answered('s1', 'It points to iron', later),
    answered('s2', 'it points to iron.', at),
    answered('s3', 'Something else', at),
    answered('s4', 'Still typing', null),
  ],
  marks: [],
  releases: [],
  openings: [],
  ...part,
});

describe('what waits for a mark', () => {
  it('counts answers of those who are in, how many differ, and since when', () => {
    expect(whatWaits(records(), now)).toMatchObject([
      { question: { id: 'q4' }, number: '4', waiting: 3, different: 2, putForward: 0, oldest: at },
    ]);
  });

  it('what has points waits no more; where nothing waits there is no row', () => {
    const marks = ['s2', 's3'].map((id) => markOf({ attemptId: `a-${id}`, questionId: 'q4', points: 1 }));
    expect(whatWaits(records({ marks }), now)).toMatchObject([{ waiting: 1, different: 1, oldest: later }]);
    const all = [...marks, markOf({ attemptId: 'a-s1', questionId: 'q4', points: 0 })];
    expect(whatWaits(records({ marks: all }), now)).toEqual([]);
  });

  it('what the key scored and is nearly right is told apart', () => {
    const nearly = { q3: { response: { text: 'SECRET-117x' }, at } };
    const slip = { q3: { response: { text: 'SECRET-haf' }, at } };
    const attempts = [answered('s1', '', at, slip), answered('s2', '', at, nearly)];
    const rows = whatWaits(records({ attempts, questions: paperQuestions.slice(0, 3) }), now);
    expect(rows).toMatchObject([{ question: { id: 'q3' }, waiting: 0, different: 0, putForward: 1 }]);
  });
});
