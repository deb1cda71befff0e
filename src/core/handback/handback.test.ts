import { showing } from '../model/release';
import { describe, expect, it } from 'vitest';
import {
  at,
  attemptOf,
  markOf,
  paperQuestions,
  samples,
  sittingOf,
  studentOf,
} from '../../../tests/unit/samples';
import { paperPacket } from '../formats/packet/paper';
import { kindNames, type Response } from '../kinds';
import type { Allowance } from '../model/sitting';
import { wholeAttempt } from '../model/mark';
import type { PlanStage, Shows } from '../model/release';
import type { WorkMark } from '../model/workMark';
import { seatsOf, type Seat } from '../seats/seats';
import { scoreAttempt } from '../scoring/scoreAttempt';
import { givesKeyAway, readinessOf, stillToSit } from './readiness';
import { planSentence } from '@/words/releases';
import { whoGets } from './whoGets';
import { limitedScript, scriptPacket, verdictOf } from './script';

const nothing: Shows = {
  total: false,
  points: false,
  answers: false,
  rightOrWrong: false,
  accepted: false,
  comments: false,
};

const responses: Record<string, Response> = {
  q1: { picked: ['c'] },
  q2: { picked: ['o3'] },
  q3: { text: 'secret-118' },
  q4: { text: 'iron' },
};
const attempt = attemptOf({
  handedInAt: at,
  answers: Object.fromEntries(Object.entries(responses).map(([id, response]) => [id, { response, at }])),
});
const work: WorkMark[] = [{ is: 'underlined', id: 'w1', from: 0, to: 4, quote: 'iron', text: 'SECRET-WORK' }];
const marks = [
  markOf({
    points: 1,
    lines: ['l2'],
    comment: 'SECRET-MARKER-COMMENT',
    note: 'SECRET-NOTE-OF-MARK',
    adjustment: { points: -1, reason: 'SECRET-NOTE-REASON' },
    work,
  }),
];
const source = {
  sittingId: 'sitting1',
  title: 'Tides',
  questions: paperQuestions,
  attempt,
  marks,
  releasedAt: at,
  firstName: 'Amara',
};

/** The student's own answer may of course come back; it is taken out before looking for what must not. */
const withoutOwnAnswers = (text: string) => text.replaceAll('secret-118', '');

describe('the packet a student sits from', () => {
  it.each(kindNames)('%s: holds no key, scheme, note or comment', (name) => {
    const text = JSON.stringify(
      paperPacket(
        { title: 'T', instructions: 'I', questions: [samples[name]] },
        attemptOf({ questionIds: [samples[name].id] }),
      ),
    );
    expect(text).not.toContain('SECRET');
    expect(text).toContain(samples[name].stem);
  });
});

