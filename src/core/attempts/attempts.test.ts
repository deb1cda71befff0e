import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../tests/unit/samples';
import type { Allowance, CountRule } from '../model/sitting';
import { canBeDone, extraFor, type SeatAct } from '../seats/seatActs';
import {
  changedBySettings,
  settingsFault,
  settingsOf,
  settingsWarnings,
  tooShortFor,
} from '../sittings/settings';
import { attemptsSentence, settingsSentence, settingsWarningWords } from '@/words/settings';
import { seatsOf, type SittingRecords } from '../seats/seats';
import { progressOf } from '../seats/progress';
import { startDecision } from './startAttempt';
import { pressure, stripOf } from '../seats/strip';
import { countingAttempt, lastAttempt } from './counting';
import { attemptState, deadlineOf, endOf, leftAtEnd, termsFor } from './terms';

const start = Date.parse(at);
const minutes = (count: number) => count * 60_000;
const more = (count: number): Allowance => ({
  id: 'm',
  kind: 'minutes',
  sittingId: 'sitting1',
  studentId: 'student1',
  minutes: count,
  reason: 'Extra time',
  at,
});
const again: Allowance = {
  id: 'a',
  kind: 'attempt',
  sittingId: 'sitting1',
  studentId: 'student1',
  reason: 'Illness',
  at,
};

describe('terms of one student', () => {
  it('are the sitting’s own where nothing is allowed beyond', () => {
    expect(termsFor(studentOf(), sittingOf(), [], start)).toMatchObject({
      start: 'open',
      attempts: 1,
      extraMs: 0,
      timeLimitMs: minutes(60),
    });
  });

  it('time is up at the limit, or at the close when that is sooner', () => {
    const terms = termsFor(studentOf(), sittingOf(), [], start);
    expect(deadlineOf(attemptOf(), terms)).toBe(start + minutes(60));
    expect(deadlineOf({ startedAt: '2026-11-23T11:30:00.000Z' }, terms)).toBe(start + minutes(120));
    expect(
      deadlineOf(
        attemptOf(),
        termsFor(studentOf(), sittingOf({ timeLimitMs: null, closesAt: null }), [], start),
      ),
    ).toBeNull();
  });

  it('more minutes are more minutes, at the limit and at the close alike', () => {
    const terms = termsFor(studentOf(), sittingOf(), [more(10), more(5)], start);
    expect(deadlineOf(attemptOf(), terms)).toBe(start + minutes(75));
    expect(deadlineOf({ startedAt: '2026-11-23T11:30:00.000Z' }, terms)).toBe(start + minutes(135));
    expect(termsFor(studentOf(), sittingOf(), [more(15)], start + minutes(130)).start).toBe('open');
  });

  it('nobody starts before it opens, after it closes, or once it is closed to new starts', () => {
    expect(termsFor(studentOf(), sittingOf(), [], start - 1).start).toBe('notYet');
    expect(termsFor(studentOf(), sittingOf(), [], start + minutes(120)).start).toBe('over');
    expect(termsFor(studentOf(), sittingOf({ closedToStartsAt: at }), [], start).start).toBe(
      'closedToStarts',
    );
    expect(termsFor(studentOf(), sittingOf({ closedToStartsAt: at }), [again], start).start).toBe('open');
  });

  it('never give less time for more minutes', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 120 }),
        fc.integer({ min: 1, max: 60 }),
        (startedAfter, extra) => {
          const attempt = { startedAt: new Date(start + minutes(startedAfter)).toISOString() };
          const without = deadlineOf(attempt, termsFor(studentOf(), sittingOf(), [], start)) ?? 0;
          const withMore = deadlineOf(attempt, termsFor(studentOf(), sittingOf(), [more(extra)], start)) ?? 0;
          return withMore - without === minutes(extra);
        },
      ),
    );
  });
});

