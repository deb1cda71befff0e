import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { beforeEach, describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { at, attemptOf, courseText, markOf, sittingOf, studentOf } from '../../tests/unit/samples';
import { kindOf } from '@/core/kinds';
import { emptyTables, replaceDesk } from './backup';
import { undo } from './command';
import { changePaper } from './papers';
import {
  acceptingQuestion,
  repairQuestion,
  sittingsWithQuestion,
  withdrawRepair,
  type RepairAct,
} from './repairs';
import type { GradeScale } from '@/core/model/gradeScale';
import { repairEffect } from '@/core/repair/effect';
import { gradeOf } from '@/core/scoring/gradeOf';
import type { RepairRule } from '@/core/kinds/repaired';
import { sittingRecords } from './queries';
import { totalShare } from '@/core/scoring/scoreAttempt';
import { seatsOf, type Seat } from '@/core/seats/seats';
import { desk } from './tables';

const content = { title: 'Tides', instructions: '', questions: [courseText] };
const wording = { id: courseText.id, text: 'one hundred and eighteen' };
const plan: RepairAct = {
  ...{ sittingId: 'sitting1', before: courseText, changed: null, itemId: courseText.id, rule: null },
  ...{ nobodyLoses: false, reason: 'The key was wrong', also: [], bank: false },
};
const repair = (part: Partial<RepairAct>) => repairQuestion({ ...plan, ...part }, 'Repaired', at);
const accept = (share: number) => repair({ changed: acceptingQuestion(courseText, wording, share) });

beforeEach(() =>
  replaceDesk({
    ...emptyTables,
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
    students: ['s1', 's2'].map((id, n) => studentOf({ id, joinCode: n ? 'B2B2B2' : 'K7M4QX' })),
    papers: [{ ...content, id: 'paper1', createdAt: at, changedAt: at }],
    paperVersions: [{ ...content, paperId: 'paper1', version: 1, frozenAt: at }],
    sittings: [sittingOf({ paperVersion: 1, closesAt: null, timeLimitMs: null })],
    attempts: ['s1', 's2'].map((studentId, n) =>
      attemptOf({
        ...{ id: `a${n}`, studentId, paperVersion: 1, questionIds: [courseText.id], handedInAt: at },
        answers: { [courseText.id]: { response: { text: wording.text }, at } },
      }),
    ),
    // The second was overridden by hand.
    marks: [markOf({ attemptId: 'a1', questionId: courseText.id, points: 0.25 })],
  }),
);

async function totals(): Promise<(number | undefined)[]> {
  const records = await sittingRecords('sitting1');
  return records ? seatsOf(records, Date.parse(at) + 1000).map(({ scorecard }) => scorecard?.total) : [];
}

describe('a wording accepted from marking', () => {
  it('changes the key of the paper and of what the sitting is scored with; overrides stay', async () => {
    expect(await totals()).toEqual([0, 0.25]);
    await accept(0.5);
    expect(await totals()).toEqual([courseText.points / 2, 0.25]);
    expect(await desk.paperVersions.count()).toBe(2);
    const [question] = (await desk.papers.get('paper1'))?.questions ?? [];
    expect(question && kindOf(question).keyText(question)).toContain(`${wording.text} (50%)`);
    // The mark that was given is no override of the key made here.
    expect(await desk.marks.count()).toBe(1);
  });

  it('is taken back whole', async () => {
    const rows = () =>
      Promise.all([desk.papers, desk.paperVersions, desk.sittings].map((table) => table.toArray()));
    const before = await rows();
    await accept(1);
    expect(await totals()).toEqual([courseText.points, 0.25]);
    expect((await undo(at)).outcome).toBe('undone');
    expect(await rows()).toEqual(before);
    expect(await totals()).toEqual([0, 0.25]);
  });

  it('leaves what else was changed in the paper out of the scores, and where the question itself was changed, that too', async () => {
    const paper = await desk.papers.get('paper1');
    if (!paper) throw new Error('no paper');
    const stricter = { ...courseText, points: 7 };
    await changePaper({ ...paper, title: 'Other', questions: [stricter] }, 'Changed', undefined, at);
    await accept(1);
    expect(await totals()).toEqual([courseText.points, 0.25]);
    expect(await desk.papers.get('paper1')).toMatchObject({ title: 'Other', questions: [{ points: 7 }] });
  });

  it('not where the question was repaired meanwhile', async () => {
    await accept(1);
    await expect(accept(0.5)).rejects.toThrow('paperChangedSince');
    expect(await totals()).toEqual([courseText.points, 0.25]);
  });
});

describe('students who are written to about a repair', () => {
  it('are so by the same act, and it is undone with it', async () => {
    await repair({
      rule: { kind: 'everyone' },
      messages: [{ studentId: 's1', subject: 'Tides', text: 'Question 1 was rescored' }],
    });
    expect(await desk.outbox.toArray()).toMatchObject([{ studentId: 's1', email: studentOf().email }]);
    expect((await undo(at)).outcome).toBe('undone');
    expect(await desk.outbox.count()).toBe(0);
    expect(await desk.repairs.count()).toBe(0);
  });
});

describe('a repair by rule', () => {
  it('gives everyone the points, is on record with what was before, and is withdrawn', async () => {
    const before = await desk.paperVersions.toArray();
    await repair({ rule: { kind: 'everyone' } });
    expect(await totals()).toEqual([courseText.points, courseText.points]);
    const [row] = await desk.repairs.toArray();
    expect(row).toMatchObject({ reason: 'The key was wrong', before: { id: courseText.id } });
    await withdrawRepair(row?.id ?? '', '1', at);
    expect(await totals()).toEqual([0, 0.25]);
    expect(await desk.paperVersions.toArray()).toEqual(before);
    await undo(at);
    expect(await totals()).toEqual([courseText.points, courseText.points]);
  });

  it('reaches other sittings of the paper that had the same question, and no others', async () => {
    await desk.sittings.bulkPut([
      sittingOf({ id: 'sitting2', paperVersion: 1 }),
      sittingOf({ id: 'sitting3', paperVersion: null }),
    ]);
    const sitting = await desk.sittings.get('sitting1');
    const same = sitting ? await sittingsWithQuestion(sitting, courseText) : [];
    expect(same.map(({ id }) => id)).toEqual(['sitting2']);
    await repair({ rule: { kind: 'everyone' }, also: ['sitting2'] });
    expect((await desk.repairs.toArray()).map(({ sittingId }) => sittingId).sort()).toEqual([
      'sitting1',
      'sitting2',
    ]);
    expect((await undo(at)).outcome).toBe('undone');
    expect(await desk.repairs.count()).toBe(0);
  });
});

describe('what could be accepted of an answer', () => {
  it('is what the key does not take, of each gap by itself', () => {
    const kind = kindOf(courseText);
    expect(kind.unaccepted?.(courseText, { text: wording.text })).toEqual([wording]);
    expect(kind.unaccepted?.(courseText, { text: ' ' })).toEqual([]);
    const accepting = kind.accepting?.(courseText, wording, 1, () => 'new') ?? courseText;
    expect(kind.unaccepted?.(accepting, { text: wording.text })).toEqual([]);
    expect(kind.score(accepting, { text: wording.text }).share).toBe(1);
  });
});

const anyDraft = fc.record({
  rule: fc.constantFrom<RepairRule | null>(
    null,
    { kind: 'everyone' },
    { kind: 'answered' },
    { kind: 'dropped', maximum: 'smaller' },
    { kind: 'dropped', maximum: 'same' },
  ),
  accepted: fc.constantFrom(0, 0.5, 1),
  points: fc.integer({ min: 1, max: 5 }),
  nobodyLoses: fc.boolean(),
});

describe('what is shown before a repair', () => {
  it('is what then is, and undone is the desk of before', async () => {
    await fc.assert(
      fc.asyncProperty(anyDraft, async ({ rule, accepted, points, nobodyLoses }) => {
        const records = await sittingRecords('sitting1');
        if (!records) throw new Error('no sitting');
        const now = Date.parse(at) + 1000;
        const seats = seatsOf(records, now);
        const widened = accepted > 0 ? acceptingQuestion(courseText, wording, accepted) : null;
        const changed = { ...(widened ?? courseText), points };
        const draft = { before: courseText, changed, itemId: courseText.id, rule, nobodyLoses };
        const scale: GradeScale = {
          by: 'percent',
          lines: [0.25, 0.5, 0.75].map((from) => ({ grade: `from ${from}`, from })),
        };
        const effect = repairEffect(records, seats, draft, [0.5], new Date(now).toISOString(), scale);
        const before = await Promise.all(
          [desk.papers, desk.sittings, desk.repairs].map((table) => table.toArray()),
        );
        await repair({ changed, rule, nobodyLoses });
        const after = await sittingRecords('sitting1');
        const then = after ? seatsOf(after, now) : [];
        const mean = sumBy(then, ({ scorecard }) => scorecard?.total ?? 0) / then.length;
        expect(effect.after.points).toBeCloseTo(mean, 2);
        const up = then.filter(
          ({ scorecard }, at_) =>
            (scorecard && seats[at_]?.scorecard ? (totalShare(scorecard) ?? 0) : 0) >
            (totalShare(seats[at_]?.scorecard ?? { total: 0, max: 0, scoredMax: 0 }) ?? 0) + 1e-9,
        );
        expect(effect.studentsUp).toBe(up.length);
        const gradesOf = (of: readonly Seat[]) =>
          of.map(
            ({ scorecard }) => scorecard && gradeOf(scale, { points: scorecard.total, max: scorecard.max }),
          );
        const [was, is] = [gradesOf(seats), gradesOf(then)];
        expect(effect.grades.map(({ before: old, after: next }) => [old, next])).toEqual(
          was.flatMap((old, index) => (old === is[index] ? [] : [[old, is[index]]])),
        );
        expect((await undo(at)).outcome).toBe('undone');
        expect(
          await Promise.all([desk.papers, desk.sittings, desk.repairs].map((table) => table.toArray())),
        ).toEqual(before);
      }),
      { numRuns: 40 },
    );
  });
});
