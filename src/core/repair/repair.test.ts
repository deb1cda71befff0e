import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import {
  at,
  attemptOf,
  courseText,
  markOf,
  openQuestion,
  samples,
  tideChoice,
} from '../../../tests/unit/samples';
import type { Question, Response } from '../kinds';
import { madeUpClass } from '../../../tests/unit/madeUpClass';
import { matrixOf } from '../analysis/seatsMatrix';
import { questionFigures } from '../analysis/sittingFigures';
import { scriptPacket } from '../handback/script';
import type { RepairRule } from '../kinds/repaired';
import type { Repair } from '../model/repair';
import { scoreAttempt, totalShare } from '../scoring/scoreAttempt';
import { keepsWhatWasSeen } from './keepsWhatWasSeen';
import { scoredQuestions } from './scoredQuestions';

const answers = (responses: Record<string, Response>) =>
  Object.fromEntries(Object.entries(responses).map(([id, response]) => [id, { response, at }]));
const questions: Question[] = [tideChoice, courseText, openQuestion];
const [choice, text, open] = questions as [Question, Question, Question];
const attempt = attemptOf({
  questionIds: questions.map(({ id }) => id),
  answers: answers({ [choice.id]: { picked: ['a'] }, [text.id]: { text: '118' } }),
});
const marks = [markOf({ questionId: open.id, points: 1 })];
const repairOf = (part: Partial<Repair>): Repair => ({
  ...{ id: 'r1', sittingId: 'sitting1', questionId: choice.id, itemId: choice.id, at, reason: '' },
  ...{ rule: null, nobodyLoses: false, before: choice },
  ...part,
});
const scored = (paper: readonly Question[], repairs: readonly Repair[]) =>
  scoreAttempt(scoredQuestions({ questions: [...paper] }, repairs), attempt, marks);
const plain = scored(questions, []);
const awardOf = (card: typeof plain, { id }: Question) =>
  card.awards.find(({ questionId }) => questionId === id);

describe('a question that is repaired by a rule', () => {
  it('gives everyone the points, or only those who answered', () => {
    expect(awardOf(plain, choice)).toMatchObject({ points: 0 });
    const everyone = scored(questions, [repairOf({ rule: { kind: 'everyone' } })]);
    expect(awardOf(everyone, choice)).toMatchObject({ state: 'given', points: choice.points });
    expect(everyone.total).toBe(plain.total + choice.points);
    const rule: RepairRule = { kind: 'answered' };
    const answered = [{ ...attempt, answers: {} }, attempt].map((each) =>
      scoreAttempt(scoredQuestions({ questions }, [repairOf({ rule })]), each, []),
    );
    expect(answered.map((card) => awardOf(card, choice)?.points)).toEqual([0, choice.points]);
  });

  it('does not count: the maximum is smaller, or the rest stands for it', () => {
    const smaller = scored(questions, [repairOf({ rule: { kind: 'dropped', maximum: 'smaller' } })]);
    expect(smaller).toMatchObject({ max: plain.max - choice.points, total: plain.total, final: true });
    const same = scored(questions, [repairOf({ rule: { kind: 'dropped', maximum: 'same' } })]);
    expect(same.max).toBe(plain.max);
    expect(totalShare(same)).toBeCloseTo(totalShare(smaller) ?? 0, 2);
  });

  it('the points of a question that does not count are never waited for', () => {
    const rule: RepairRule = { kind: 'dropped', maximum: 'smaller' };
    const repairs = [repairOf({ questionId: open.id, itemId: open.id, before: open, rule })];
    const card = scoreAttempt(scoredQuestions({ questions }, repairs), attempt, []);
    expect(card).toMatchObject({ waiting: 0, final: true });
  });

  it('the last repair of a question holds', () => {
    const repairs = [
      repairOf({ rule: { kind: 'everyone' } }),
      repairOf({ id: 'r2', rule: null, at: '2030-01-01T00:00:00.000Z' }),
    ];
    expect(scored(questions, repairs)).toEqual(plain);
    expect(scored(questions, [...repairs].reverse())).toEqual(plain);
  });
});

const anyRule = fc.constantFrom<RepairRule | null>(
  null,
  { kind: 'everyone' },
  { kind: 'answered' },
  { kind: 'dropped', maximum: 'smaller' },
  { kind: 'dropped', maximum: 'same' },
);
const anyRepair = fc.record({
  which: fc.nat(2),
  rule: anyRule,
  points: fc.integer({ min: 1, max: 6 }),
  key: fc.constantFrom('a', 'b', 'c'),
  nobodyLoses: fc.boolean(),
});
const anyAttempt = fc.record({
  picked: fc.constantFrom('a', 'b', 'c', ''),
  text: fc.constantFrom('118', '119', 'east', ''),
  byHand: fc.option(fc.integer({ min: 0, max: 12 }).map((n) => n / 4)),
});