describe('exceptions for one student', () => {
  const given = (part: object, after = 0): Allowance =>
    ({
      id: 'g',
      sittingId: 'sitting1',
      studentId: 'student1',
      reason: 'r',
      at: new Date(start + after).toISOString(),
      ...part,
    }) as Allowance;
  const terms = (allowances: Allowance[], student = studentOf(), sitting = sittingOf()) =>
    termsFor(student, sitting, allowances, start);

  it('percent are percent of the time limit, of this sitting alone or of every one', () => {
    expect(terms([given({ kind: 'percent', percent: 25 })]).extraMs).toBe(minutes(15));
    expect(terms([], studentOf({ extraPercent: 25 })).extraMs).toBe(minutes(15));
    expect(terms([more(5)], studentOf({ extraPercent: 50 })).extraMs).toBe(minutes(35));
    expect(terms([], studentOf({ extraPercent: 50 }), sittingOf({ timeLimitMs: null })).extraMs).toBe(0);
  });

  it('other times take the place of everyone’s; of several the last given holds', () => {
    const first = given({ kind: 'window', opensAt: null, closesAt: '2026-11-24T12:00:00.000Z' });
    const second = given({ kind: 'window', opensAt: '2026-11-25T10:00:00.000Z', closesAt: null }, 1000);
    expect(terms([first]).closesAt).toBe(Date.parse('2026-11-24T12:00:00.000Z'));
    expect(terms([second, first])).toMatchObject({
      opensAt: Date.parse('2026-11-25T10:00:00.000Z'),
      closesAt: Date.parse('2026-11-23T12:00:00.000Z'),
      start: 'notYet',
    });
  });

  it('who may start late may, although it is closed to new starts; the others may not', () => {
    const closed = sittingOf({ closedToStartsAt: at });
    expect(terms([], studentOf(), closed).start).toBe('closedToStarts');
    expect(terms([given({ kind: 'lateStart' })], studentOf(), closed)).toMatchObject({
      start: 'open',
      attempts: 1,
    });
  });

  it('what was set aside does not count, and uses no attempt up; numbers are never given twice', () => {
    const old = attemptOf({ id: 'old', number: 2, setAsideAt: at, handedInAt: at });
    const kept = attemptOf({ id: 'kept', number: 1, handedInAt: at });
    expect(lastAttempt([old, kept])?.id).toBe('kept');
    expect(lastAttempt([old])).toBeUndefined();
    expect(startDecision([old], terms([]), start)).toEqual({ outcome: 'new', number: 3 });
    expect(startDecision([old, kept], terms([]), start)).toEqual({
      outcome: 'refused',
      why: 'noAttemptLeft',
    });
    const [seat] = seatsOf(
      {
        sitting: sittingOf(),
        questions: paperQuestions,
        students: [studentOf()],
        allowances: [],
        attempts: [old],
        marks: [],
        releases: [],
        openings: [],
      },
      start,
    );
    expect(seat).toMatchObject({ state: 'notStarted', attempt: null, aside: [{ id: 'old' }] });
  });

  it('an attempt carried on has the time that was left, whenever it is', () => {
    const limits = fc.record({
      worked: fc.integer({ min: 0, max: 59 }),
      stood: fc.integer({ min: 0, max: 5000 }),
      extra: fc.integer({ min: 0, max: 90 }),
    });
    fc.assert(
      fc.property(limits, ({ worked, stood, extra }) => {
        const rules = terms(extra > 0 ? [more(extra)] : []);
        const ended = start + minutes(worked);
        const attempt = attemptOf({ handedInAt: new Date(ended).toISOString() });
        const left = leftAtEnd(attempt, rules, ended + minutes(stood));
        expect(left).toBe(minutes(60 + extra - worked));
        const carried = { ...attempt, handedInAt: null, pausedMs: minutes(stood) };
        expect(deadlineOf(carried, rules)).toBe(ended + minutes(stood) + (left ?? 0));
      }),
    );
    const over = leftAtEnd(attemptOf(), terms([]), start + minutes(300));
    expect(over).toBe(0);
    expect(leftAtEnd(attemptOf(), terms([]), start)).toBeNull();
  });
});

