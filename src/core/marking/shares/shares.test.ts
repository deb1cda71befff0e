import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  at,
  attemptOf,
  markOf,
  openQuestion,
  passagePlan,
  plottedCourse,
  studentOf,
} from '../../../../tests/unit/samples';
import { textSeats } from '../../../../tests/unit/textSeats';
import { sameGroup } from '../../../../tests/unit/sameGroup';
import { filesIn } from '../../basics/filesIn';
import { changedMark, ownMarker } from '../../model/mark';
import type { PaperVersion } from '../../model/paper';
import type { AnswersGiven, MarkingShare } from '../../model/share';
import { shareContent, shareRows, takenBack } from './content';
import { answersToGive, blindSample, countGiven, dealt, scriptsOf } from './deal';
import { paceOf } from './pace';

const paper: PaperVersion = {
  ...{ title: 'Tides', instructions: '', paperId: 'paper1', version: 1, frozenAt: at },
  questions: [openQuestion, plottedCourse, passagePlan],
};
const share = (part: Partial<MarkingShare> = {}): MarkingShare => ({
  ...{ id: 'share1', sittingId: 'sitting1', marker: 'Ana', purpose: 'marker', way: 'file' },
  ...{ code: 'ABCDE-23456', secret: 'f'.repeat(64), givenAt: '2026-11-24T08:00:00.000Z' },
  answers: [
    { questionId: openQuestion.id, attemptIds: ['amara', 'linh'] },
    { questionId: passagePlan.id, attemptIds: ['linh'] },
  ],
  ...part,
});
const file = { id: 'f'.repeat(43), name: 'Linh Nguyen plan.pdf', mediaType: 'application/pdf', size: 3 };
const attempts = ['amara', 'linh', 'noor'].map((id) =>
  attemptOf({
    id,
    studentId: `student ${id}`,
    questionIds: paper.questions.map((question) => question.id),
    answers: {
      [openQuestion.id]: { response: { text: `the ebb runs west ${id.length}` }, at },
      [passagePlan.id]: { response: { files: [file] }, at },
    },
  }),
);

describe('answers dealt out to markers', () => {
  const given = fc
    .array(fc.array(fc.integer({ min: 0, max: 30 }), { maxLength: 30 }), { minLength: 1, maxLength: 4 })
    .map((questions): AnswersGiven[] =>
      questions.map((ids, n) => ({
        questionId: `q${n}`,
        attemptIds: [...new Set(ids)].map((id) => `a${id}`),
      })),
    );
  const pairsOf = (answers: readonly AnswersGiven[]) =>
    answers.flatMap(({ questionId, attemptIds }) => attemptIds.map((id) => `${questionId} ${id}`));

  it('each has a marker, and only what is common has several', () => {
    fc.assert(
      fc.property(
        given,
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 0, max: 12 }),
        (answers, markers, common) => {
          const hands = dealt(answers, { markers, each: 'part', common, seed: 's' });
          expect(hands).toHaveLength(markers);
          const all = hands.flatMap(pairsOf);
          expect(new Set(all)).toEqual(new Set(pairsOf(answers)));
          const several = new Set(all.filter((pair, place) => all.indexOf(pair) !== place));
          const scripts = new Set([...several].map((pair) => pair.split(' ')[1]));
          expect(scripts.size).toBeLessThanOrEqual(common);
          // Whole scripts, and as many for each as for any other, up to one.
          const sizes = hands.map((hand) => scriptsOf(hand).length);
          expect(Math.max(...sizes) - Math.min(...sizes)).toBeLessThanOrEqual(1);
        },
      ),
    );
  });

  it('so many scripts and no more, where that was said', () => {
    const answers = [{ questionId: 'q', attemptIds: Array.from({ length: 20 }, (_, n) => `a${n}`) }];
    const hands = dealt(answers, { markers: 2, each: 'part', common: 0, most: 7, seed: 's' });
    expect(hands.map(countGiven)).toEqual([4, 3]);
  });

  it('all for each, in the same order for all', () => {
    fc.assert(
      fc.property(given, (answers) => {
        const [first, second] = dealt(answers, { markers: 2, each: 'all', common: 0, seed: 's' });
        expect(first).toEqual(second);
        expect(new Set(pairsOf(first ?? []))).toEqual(new Set(pairsOf(answers)));
      }),
    );
  });
});

describe('the answers that can be given', () => {
  const seats = textSeats(['west', '', 'east'], [markOf({ attemptId: 'a0', points: 2 })]).map((seat, n) => ({
    ...seat,
    student: studentOf({ id: `s${n}`, groupIds: [n === 2 ? 'other' : 'group1'] }),
  }));
  const ids = (rules: Parameters<typeof answersToGive>[2]) =>
    answersToGive([{ ...openQuestion }], seats, rules).flatMap(({ attemptIds }) => [...attemptIds].sort());

  it('are those of everyone who is in, blank ones too; of one group, or those that wait, where that is asked for', () => {
    expect(ids({ groupId: null, onlyWaiting: false })).toEqual(['a0', 'a1', 'a2']);
    expect(ids({ groupId: 'group1', onlyWaiting: false })).toEqual(['a0', 'a1']);
    expect(ids({ groupId: null, onlyWaiting: true })).not.toContain('a0');
    expect(answersToGive([], seats, { groupId: null, onlyWaiting: false })).toEqual([]);
  });
});