describe('figures of a question that no longer counts', () => {
  it('are none: it is neither easy nor hard', () => {
    const rule: RepairRule = { kind: 'dropped', maximum: 'smaller' };
    const { seats } = madeUpClass(30, [], 3);
    const [first, ...rest] = seats[0]?.scorecard ? madeUpClass(30, [], 3).questions : [];
    if (!first) throw new Error('no question');
    const dropped = { ...first, repaired: { rule, floor: null } };
    const [figures] = questionFigures([dropped, ...rest], seats);
    expect(figures).toMatchObject({ facility: null, meanPoints: null });
    expect(matrixOf([dropped, ...rest], seats).questions.map(({ id }) => id)).not.toContain(first.id);
  });
});

describe('a question that students saw', () => {
  it('keeps its options, items and gaps; its key and its words may change', () => {
    const changes: [Question, Question, boolean][] = [
      [choice, { ...choice, key: 'a' } as Question, true],
      [choice, { ...choice, options: 'options' in choice ? choice.options.slice(1) : [] } as Question, false],
      [text, { ...text, accepted: [] } as Question, true],
      [samples.ordering, { ...samples.ordering, items: [] } as Question, false],
      [samples.gaps, { ...samples.gaps, gaps: [] } as Question, false],
      [samples.matching, { ...samples.matching, wrongTakesOff: true } as Question, true],
    ];
    for (const [before, after, kept] of changes)
      expect(keepsWhatWasSeen(before, after), after.kind).toBe(kept);
  });
});

describe('what a student reads of a repair', () => {
  const shows = {
    total: true,
    points: true,
    answers: true,
    rightOrWrong: true,
    accepted: true,
    comments: true,
  };
  const read = (repairs: Repair[], releasedAt: string) =>
    scriptPacket(
      {
        ...{ sittingId: 's', title: 'Tides', attempt, marks, repairs, releasedAt, firstName: 'Mei' },
        questions: scoredQuestions({ questions: [{ ...choice, key: 'a' } as Question, text, open] }, repairs),
      },
      shows,
    ).questions[0]?.repair;

  it('is the change and its reason once the result was seen; what came before is no news', () => {
    const repair = repairOf({ reason: 'The key was wrong' });
    expect(read([repair], '2020-01-01T00:00:00.000Z')).toEqual({
      ...{ at, reason: 'The key was wrong', how: 'key', before: 0 },
    });
    expect(read([repair], '2030-01-01T00:00:00.000Z')).toBeUndefined();
    // A rule is explained in any case.
    const given = repairOf({ rule: { kind: 'everyone' }, reason: 'Not taught' });
    expect(read([given], '2030-01-01T00:00:00.000Z')).toMatchObject({ how: 'everyone', before: null });
  });
});

describe('any repairs, one after the other', () => {
  it('nobody has a smaller share by one that nobody may lose by', () => {
    fc.assert(
      fc.property(
        fc.array(anyRepair, { maxLength: 5 }),
        anyAttempt,
        (steps, { picked, text: words, byHand }) => {
          const sat = attemptOf({
            questionIds: questions.map(({ id }) => id),
            answers: answers({
              ...(picked && { [choice.id]: { picked: [picked] } }),
              ...(words && { [text.id]: { text: words } }),
            }),
          });
          const given = byHand === null ? [] : [markOf({ questionId: open.id, points: byHand })];
          let paper = questions;
          const repairs: Repair[] = [];
          const card = () => scoreAttempt(scoredQuestions({ questions: paper }, repairs), sat, given);
          for (const [index, { which, rule, points, key, nobodyLoses }] of steps.entries()) {
            const before = paper[which] ?? choice;
            const had = card();
            repairs.push(
              repairOf({
                ...{ id: `r${index}`, questionId: before.id, itemId: before.id, rule, nobodyLoses, before },
                at: new Date(Date.parse(at) + index * 1000).toISOString(),
              }),
            );
            const changed = {
              ...before,
              points,
              ...(before.kind === 'oneChoice' && { key }),
            } as Question;
            paper = paper.map((each) => (each === before ? changed : each));
            const has = card();
            // A share is known only once there are points, and of nothing there is none.
            const [old, next] = [totalShare(had), totalShare(has)];
            const award = awardOf(has, changed);
            if (nobodyLoses && has.max > 0 && old !== null && next !== null && award?.points !== null)
              expect(next).toBeGreaterThanOrEqual(old - 1e-9);
            const sum = sumBy(has.awards, (each) => each.points ?? 0);
            expect(has.total).toBeCloseTo(sum, 6);
          }
        },
      ),
      { numRuns: 400 },
    );
  });
});