describe('what can be done for a student', () => {
  const acts: SeatAct[] = [
    'minutes',
    'percent',
    'window',
    'lateStart',
    'carryOn',
    'attempt',
    'afresh',
    'collect',
    'setAside',
    'restore',
  ];
  const possible = (attempts: ReturnType<typeof attemptOf>[], sitting = sittingOf(), now = start) => {
    const [seat] = seatsOf(
      {
        sitting,
        questions: paperQuestions,
        students: [studentOf()],
        allowances: [],
        attempts,
        marks: [],
        releases: [],
        openings: [],
      },
      now,
    );
    return acts.filter((act) => seat && canBeDone(act, seat, sitting, now));
  };

  it('is only what would change something as things stand', () => {
    expect(possible([])).toEqual(['minutes', 'percent', 'window']);
    expect(possible([], sittingOf({ timeLimitMs: null, closesAt: null }))).toEqual(['window']);
    expect(possible([], sittingOf({ closedToStartsAt: at }))).toContain('lateStart');
    expect(possible([attemptOf()])).toEqual([
      'minutes',
      'percent',
      'window',
      'attempt',
      'afresh',
      'collect',
      'setAside',
    ]);
    expect(possible([attemptOf({ handedInAt: at })])).toEqual([
      'window',
      'carryOn',
      'attempt',
      'afresh',
      'setAside',
    ]);
    // Time was up: more of it helps, and there is none to carry on with.
    const late = possible([attemptOf()], sittingOf(), start + minutes(61));
    expect(late).toContain('minutes');
    expect(late).not.toContain('carryOn');
    expect(possible([attemptOf({ setAsideAt: at })])).toEqual(['minutes', 'percent', 'window', 'restore']);
  });

  it('standing percent take the place of those before, others come on top', () => {
    const seat = {
      student: studentOf({ extraPercent: 25 }),
      terms: termsFor(studentOf({ extraPercent: 25 }), sittingOf(), [], start),
    };
    expect(extraFor(seat, 50, true)).toBe(minutes(15));
    expect(extraFor(seat, 50, false)).toBe(minutes(30));
    expect(extraFor(seat, 10, true)).toBe(-minutes(9));
  });
});

describe('which of several attempts counts', () => {
  const attempts = [1, 2, 3].map((number) => attemptOf({ id: `a${number}`, number, handedInAt: at }));
  const total = ({ number }: { number: number }) => [0, 5, 8, 8][number] ?? 0;
  const rules = termsFor(studentOf(), sittingOf(), [], start);
  const counting = (counts: CountRule, rows = attempts) =>
    countingAttempt(rows, { counts }, rules, start, total)?.id;

  it('the last, the first, or the best, of equally good ones the later', () => {
    expect(counting('last')).toBe('a3');
    expect(counting('first')).toBe('a1');
    expect(counting('best')).toBe('a3');
    expect(counting('best', attempts.slice(0, 2))).toBe('a2');
  });

  it('one that runs, whatever the rule: nothing is settled before it is in', () => {
    const runs = attempts.map((each) => (each.number === 3 ? { ...each, handedInAt: null } : each));
    expect(counting('first', runs)).toBe('a3');
  });

  it('never one that was set aside, and none where there is none', () => {
    const aside = attempts.map((each) => ({ ...each, setAsideAt: each.number === 3 ? at : null }));
    expect(counting('last', aside)).toBe('a2');
    expect(counting('first', [])).toBeUndefined();
  });

  it('the best never has less than any other, and does not depend on their order', () => {
    const points = fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 1, maxLength: 6 });
    fc.assert(
      fc.property(points, (worths) => {
        const rows = worths.map((_, index) =>
          attemptOf({ id: `${index}`, number: index + 1, handedInAt: at }),
        );
        const worth = ({ number }: { number: number }) => worths[number - 1] ?? 0;
        const best = countingAttempt(rows, { counts: 'best' }, rules, start, worth);
        expect(best && worth(best)).toBe(Math.max(...worths));
        expect(countingAttempt([...rows].reverse(), { counts: 'best' }, rules, start, worth)?.id).toBe(
          best?.id,
        );
      }),
    );
  });

  it('each may make as many as the sitting says, and one more where it was given', () => {
    const three = sittingOf({ attempts: 3, counts: 'best' });
    expect(termsFor(studentOf(), three, [], start).attempts).toBe(3);
    expect(termsFor(studentOf(), three, [again], start).attempts).toBe(4);
    const two = attempts.slice(0, 2);
    expect(startDecision(two, termsFor(studentOf(), three, [], start), start)).toEqual({
      outcome: 'new',
      number: 3,
    });
    expect(attemptsSentence({ attempts: 3, counts: 'best' })).toBe(
      'Each student may sit it 3 times; the best counts.',
    );
  });
});

