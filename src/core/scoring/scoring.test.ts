import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { PaperContent } from '../model/paper';
import {
  at,
  attemptOf,
  courseText,
  markOf,
  openQuestion,
  paperQuestions,
  sittingOf,
  springChoices,
  studentOf,
  tideChoice,
} from '../../../tests/unit/samples';
import type { Question, Response } from '../kinds';
import type { Attempt } from '../model/sitting';
import type { HandMark } from '../model/mark';
import { seatsOf } from '../seats/seats';
import { paperFindings, readyToSit, totalPoints } from './paperFindings';
import { roundPoints, sumPoints } from '../basics/points';
import { previewRescore } from '../repair/rescore';
import { commentsByKey } from './commentsByKey';
import { scoreAttempt } from './scoreAttempt';

const answers = (responses: Record<string, Response>) =>
  Object.fromEntries(Object.entries(responses).map(([id, response]) => [id, { response, at }]));

describe('a scorecard', () => {
  it('scores what has a key at once and leaves the rest waiting', () => {
    const attempt = attemptOf({
      answers: answers({
        q1: { picked: ['b'] },
        q2: { picked: ['o0', 'o1'] },
        q3: { text: 'secret-HALF' },
        q4: { text: 'iron' },
      }),
    });
    const card = scoreAttempt(paperQuestions, attempt, []);
    expect(card.awards.map((award) => [award.points, award.state])).toEqual([
      [1, 'byKey'],
      [1.33, 'byKey'],
      [1, 'byKey'],
      [null, 'waiting'],
    ]);
    expect(card).toMatchObject({ total: 3.33, max: 8, waiting: 1, final: false });
  });

  it('takes the marker’s points before the key’s, and the key’s again once the override is gone', () => {
    const attempt = attemptOf({ answers: answers({ q1: { picked: ['a'] } }) });
    const override = markOf({ questionId: 'q1', points: 1 });
    expect(scoreAttempt([tideChoice], attempt, [override]).awards[0]).toMatchObject({
      points: 1,
      byKey: 0,
      state: 'overridden',
    });
    expect(scoreAttempt([tideChoice], attempt, []).awards[0]).toMatchObject({ points: 0, state: 'byKey' });
  });

  it('a blank answer has 0 points by key, but waits where a marker decides', () => {
    const card = scoreAttempt(
      [tideChoice, openQuestion],
      attemptOf({ answers: answers({ q4: { text: ' \n' } }) }),
      [],
    );
    expect(card.awards.map((award) => [award.state, award.answered])).toEqual([
      ['notAnswered', false],
      ['waiting', false],
    ]);
  });

  it('an answer without a key is not wrong, and is scored once there is a key', () => {
    const attempt = attemptOf({ answers: answers({ q1: { picked: ['b'] } }), questionIds: ['q1'] });
    const keyless = { ...tideChoice, key: null } as Question;
    expect(scoreAttempt([keyless], attempt, [])).toMatchObject({
      noKey: 1,
      final: false,
      awards: [{ points: null, state: 'noKey' }],
    });
    expect(scoreAttempt([tideChoice], attempt, [])).toMatchObject({ noKey: 0, final: true, total: 1 });
  });

  it('a question the attempt was not given has no award', () => {
    expect(
      scoreAttempt(paperQuestions, attemptOf({ questionIds: ['q3'] }), []).awards.map(
        (award) => award.questionId,
      ),
    ).toEqual(['q3']);
  });

  it('put aside is not final', () => {
    const card = scoreAttempt([openQuestion], attemptOf(), [markOf({ points: 2, aside: true })]);
    expect(card).toMatchObject({ waiting: 0, final: false });
  });

  const anyResponses = fc.record({
    q1: fc.record({ picked: fc.subarray(['a', 'b', 'c', 'unknown']) }),
    q2: fc.record({ picked: fc.subarray(['o0', 'o1', 'o2', 'o3', 'o0']) }),
    q3: fc.record({ text: fc.oneof(fc.constant('secret-118'), fc.constant('SECRET half'), fc.string()) }),
    q4: fc.record({ text: fc.string() }),
  });
  const anyMarks = fc.subarray(
    paperQuestions.map((question) =>
      markOf({ questionId: question.id, points: Math.min(1, question.points) }),
    ),
  );

  it('lies between 0 and its maximum, whatever is answered', () => {
    fc.assert(
      fc.property(anyResponses, anyMarks, (responses, marks) => {
        const card = scoreAttempt(paperQuestions, attemptOf({ answers: answers(responses) }), marks);
        expect(card.total).toBeGreaterThanOrEqual(0);
        expect(card.total).toBeLessThanOrEqual(card.max);
        expect(card.total).toBe(sumPoints(card.awards.map((award) => award.points ?? 0)));
      }),
    );
  });

  it('does not depend on the order of answers or marks, and is the same computed twice', () => {
    fc.assert(
      fc.property(anyResponses, anyMarks, (responses, marks) => {
        const attempt = attemptOf({ answers: answers(responses) });
        const turned = attemptOf({
          answers: Object.fromEntries(Object.entries(answers(responses)).reverse()),
        });
        const card = scoreAttempt(paperQuestions, attempt, marks);
        expect(scoreAttempt(paperQuestions, turned, [...marks].reverse())).toEqual(card);
        expect(scoreAttempt(paperQuestions, attempt, marks)).toEqual(card);
      }),
    );
  });
});

