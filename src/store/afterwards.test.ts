import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, attemptOf, planShowing, samples, sittingOf, studentOf } from '../../tests/unit/samples';
import { answers } from '@/core/exchange';
import { showing } from '@/core/model/release';
import { emptyTables, replaceDesk } from './backup';
import { deskRepository } from './deskRepository';
import { followPlan, handBack, holdBack, holdForAll, withdrawResults } from './releases';
import { resultPreview } from './resultPreview';
import { sittingRecords } from './queries';
import { seatsOf } from '@/core/seats/seats';
import { desk } from './tables';

const now = Date.parse(at) + 7_200_000;
const iso = (ms: number) => new Date(now + ms).toISOString();
const student = studentOf();
const { joinCode } = student;
const questions = Object.values(samples).filter(({ kind }) => kind !== 'file' && kind !== 'working');

beforeEach(async () => {
  const paper = { id: 'paper1', title: 'Tides', instructions: '', questions, createdAt: at, changedAt: at };
  await replaceDesk({
    ...emptyTables,
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
    students: [student, studentOf({ id: 'student2', joinCode: 'B2B2B2', familyName: 'Silva' })],
    papers: [paper],
    paperVersions: [
      { paperId: 'paper1', version: 1, frozenAt: at, title: 'Tides', instructions: '', questions },
    ],
    sittings: [sittingOf({ paperVersion: 1, closesAt: iso(-1_000) })],
    attempts: [
      attemptOf({
        questionIds: questions.map(({ id }) => id),
        handedInAt: at,
        answers: { q3: { response: { text: 'north' }, at } },
      }),
    ],
  });
});

const seats = async () => {
  const records = await sittingRecords('sitting1');
  return records ? seatsOf(records, now) : [];
};
const home = async () => (await answers.home(deskRepository, joinCode, now))[0];

describe('in the same browser', () => {
  it('a missed question is answered again and a mark asked about, each once', async () => {
    const plan = planShowing('sitting1', showing('total', 'points'));
    await handBack(
      { ...plan, invites: { asks: true, correct: { share: 1, until: null } } },
      ['student1'],
      iso(0),
    );
    const correct = (text: string) =>
      answers.correct(deskRepository, joinCode, 'sitting1', 'q3', { text }, now);
    expect(await correct('secret-118')).toBe(true);
    expect(await correct('SECRET-half')).toBe(false);
    const row = async () =>
      (await answers.result(deskRepository, joinCode, 'sitting1', false, now))?.questions.find(
        ({ question }) => question.id === 'q3',
      );
    expect(await row()).toMatchObject({ points: 2, correction: { points: 2, gained: 2 } });
    const ask = () =>
      answers.ask(
        deskRepository,
        joinCode,
        'sitting1',
        { asks: 'mark', words: 'Why?', questionId: 'q3' },
        now,
      );
    expect([await ask(), await ask()]).toEqual([true, false]);
    expect((await row())?.asked).toMatchObject([{ words: 'Why?', answer: null }]);
  });
});