describe('an attempt', () => {
  const terms = termsFor(studentOf(), sittingOf(), [], start);

  it('is working until time is up, then collected by time, without anyone doing anything', () => {
    expect(attemptState(attemptOf(), terms, start + minutes(59))).toBe('working');
    expect(attemptState(attemptOf(), terms, start + minutes(60))).toBe('collectedByTime');
    expect(endOf(attemptOf(), terms, start + minutes(90))).toBe(start + minutes(60));
  });

  it('goes on when minutes are given after time was up', () => {
    expect(
      attemptState(attemptOf(), termsFor(studentOf(), sittingOf(), [more(30)], start), start + minutes(70)),
    ).toBe('working');
  });

  it('stays handed in or collected whatever the clock says', () => {
    expect(attemptState(attemptOf({ handedInAt: at }), terms, start)).toBe('handedIn');
    expect(attemptState(attemptOf({ collectedAt: at }), terms, start + minutes(500))).toBe('collected');
  });

  it('the last one counts', () => {
    expect(lastAttempt([attemptOf({ id: 'second', number: 2 }), attemptOf({ id: 'first' })])?.id).toBe(
      'second',
    );
    expect(lastAttempt([])).toBeUndefined();
  });
});

describe('starting', () => {
  it('goes on with a running attempt, even when closed to new starts', () => {
    const closed = termsFor(studentOf(), sittingOf({ closedToStartsAt: at }), [], start + 1);
    expect(startDecision([attemptOf()], closed, start + 1)).toMatchObject({ outcome: 'resume' });
    expect(startDecision([], closed, start + 1)).toEqual({ outcome: 'refused', why: 'closedToStarts' });
  });

  it('a second attempt needs to be allowed', () => {
    const done = attemptOf({ handedInAt: at });
    expect(startDecision([done], termsFor(studentOf(), sittingOf(), [], start), start)).toEqual({
      outcome: 'refused',
      why: 'noAttemptLeft',
    });
    expect(startDecision([done], termsFor(studentOf(), sittingOf(), [again], start), start)).toEqual({
      outcome: 'new',
      number: 2,
    });
  });

  it('there are never two running', () => {
    const anyAttempts = fc.array(
      fc.record({ handedIn: fc.boolean(), after: fc.integer({ min: 0, max: 150 }) }),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(anyAttempts, fc.integer({ min: 0, max: 200 }), fc.nat(3), (made, later, allowed) => {
        const now = start + minutes(later);
        const terms = termsFor(
          studentOf(),
          sittingOf(),
          Array.from({ length: allowed }, () => again),
          now,
        );
        const attempts = made.map(({ handedIn, after }, index) =>
          attemptOf({
            number: index + 1,
            startedAt: new Date(start + minutes(after)).toISOString(),
            handedInAt: handedIn || index < made.length - 1 ? at : null,
          }),
        );
        const decision = startDecision(attempts, terms, now);
        const running = attempts.filter((attempt) => attemptState(attempt, terms, now) === 'working').length;
        return !(decision.outcome === 'new' && running > 0);
      }),
    );
  });
});

