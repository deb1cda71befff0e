import { describe, expect, it } from 'vitest';
import { at, attemptOf, paperQuestions, samples, sittingOf, studentOf } from '../../../tests/unit/samples';
import type { Question } from '../kinds';
import { itemsOf } from '../kinds/items';
import { mostEvents, type Attempt, type AttemptEvent } from '../model/sitting';
import { inGridOrder, questionTotals, type GridColumn } from '../seats/gridOrder';
import { seatsOf } from '../seats/seats';
import { firstOpenStep, stepsOf } from './steps';
import { termsFor } from './terms';
import { byTeacher, inRuns, timelineOf } from './timeline';
import { actsFor, asksOffered } from '../seats/requests';
import { timeWarning } from './timeWarning';
import { isQuiet, leavingOf, seenAt, withEvents, type Hearing } from './watching';
import { Presence } from '../exchange/presence';
import { receiptOf } from './receipt';

const start = Date.parse(at);
const iso = (seconds: number) => new Date(start + seconds * 1000).toISOString();
const event = (kind: AttemptEvent['kind'], seconds: number, questionId?: string): AttemptEvent => ({
  kind,
  at: iso(seconds),
  ...(questionId && { questionId }),
});

const nobody: Hearing = { heardAt: () => undefined, since: 0 };

describe('what is noted of an attempt', () => {
  it('changes of one answer within a minute are one event, later ones another', () => {
    let attempt = attemptOf();
    for (const seconds of [5, 10, 40, 130])
      attempt = withEvents(attempt, [event('answered', seconds, 'q1'), event('answered', seconds, 'q2')]);
    expect(attempt.events.filter(({ questionId }) => questionId === 'q1').map((each) => each.at)).toEqual([
      iso(40),
      iso(130),
    ]);
  });

  it('a student’s side cannot fill it without end; what ends an attempt is noted all the same', () => {
    const many = Array.from({ length: mostEvents + 50 }, (_, index) =>
      event(index % 2 ? 'returned' : 'left', index),
    );
    const full = withEvents(attemptOf(), many);
    expect(full.events).toHaveLength(mostEvents);
    expect(withEvents(full, [event('collected', 9000)]).events.at(-1)?.kind).toBe('collected');
  });

  it('leaving is counted, and whether the student is away now', () => {
    const gone = (...kinds: AttemptEvent['kind'][]) =>
      leavingOf({ events: kinds.map((kind) => event(kind, 1)) });
    expect(gone('started')).toEqual({ times: 0, away: false });
    expect(gone('started', 'left', 'returned', 'left')).toEqual({ times: 2, away: true });
    expect(gone('started', 'left', 'cameBack')).toEqual({ times: 1, away: false });
  });

  it('a receipt is short, of letters and digits alone', () => {
    expect(receiptOf('V1St_GXR8-Z5j')).toMatch(/^[2-9A-HJKMNP-TV-Z]{8}$/);
    const receipts = Array.from({ length: 2000 }, (_, index) => receiptOf(`rules-student${index}`));
    expect(new Set(receipts).size).toBe(2000);
    expect(receiptOf('rules-student7')).toBe(receipts[7]);
  });
});

describe('requests', () => {
  it('what can be asked for goes by where the student stands', () => {
    expect(asksOffered('working', true)[0]).toBe('moreTime');
    expect(asksOffered('handedIn', false)[0]).toBe('carryOn');
    expect(asksOffered('notStarted', false)[0]).toBe('otherTimes');
    expect(asksOffered('notStarted', true)).toContain('moreTime');
  });

  it('come down to what can be done, the likeliest first and nothing twice', () => {
    expect(actsFor('moreTime', ['window', 'percent', 'minutes'])).toEqual(['minutes', 'percent', 'window']);
    expect(actsFor('carryOn', ['attempt'])).toEqual(['attempt']);
    expect(actsFor('other', [])).toEqual([]);
  });

  it('a student is quiet after a minute without a sign', () => {
    const row = { id: 'a', lastSeenAt: iso(0) };
    expect(isQuiet(row, nobody, start + 60_000)).toBe(false);
    expect(isQuiet(row, nobody, start + 60_001)).toBe(true);
    const presence = new Presence();
    presence.saw('a', start + 50_000);
    presence.saw('a', start + 40_000);
    const hearing = { heardAt: (id: string) => presence.at(id), since: 0 };
    expect(seenAt(row, hearing)).toBe(start + 50_000);
    expect(isQuiet(row, hearing, start + 110_000)).toBe(false);
    expect(isQuiet(row, hearing, start + 110_001)).toBe(true);
  });

  it('who has only begun to listen calls nobody quiet', () => {
    const row = { id: 'a', lastSeenAt: iso(0) };
    const hearing = { ...nobody, since: start + 600_000 };
    expect(isQuiet(row, hearing, start + 605_000)).toBe(false);
    expect(isQuiet(row, hearing, start + 611_000)).toBe(true);
  });
});