describe('comments by the key', () => {
  const commentsFor = (response: Response) => {
    const attempt = attemptOf({ answers: answers({ q1: response }) });
    const [award] = scoreAttempt([tideChoice], attempt, []).awards;
    return award && commentsByKey(tideChoice, attempt.answers.q1, award);
  };

  it('right gets the comment for right, wrong that of its option and the one for wrong', () => {
    expect(commentsFor({ picked: ['b'] })).toEqual(['SECRET-RIGHT']);
    expect(commentsFor({ picked: ['c'] })).toEqual(['SECRET-OPTION-COMMENT', 'SECRET-WRONG']);
  });
});

describe('points', () => {
  it('add up without binary rounding', () => {
    expect(sumPoints([0.1, 0.2])).toBe(0.3);
    expect(sumPoints(Array.from({ length: 10 }, () => 0.1))).toBe(1);
    expect(roundPoints(2 / 3)).toBe(0.67);
  });
});

describe('a changed key', () => {
  const changed = { ...tideChoice, key: 'a' } as Question;
  const seats = (question: Question, marks: HandMark[], more: Attempt[] = []) =>
    seatsOf(
      {
        sitting: sittingOf(),
        questions: [question],
        students: ['b', 'b', 'a', 'c'].map((_, index) => studentOf({ id: `s${index}` })),
        allowances: [],
        attempts: [
          ...['b', 'b', 'a', 'c'].map((picked, index) =>
            attemptOf({
              id: `a${index}`,
              studentId: `s${index}`,
              questionIds: ['q1'],
              handedInAt: at,
              answers: answers({ q1: { picked: [picked] } }),
            }),
          ),
          ...more,
        ],
        marks,
        releases: [],
        openings: [],
      },
      Date.parse(at),
    );
  const preview = (marks: HandMark[] = [], more: Attempt[] = [], to = changed) =>
    previewRescore(seats(tideChoice, marks, more), seats(to, marks, more));

  it('attempts that do not count, and students of no list, change nothing', () => {
    const given = { questionIds: ['q1'], answers: answers({ q1: { picked: ['b'] } }), handedInAt: at };
    const aside = attemptOf({ ...given, id: 'x1', studentId: 's3', number: 2, setAsideAt: at });
    const tryOut = attemptOf({ ...given, id: 'x2', studentId: 'of no list' });
    expect(preview([], [aside, tryOut])).toEqual(preview());
  });

  it('another maximum is no gain by itself: who had all still has all', () => {
    const worthMore = { ...tideChoice, points: 4 } as Question;
    expect(preview([], [], worthMore)).toMatchObject({
      studentsUp: 0,
      studentsDown: 0,
      before: { points: 0.5, max: 1, share: 0.5 },
      after: { points: 2, max: 4, share: 0.5 },
    });
  });

  it('is shown before it is kept: who goes up and down, and the means', () => {
    expect(preview()).toEqual({
      students: 4,
      answersChanged: 3,
      studentsUp: 1,
      studentsDown: 2,
      before: { points: 0.5, max: 1, share: 0.5 },
      after: { points: 0.25, max: 1, share: 0.25 },
    });
  });

  it('leaves an override as it is', () => {
    expect(preview([markOf({ attemptId: 'a0', questionId: 'q1', points: 1 })])).toMatchObject({
      answersChanged: 2,
      studentsDown: 1,
    });
  });
});

describe('what is not ready in a paper', () => {
  const content = (questions: Question[]) => ({ title: 'Tides', instructions: '', questions });

  it('nothing, in a finished one', () => {
    expect(paperFindings(content(paperQuestions))).toEqual([]);
    expect(totalPoints([tideChoice, springChoices, courseText, openQuestion])).toBe(8);
  });

  it('a picture without words stops it, wherever it stands; a decoration does not', () => {
    const pictured = (decoration: boolean) => ({
      type: 'doc' as const,
      content: [
        { type: 'picture' as const, attrs: { asset: 'a', alt: ' ', decoration, width: 4, height: 3 } },
      ],
    });
    const codes = (paper: PaperContent) =>
      paperFindings(paper).map(({ code, field, level }) => `${code} ${field} ${level}`);
    const bare = pictured(false);
    expect(codes({ ...content([tideChoice]), instructions: bare })).toEqual([
      'pictureWithoutText instructions stops',
    ]);
    expect(codes(content([{ ...tideChoice, stem: bare }]))).toEqual(['pictureWithoutText stem stops']);
    const option = {
      ...tideChoice,
      options: [
        { id: 'a', text: bare, comment: '' },
        { id: 'b', text: 'x', comment: '' },
      ],
    };
    expect(codes(content([option as Question]))).toEqual(['pictureWithoutText option-a stops']);
    expect(codes(content([{ ...tideChoice, stem: pictured(true) }]))).toEqual([]);
  });

  it('a hint without words is worth a look', () => {
    const hinted = { ...tideChoice, hints: [{ id: 'h1', text: ' ', cost: 0 }] };
    expect(paperFindings(content([hinted]))).toMatchObject([
      { code: 'emptyHint', field: 'hint-h1', level: 'look' },
    ]);
  });

  it('no title and no questions stop it', () => {
    expect(
      paperFindings({ title: ' ', instructions: '', questions: [] }).map((finding) => finding.code),
    ).toEqual(['noTitle', 'noQuestions']);
  });

  it('no key is worth a look and does not stop it; no text does', () => {
    const keyless = { ...tideChoice, key: null, points: 0 } as Question;
    expect(paperFindings(content([keyless])).map((finding) => finding.code)).toEqual(['noPoints', 'noKey']);
    expect(readyToSit(content([keyless]))).toBe(true);
    expect(readyToSit(content([{ ...tideChoice, stem: '' }]))).toBe(false);
  });
});