describe('how a sitting stands', () => {
  const answers = { q1: { response: { picked: ['b'] }, at }, q4: { response: { text: 'iron' }, at } };
  const records: SittingRecords = {
    sitting: sittingOf(),
    questions: paperQuestions,
    students: [
      studentOf(),
      studentOf({ id: 'student2' }),
      studentOf({ id: 'student3' }),
      studentOf({ id: 'student4' }),
    ],
    allowances: [],
    attempts: [
      attemptOf({ handedInAt: at, answers }),
      attemptOf({ id: 'attempt2', studentId: 'student2', handedInAt: at, answers }),
      attemptOf({ id: 'attempt3', studentId: 'student3', answers }),
    ],
    marks: [markOf({ points: 3 })],
    releases: [],
    openings: [],
  };

  it('is counted from its rows', () => {
    expect(progressOf(records, start + minutes(10))).toMatchObject({
      students: 4,
      notStarted: 1,
      working: 1,
      in: 2,
      waiting: 1,
      byHand: 2,
      ready: 1,
      released: 0,
      validUntil: start + minutes(60),
    });
  });

  it('turns by itself when time is up', () => {
    expect(progressOf(records, start + minutes(60))).toMatchObject({ working: 0, in: 3, waiting: 2 });
  });

  it('points to marking while anything waits, then to those working, then to handing back, then nowhere', () => {
    const times = { opensAt: start, closesAt: null };
    const next = (progress: Partial<ReturnType<typeof progressOf>>) =>
      stripOf({ ...progressOf(records, start + minutes(10)), ...progress }, times, start).find(
        (stage) => stage.next,
      )?.stage;
    expect(next({})).toBe('mark');
    expect(next({ waiting: 0 })).toBe('run');
    expect(next({ waiting: 0, in: 4, working: 0, notStarted: 0 })).toBe('handBack');
    expect(next({ waiting: 0, in: 4, working: 0, notStarted: 0, released: 4 })).toBeUndefined();
  });

  it('a sitting with students at work presses more than one that waits to be marked', () => {
    const progress = progressOf(records, start + minutes(10));
    expect(pressure(progress)).toBeGreaterThan(pressure({ ...progress, working: 0 }));
    expect(pressure({ ...progress, working: 0 })).toBeGreaterThan(
      pressure({ ...progress, working: 0, waiting: 0 }),
    );
  });

  it('gives every student one seat, in the order of the list', () => {
    expect(seatsOf(records, start).map((seat) => [seat.student.id, seat.state])).toEqual([
      ['student1', 'handedIn'],
      ['student2', 'handedIn'],
      ['student3', 'working'],
      ['student4', 'notStarted'],
    ]);
  });
});

describe('the settings of a sitting that was given out', () => {
  const sitting = sittingOf({ accessCode: 'flood', attempts: 3, counts: 'best' });

  it('left as they are change nothing, and what was absent stays absent', () => {
    expect(changedBySettings(sitting, settingsOf(sitting), at)).toEqual(sitting);
    const plain = sittingOf();
    expect(Object.keys(changedBySettings(plain, settingsOf(plain), at)).sort()).toEqual(
      Object.keys(plain).sort(),
    );
  });

  it('change what was changed, and nothing else', () => {
    const next = { ...settingsOf(sitting), timeLimitMs: minutes(50), guests: true };
    expect(changedBySettings(sitting, next, at)).toEqual({
      ...sitting,
      timeLimitMs: minutes(50),
      guests: true,
    });
  });
});

describe('the settings of a sitting, in words', () => {
  const words = {
    when: (instant: string) => instant.slice(11, 16),
    howLong: (ms: number) => `${ms / 60_000} min`,
  };
  const settings = {
    groupIds: ['g'],
    opensAt: at,
    closesAt: '2026-11-23T12:00:00.000Z',
    timeLimitMs: minutes(45),
    accessCode: '',
    attempts: 1,
    counts: 'last' as const,
    guests: false,
  };

  it('say who, when, how long, and warn whom the close cuts short', () => {
    expect(settingsSentence(settings, ['Monday', 'Friday'], words)).toBe(
      'Monday and Friday can start from 10:00 until 12:00, with 45 min each.',
    );
    const [warning, ...more] = settingsWarnings(settings);
    expect([warning && settingsWarningWords(warning, words), more]).toEqual([
      'Students who start after 11:15 get less than the full time.',
      [],
    ]);
  });

  it('warn when the window is shorter than the limit', () => {
    expect(settingsWarnings({ ...settings, timeLimitMs: minutes(150) })).toEqual([
      { code: 'windowTooShort' },
    ]);
  });

  it('name what cannot work', () => {
    expect(settingsFault({ ...settings, groupIds: [] }, start)).toBe('noGroup');
    expect(settingsFault({ ...settings, closesAt: at }, start)).toBe('closesBeforeOpening');
    expect(settingsFault({ ...settings, opensAt: null, closesAt: at }, start)).toBe('closesInThePast');
    expect(settingsFault(settings, start)).toBeNull();
  });
});

it('a time limit is short when it leaves less than twenty seconds for each question', () => {
  expect(tooShortFor(null, 500)).toBe(false);
  expect(tooShortFor(10 * 60_000, 30)).toBe(false);
  expect(tooShortFor(10 * 60_000, 31)).toBe(true);
});