describe('the course of an attempt', () => {
  const attempt: Attempt = attemptOf({
    events: [
      event('started', 0),
      event('answered', 20, 'q1'),
      event('left', 30),
      event('returned', 50),
      event('tried', 60, 'q2'),
      event('left', 70),
      event('handedIn', 100),
    ],
    answers: { q3: { response: { text: 'east' }, at: iso(80) } },
    handedInAt: iso(100),
    timeOnMs: { q1: 20_000 },
  });
  const terms = termsFor(studentOf(), sittingOf(), [], start);
  const course = timelineOf(attempt, [], terms, start + 500_000);

  it('spans from its start to its end, one lane a question in the order given', () => {
    expect([course.from, course.to]).toEqual([start, start + 100_000]);
    expect(course.lanes.map(({ questionId, ticks }) => [questionId, ticks.map(({ kind }) => kind)])).toEqual([
      ['q1', ['answered']],
      ['q2', ['tried']],
      // No event tells of it: it stands where it was last changed.
      ['q3', ['answered']],
      ['q4', []],
    ]);
    expect(course.lanes.map(({ timeOnMs }) => timeOnMs)).toEqual([20_000, null, null, null]);
  });

  it('shows when the page was left, until it was come back to or the attempt ended', () => {
    expect(course.away).toEqual([
      { from: start + 30_000, to: start + 50_000 },
      { from: start + 70_000, to: start + 100_000 },
    ]);
  });

  it('answers that follow one another are one row in words; what the teacher did is told apart', () => {
    const runs = inRuns(course.happenings).map(({ first, questionIds }) => [first.kind, questionIds.join()]);
    expect(runs).toEqual([
      ['started', ''],
      ['answered', 'q1'],
      ['left', ''],
      ['returned', ''],
      ['tried', 'q2'],
      ['left', ''],
      ['answered', 'q3'],
      ['handedIn', ''],
    ]);
    const kinds = ['started', 'left', 'timeUp', 'handedIn', 'collected', 'allowance'] as const;
    expect(kinds.filter((kind) => byTeacher({ kind, at: 0 }))).toEqual(['collected', 'allowance']);
  });

  it('time running out stands where it ran out', () => {
    const open = attemptOf();
    const late = timelineOf(open, [], terms, start + 3 * 3_600_000);
    expect(late.happenings.at(-1)).toEqual({ at: start + 3_600_000, kind: 'timeUp' });
  });
});

describe('the order of the grid', () => {
  const questions = paperQuestions;
  const people = ['Adler', 'Benali', 'Conti', 'Duarte'].map((familyName, index) =>
    studentOf({ id: `s${index}`, familyName, joinCode: `AAAAA${index + 2}` }),
  );
  const attempts = [
    attemptOf({ id: 'a0', studentId: 's0', lastSeenAt: iso(500), startedAt: iso(0) }),
    attemptOf({
      id: 'a1',
      studentId: 's1',
      handedInAt: iso(60),
      answers: { q1: { response: { picked: ['b'] }, at } },
    }),
    attemptOf({
      id: 'a2',
      studentId: 's2',
      lastSeenAt: iso(100),
      startedAt: iso(300),
      events: [event('started', 300), event('left', 310)],
      answers: { q1: { response: { picked: ['a'] }, at } },
    }),
  ];
  const records = {
    sitting: sittingOf(),
    questions,
    students: people,
    allowances: [],
    attempts,
    marks: [],
    releases: [],
    openings: [],
  };
  const now = start + 600_000;
  const seats = seatsOf(records, now);
  const names = (column: GridColumn, turned = false) =>
    inGridOrder(seats, column, turned, now, nobody).map((seat) => seat.student.familyName);

  it('puts first what wants a look; turned around, last', () => {
    expect(names('name')).toEqual(['Adler', 'Benali', 'Conti', 'Duarte']);
    expect(names('name', true)).toEqual(['Duarte', 'Conti', 'Benali', 'Adler']);
    expect(names('state')).toEqual(['Adler', 'Conti', 'Duarte', 'Benali']);
    expect(names('minutes')).toEqual(['Adler', 'Conti', 'Benali', 'Duarte']);
    expect(names('lastSign').slice(0, 2)).toEqual(['Conti', 'Adler']);
    expect(names('left')[0]).toBe('Conti');
  });

  it('by a question: not answered first, then by its points, then those who have none of it', () => {
    expect(names({ questionId: 'q1' })).toEqual(['Adler', 'Conti', 'Benali', 'Duarte']);
  });

  it('totals of a question count who answered and the share of the points they have', () => {
    expect(questionTotals(['q1', 'q2'], seats)).toEqual([
      { questionId: 'q1', given: 3, answered: 2, share: 0.5 },
      { questionId: 'q2', given: 3, answered: 0, share: null },
    ]);
  });
});

describe('one at a time', () => {
  it('a question stands with its working, and what is done with is passed by', () => {
    const working = { keyShare: 0.5, modelAnswer: '', scheme: [], ways: [] };
    const asked: Question[] = [
      { ...samples.number, id: 'a', working },
      { ...samples.trueFalse, id: 'b' },
    ];
    const steps = stepsOf(itemsOf(asked));
    expect(steps.map((step) => step.map(({ id }) => id))).toEqual([['a', 'a.working'], ['b']]);
    expect(firstOpenStep(steps, [])).toBe(0);
    expect(firstOpenStep(steps, ['a'])).toBe(0);
    expect(firstOpenStep(steps, ['a', 'a.working'])).toBe(1);
    expect(firstOpenStep(steps, ['a', 'a.working', 'b'])).toBe(1);
    expect(firstOpenStep([], [])).toBe(0);
  });
});

describe('time warnings', () => {
  it.each([
    [null, null, null],
    [40 * 60_000, 60 * 60_000, null],
    [30 * 60_000, 60 * 60_000, 'half'],
    [5 * 60_000, 60 * 60_000, 'five'],
    [60_000, 60 * 60_000, 'one'],
    // Half of ten minutes is the five minutes.
    [5.5 * 60_000, 10 * 60_000, null],
  ])('%s ms left of %s', (left, total, warning) => {
    expect(timeWarning(left, total)).toBe(warning);
  });
});
