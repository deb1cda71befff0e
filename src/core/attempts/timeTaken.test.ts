import { describe, expect, it } from 'vitest';
import { attemptOf, sittingOf, studentOf } from '../../../tests/unit/samples';
import { gradesTable } from '../formats/takeout/grades';
import { minutesOf } from '../seats/gridOrder';
import { seatsOf } from '../seats/seats';
import { timelineOf } from './timeline';
import { begunAt, timeTaken } from './timeTaken';

const [begun, handedIn] = ['2026-11-23T10:00:00.000Z', '2026-11-23T10:30:00.000Z'];
const now = Date.parse('2026-11-24T10:00:00.000Z');

/** What every place says of one attempt: the grid, the grades, and what they both ask. */
function said(part: Parameters<typeof attemptOf>[0]) {
  const attempt = attemptOf({ startedAt: begun, handedInAt: handedIn, events: [], ...part });
  const records = {
    ...{ sitting: sittingOf({ timeLimitMs: null }), questions: [], students: [studentOf()], allowances: [] },
    ...{ attempts: [attempt], marks: [], releases: [], openings: [] },
  };
  const seats = seatsOf(records, now);
  const [seat] = seats;
  if (!seat) throw new Error('there is a seat');
  const { columns, rows } = gradesTable({ ...records, seats, groups: [], scale: null, now });
  const cell = (id: string) => rows[0]?.[columns.findIndex((column) => column.id === id)];
  return {
    taken: timeTaken(attempt, seat.terms, now),
    grid: minutesOf(seat, now),
    grades: cell('minutes'),
    started: cell('started'),
    begun: begunAt(attempt),
    told: timelineOf(attempt, [], seat.terms, now).happenings.map(({ kind }) => kind),
  };
}

describe('how long an attempt took', () => {
  it('is the same in the grid and in the grades, without what it stood still', () => {
    expect(said({})).toMatchObject({ taken: 1_800_000, grid: 30, grades: 30, started: begun, begun });
    expect(said({ pausedMs: 600_000 })).toMatchObject({ taken: 1_200_000, grid: 20, grades: 20 });
  });

  it('is not known of answers from a sheet that says no beginning, and then no figure is told anywhere', () => {
    const answers = { q1: { response: { text: 'ebb' }, at: handedIn } };
    expect(said({ source: 'sheet', startedAt: handedIn, answers })).toEqual({
      ...{ taken: null, grid: null, grades: null, started: null, begun: null },
      told: [],
    });
    expect(said({ source: 'sheet' })).toMatchObject({ grid: 30, grades: 30, started: begun });
  });
});