describe('a plan that hands back by itself', () => {
  it('hands back what becomes ready, keeps what is held, and a withdrawn one does not come back', async () => {
    const plan = { ...planShowing('sitting1', showing('total')), follows: true };
    await desk.releasePlans.put(plan);
    // An open answer waits: nothing is ready.
    await followPlan('sitting1', await seats(), iso(0));
    expect(await desk.releases.count()).toBe(0);
    await desk.attempts.update('attempt1', { questionIds: ['q1', 'q3'] });
    await followPlan('sitting1', await seats(), iso(1_000));
    expect(await desk.releases.toArray()).toEqual([
      { sittingId: 'sitting1', studentId: 'student1', releasedAt: iso(1_000) },
    ]);
    expect((await home())?.handedBack).toBe(true);
    // It is on record, and no act of the teacher's that undo would take back.
    expect(await desk.log.toArray()).toMatchObject([{ command: 'followPlan', rows: 0 }]);
    await withdrawResults('sitting1', ['student1'], iso(2_000));
    await followPlan('sitting1', await seats(), iso(3_000));
    expect((await home())?.handedBack).toBe(false);
    await handBack(plan, ['student1'], iso(4_000));
    expect((await home())?.handedBack).toBe(true);
    await holdBack('sitting1', ['student1'], 'has to talk to me', iso(5_000));
    expect((await home())?.handedBack).toBe(false);
  });

  it('a stage that waits for the last begins when nobody may sit it, and stays begun', async () => {
    const [stage] = planShowing('sitting1', showing('total', 'accepted')).stages;
    await handBack(
      { sittingId: 'sitting1', at, stages: stage ? [{ ...stage, starts: 'sat' }] : [] },
      ['student1'],
      iso(0),
    );
    const stageAt = async () => (await desk.releasePlans.get('sitting1'))?.stages[0]?.at;
    await desk.sittings.update('sitting1', { closesAt: null });
    await followPlan('sitting1', await seats(), iso(0));
    expect(await stageAt()).toBeNull();
    await desk.sittings.update('sitting1', { closesAt: iso(60_000) });
    await followPlan('sitting1', await seats(), iso(0));
    expect(await stageAt()).toBe(iso(60_000));
    expect((await home())?.handedBack).toBe(false);
    await desk.sittings.update('sitting1', { closesAt: iso(-60_000) });
    await followPlan('sitting1', await seats(), iso(0));
    expect(await stageAt()).toBe(iso(-60_000));
    expect((await home())?.handedBack).toBe(true);
    // What was seen is not taken away because somebody may sit after all.
    await desk.sittings.update('sitting1', { closesAt: iso(600_000) });
    await followPlan('sitting1', await seats(), iso(0));
    expect(await stageAt()).toBe(iso(-60_000));
  });

  it('points of a question are seen only once it is marked for everyone, where the plan says so', async () => {
    await desk.attempts.update('attempt1', { questionIds: ['q1', 'q3'] });
    await desk.attempts.put(
      attemptOf({ id: 'attempt2', studentId: 'student2', questionIds: ['q1', 'q4'], handedInAt: at }),
    );
    const plan = { ...planShowing('sitting1', showing('total', 'points')), whole: true };
    await handBack(plan, ['student1', 'student2'], iso(0));
    await followPlan('sitting1', await seats(), iso(0));
    expect((await desk.releasePlans.get('sitting1'))?.unfinished).toEqual(['q4']);
    const seen = async (code: string) => answers.result(deskRepository, code, 'sitting1', false, now);
    expect((await seen(joinCode))?.questions.map(({ points }) => points)).toEqual([0, 0]);
    expect((await seen('B2B2B2'))?.questions.map(({ points }) => points)).toEqual([0, undefined]);
    expect((await seen('B2B2B2'))?.waiting).toBe(1);
  });
});

describe('a draft', () => {
  it('is seen by nobody until it is used: not by who has a result, nor by who gets one meanwhile', async () => {
    await desk.attempts.put(
      attemptOf({ id: 'attempt2', studentId: 'student2', questionIds: ['q1'], handedInAt: at }),
    );
    const plan = planShowing('sitting1', showing('total'));
    await handBack(plan, ['student1'], iso(0));
    const draft = planShowing('sitting1', showing('total', 'accepted')).stages;
    await handBack({ ...plan, draft }, ['student2'], iso(1_000));
    const accepted = async (code: string) =>
      (await answers.result(deskRepository, code, 'sitting1', false, now + 2_000))?.questions.length ?? -1;
    expect([await accepted(joinCode), await accepted('B2B2B2')]).toEqual([0, 0]);
    await holdForAll({ ...plan, stages: draft }, iso(3_000));
    expect(await accepted('B2B2B2')).toBe(1);
    expect((await desk.releasePlans.get('sitting1'))?.draft).toBeUndefined();
  });
});

describe('the preview', () => {
  it('is what the student gets, at any instant, and before anything is handed back', async () => {
    const [stage] = planShowing('sitting1', showing('total')).stages;
    const later = stage && {
      ...stage,
      id: 'b',
      starts: 'at' as const,
      at: iso(60_000),
      shows: showing('answers'),
    };
    const plan = { sittingId: 'sitting1', at, stages: stage && later ? [stage, later] : [] };
    const preview = (ms: number) => resultPreview('sitting1', 'student1', plan, now + ms);
    const before = [await preview(0), await preview(60_000)];
    await handBack(plan, ['student1'], iso(0));
    const gets = async (ms: number) => answers.result(deskRepository, joinCode, 'sitting1', false, now + ms);
    for (const [index, ms] of [0, 60_000].entries()) {
      const { handedBackAt: _now, ...made } = before[index] ?? { handedBackAt: '' };
      const { handedBackAt: _then, ...got } = (await gets(ms)) ?? { handedBackAt: '' };
      expect(got).toEqual(made);
    }
    expect(await resultPreview('sitting1', 'student1', null, now)).toBeNull();
    expect(await desk.openings.count()).toBe(0);
  });
});