describe('a blind sample', () => {
  const marked = (count: number, times: number) => [
    {
      questionId: 'q4',
      groups: Array.from({ length: count }, (_, n) =>
        sameGroup(
          `text ${n}`,
          Array.from({ length: times }, (_each, k) => markOf({ attemptId: `a${n}.${k}`, points: 1 })),
        ),
      ),
    },
  ];

  it('is a tenth of what was marked, ten at least, one of equal ones', () => {
    expect(countGiven(blindSample(marked(40, 1), ownMarker, 's'))).toBe(10);
    expect(countGiven(blindSample(marked(200, 1), ownMarker, 's'))).toBe(20);
    expect(countGiven(blindSample(marked(30, 5), ownMarker, 's'))).toBe(15);
    expect(countGiven(blindSample(marked(4, 50), ownMarker, 's'))).toBe(4);
    const [sample] = blindSample(marked(30, 5), ownMarker, 's');
    expect(new Set(sample?.attemptIds.map((id) => id.split('.')[0])).size).toBe(15);
  });

  it('holds nothing that somebody else marked, nothing that waits and nothing blank', () => {
    const groups = [
      sameGroup('by another', [markOf({ markerId: 'm1', points: 1 })]),
      sameGroup('waits', [markOf()]),
      { ...sameGroup('', [markOf({ points: 0 })]), blank: true },
    ];
    expect(blindSample([{ questionId: 'q4', groups }], ownMarker, 's')).toEqual([]);
  });
});

describe('a share on its way', () => {
  const assets = [{ id: file.id, name: file.name, mediaType: file.mediaType, base64: 'AAAA' }];
  const content = shareContent(share(), 'Mock exam', paper, attempts, assets);

  it('says nothing of who wrote, when, or what files were called', () => {
    const text = JSON.stringify(content);
    for (const secret of [
      'amara',
      'linh',
      'Linh',
      'noor',
      'student',
      at.slice(0, 16) + ':00.001',
      'sitting1',
    ])
      expect(text).not.toContain(secret);
    expect(filesIn(content).map(({ name }) => name)).toEqual(['file 1.pdf']);
    // When they were written is not told either: all are as old as the share.
    const times = content.scripts.flatMap(({ answers }) => Object.values(answers).map((answer) => answer.at));
    expect(new Set(times)).toEqual(new Set([share().givenAt]));
  });

  it('holds the answers it names and no others, with the questions they need', () => {
    expect(content.scripts.map(({ questionIds }) => questionIds)).toEqual([
      [openQuestion.id],
      [openQuestion.id, passagePlan.id],
    ]);
    expect(content.paper.questions.map(({ id }) => id)).toEqual([openQuestion.id, passagePlan.id]);
    // They are called what they are called on the whole paper.
    expect(content.numbers).toEqual({ [openQuestion.id]: '1', [passagePlan.id]: '3' });
  });

  it('becomes a sitting of scripts by number; its marks come back where they belong', () => {
    let codes = 0;
    const rows = shareRows(content, 'ABCDE-23456', () => `AAAAA${codes++}`, at);
    expect(rows.students.map(({ givenName, familyName }) => `${givenName} ${familyName}`)).toEqual([
      'Script 1',
      'Script 2',
    ]);
    const made = rows.attempts.map(({ id }, n) =>
      changedMark(
        markOf({ attemptId: id, questionId: openQuestion.id, sittingId: 'share1' }),
        { points: n + 1 },
        { at, by: ownMarker, why: '' },
      ),
    );
    const { marks, leftOut } = takenBack(share(), { marks: made }, new Map([[openQuestion.id, 4]]));
    expect(leftOut).toBe(0);
    expect(
      marks.map(({ attemptId, points, markerId, sittingId }) => [attemptId, points, markerId, sittingId]),
    ).toEqual([
      ['amara', 1, 'share1', 'sitting1'],
      ['linh', 2, 'share1', 'sitting1'],
    ]);
    expect(marks[0]?.history.map(({ by }) => by)).toEqual(['share1']);
  });

  it('what was not given, or is more than there is, is left out and counted', () => {
    const most = new Map([[openQuestion.id, 4]]);
    const foreign = [
      markOf({ attemptId: 'amara', questionId: openQuestion.id, points: 1 }),
      markOf({ attemptId: 'share1.7', questionId: openQuestion.id, points: 1 }),
      markOf({ attemptId: 'share1.0', questionId: passagePlan.id, points: 1 }),
      markOf({ attemptId: 'share1.0', questionId: openQuestion.id, points: 5 }),
      markOf({ attemptId: 'share1.-1', questionId: openQuestion.id, points: 1 }),
    ];
    expect(takenBack(share(), { marks: foreign }, most)).toEqual({ marks: [], leftOut: 5 });
    const adjusted = markOf({
      ...{ attemptId: 'share1.0', questionId: openQuestion.id, points: 5 },
      adjustment: { points: 1, reason: 'a way of its own' },
    });
    expect(takenBack(share(), { marks: [adjusted] }, most).marks).toHaveLength(1);
  });
});

describe('how fast somebody marks', () => {
  const after = (minutes: number) => new Date(Date.parse(at) + minutes * 60_000).toISOString();
  const given = (minutes: number) =>
    changedMark(
      markOf({ attemptId: `a${minutes}` }),
      { points: 1 },
      { at: after(minutes), by: ownMarker, why: '' },
    );

  it('is told without pauses', () => {
    // Two a minute for three minutes, an hour away, two more.
    const marks = [0, 0.5, 1, 1.5, 2, 2.5, 3, 63, 63.5].map(given);
    expect(paceOf(marks)).toEqual({ answers: 9, workedMs: 3.5 * 60_000, perHour: 120, lastAt: after(63.5) });
    expect(paceOf([given(0)])).toMatchObject({ answers: 1, perHour: null });
    expect(paceOf([])).toMatchObject({ answers: 0, perHour: null, lastAt: null });
  });
});