describe('the script a student gets', () => {
  it('holds nothing but that it came in when nothing is let out', () => {
    const packet = scriptPacket(source, nothing);
    expect(packet).toEqual({ sittingId: 'sitting1', title: 'Tides', handedBackAt: at, questions: [] });
  });

  it.each(['total', 'points', 'answers', 'rightOrWrong'] as const)(
    'showing only %s lets no key, scheme, note or comment out',
    (what) => {
      expect(
        withoutOwnAnswers(JSON.stringify(scriptPacket(source, { ...nothing, [what]: true }))),
      ).not.toContain('SECRET');
    },
  );

  it('each choice lets out its own part and no other', () => {
    const only = (what: keyof Shows) => scriptPacket(source, { ...nothing, [what]: true });
    expect(only('total')).toMatchObject({ total: { points: 3, max: 8 }, questions: [] });
    expect(only('points').questions.map((row) => [row.points, row.response, row.verdict])).toEqual([
      [0, undefined, undefined],
      [0, undefined, undefined],
      [2, undefined, undefined],
      [1, undefined, undefined],
    ]);
    expect(only('answers').questions.map((row) => row.response)).toEqual(Object.values(responses));
    expect(only('rightOrWrong').questions.map((row) => row.verdict)).toEqual([
      'wrong',
      'wrong',
      'right',
      'part',
    ]);
    expect(only('accepted').questions.map((row) => row.accepted)).toEqual([
      'B  3/12',
      'A  range larger; B  streams faster; C  low water lower',
      'SECRET-118; SECRET-half (50%)',
      'SECRET-MODEL',
    ]);
  });

  it('comments are those this student earned, the marker’s first, and never the private note', () => {
    const packet = scriptPacket(source, { ...nothing, comments: true });
    expect(packet.questions.map((row) => row.comments)).toEqual([
      ['SECRET-OPTION-COMMENT', 'SECRET-WRONG'],
      ['SECRET-OPTION-COMMENT'],
      ['SECRET-ACCEPTED-COMMENT'],
      ['SECRET-MARKER-COMMENT', 'SECRET-WRONG'],
    ]);
    expect(JSON.stringify(packet)).not.toMatch(/SECRET-(NOTE|LINE|MODEL)/);
  });

  it('marks on the work come with the answer and the comments, and with neither alone', () => {
    const row = (shows: Partial<Shows>) => scriptPacket(source, { ...nothing, ...shows }).questions[3];
    expect(row({ answers: true, comments: true })?.work).toEqual(work);
    expect(row({ comments: true })?.work).toBeUndefined();
    expect(row({ answers: true })?.work).toBeUndefined();
    const all = scriptPacket(source, { ...nothing, answers: true, comments: true });
    expect(limitedScript(all, { ...nothing, comments: true }, at).questions[3]?.work).toBeUndefined();
    expect(limitedScript(all, { ...nothing, answers: true, comments: true }, at)).toEqual(all);
    expect(JSON.stringify(all)).not.toContain('SECRET-NOTE');
  });

  it('a comment on the whole attempt names the student, and goes with the comments', () => {
    const whole = markOf({ questionId: wholeAttempt, points: null, comment: 'Well done, [first name].' });
    const packet = scriptPacket({ ...source, marks: [...marks, whole] }, { ...nothing, comments: true });
    expect(packet.comment).toBe('Well done, Amara.');
    expect(
      scriptPacket({ ...source, marks: [whole] }, { ...nothing, answers: true }).comment,
    ).toBeUndefined();
    expect(limitedScript(packet, { ...nothing, total: true }, at).comment).toBeUndefined();
  });

  it('an override decides what is right', () => {
    const card = scoreAttempt(paperQuestions, attempt, [markOf({ questionId: 'q1', points: 1 })]);
    expect(card.awards.map(verdictOf)).toEqual(['right', 'wrong', 'right', 'noKey']);
  });
});

describe('who is ready', () => {
  const seat = (part: Partial<Seat>, given = marks): Seat =>
    ({
      state: 'handedIn',
      attempt,
      scorecard: scoreAttempt(paperQuestions, attempt, given),
      ...part,
    }) as Seat;

  it('only who is in and wholly marked; the rest with the reason', () => {
    expect(readinessOf(seat({}))).toEqual({ ready: true });
    expect(readinessOf(seat({}, []))).toEqual({ ready: false, why: 'waiting', count: 1 });
    expect(readinessOf(seat({}, [markOf({ points: 1, aside: true })]))).toEqual({
      ready: false,
      why: 'aside',
      count: 1,
    });
    expect(readinessOf(seat({ state: 'working' }))).toMatchObject({ why: 'working' });
    expect(readinessOf(seat({ state: 'notStarted', scorecard: null }))).toMatchObject({ why: 'notStarted' });
  });
});

describe('the sentence', () => {
  it('says what is seen and what is not', () => {
    const times = {
      when: (instant: string) => `<${instant}>`,
      howLong: (ms: number) => `${ms / 86_400_000} days`,
    };
    const [friday, monday] = ['2026-11-27T16:00:00.000Z', '2026-11-30T16:00:00.000Z'];
    const shows = showing('total', 'answers');
    expect(planSentence([{ from: null, until: null, shows: showing() }], [], 'now', at, times)).toBe(
      'Now students see only that you have their paper.',
    );
    const periods = [
      { from: null, until: friday, shows: null },
      { from: friday, until: monday, shows },
      { from: monday, until: null, shows: null },
    ];
    expect(planSentence(periods, [], 'back', at, times)).toBe(
      `Once handed back, students see nothing yet. From <${friday}>: their total and their own answers. From <${monday}>: nothing more.`,
    );
    expect(planSentence(periods.slice(1, 2), [], 'draft', at, times)).toBe(
      `With this draft from <${friday}> students see their total and their own answers.`,
    );
    // What is over is not told; what nobody knows yet comes last.
    const waiting: PlanStage = {
      id: 'a',
      starts: 'sat',
      at: null,
      until: null,
      lastsMs: 2 * 86_400_000,
      shows,
    };
    expect(planSentence(periods, [waiting], 'now', '2026-11-28T10:00:00.000Z', times)).toBe(
      `Now students see their total and their own answers. From <${monday}>: nothing more. Once nobody can still sit the paper: their total and their own answers, for 2 days.`,
    );
  });
});

describe('for whom the acts of handing back are', () => {
  const attempts = ['a', 'b', 'c'].map((studentId) =>
    attemptOf({ id: studentId, studentId, questionIds: ['q1'], handedInAt: at }),
  );
  const seats = seatsOf(
    {
      sitting: sittingOf(),
      questions: paperQuestions,
      students: ['a', 'b', 'c', 'd'].map((id) => studentOf({ id })),
      ...{ allowances: [], attempts, marks: [], openings: [] },
      releases: [
        { sittingId: 'sitting1', studentId: 'b', releasedAt: at },
        { sittingId: 'sitting1', studentId: 'c', releasedAt: at, heldBack: { at, reason: 'x' } },
      ],
    },
    Date.parse(at),
  );
  const ids = (chosen: string[] | null) => {
    const of = whoGets(seats, chosen && new Set(chosen));
    const all = (some: typeof seats) => some.map(({ student }) => student.id).join('');
    return [all(of.handBack), all(of.holdBack), all(of.withdraw)];
  };

  it('unchosen: who is ready and was neither given nor held back; chosen: exactly those for whom it does something', () => {
    expect(ids(null)).toEqual(['a', '', 'b']);
    expect(ids(['a', 'b', 'c', 'd'])).toEqual(['ac', 'ab', 'b']);
    expect(ids(['d'])).toEqual(['', '', '']);
  });
});

describe('who may still be sitting it', () => {
  const now = Date.parse(at);
  const past = '2026-11-23T09:30:00.000Z';
  const tomorrow = '2026-11-24T10:00:00.000Z';
  const seats = (sitting: object, allowances: Allowance[] = []) =>
    seatsOf(
      {
        sitting: sittingOf(sitting),
        questions: paperQuestions,
        students: ['working', 'in', 'absent'].map((id) => studentOf({ id })),
        allowances,
        attempts: [
          attemptOf({ id: 'a1', studentId: 'working' }),
          attemptOf({ id: 'a2', studentId: 'in', handedInAt: at }),
        ],
        marks: [],
        releases: [],
        openings: [],
      },
      now,
    );

  it('those at work always; those who have not started while they may', () => {
    expect(stillToSit(seats({}))).toBe(2);
    expect(stillToSit(seats({ opensAt: tomorrow, closesAt: null }))).toBe(2);
    expect(stillToSit(seats({ closedToStartsAt: past }))).toBe(1);
    expect(stillToSit(seats({ closesAt: past, timeLimitMs: null }))).toBe(0);
  });

  it('who has other times, and all who may sit it again, although it is over for the others', () => {
    const ill: Allowance = {
      id: 'w',
      kind: 'window',
      sittingId: 'sitting1',
      studentId: 'absent',
      opensAt: tomorrow,
      closesAt: '2026-11-24T12:00:00.000Z',
      reason: 'Illness',
      at,
    };
    expect(stillToSit(seats({ closesAt: past, timeLimitMs: null }, [ill]))).toBe(1);
    expect(stillToSit(seats({ attempts: 2 }))).toBe(3);
  });

  it('a total alone gives no key away; right or wrong, what is accepted and comments do', () => {
    expect(givesKeyAway(showing('total', 'points', 'answers', 'figures', 'place', 'topics', 'work'))).toBe(
      false,
    );
    for (const what of ['accepted', 'rightOrWrong', 'comments', 'lines', 'scheme'] as const)
      expect(givesKeyAway(showing(what))).toBe(true);
  });
});
