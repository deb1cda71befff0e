import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, courseText, openQuestion, sittingOf, studentOf, tideChoice } from '../../tests/unit/samples';
import {
  asks,
  begins,
  comesAsGuest,
  handsIn,
  practises,
  reads,
  seesHome,
  sends,
} from '../../tests/unit/studentSide';
import type { Question } from '@/core/kinds';
import type { Sitting } from '@/core/model/sitting';
import { leavingOf } from '@/core/attempts/watching';
import { emptyTables, replaceDesk } from './backup';
import { undo } from './command';
import { sittingFrame } from './queries';
import { giveAllowance } from './exceptions';
import { answerRequest, grantRequest, requestRows } from './requests';
import { deleteSitting } from './sittings';
import { desk } from './tables';
import { beginTryOut, clearTryOut } from './tryOut';

const start = Date.parse(at);
const { joinCode } = studentOf();
const hinted: Question = { ...tideChoice, hints: [{ id: 'h1', text: 'SECRET-HINT', cost: 0.5 }] };
const questions = [hinted, courseText, openQuestion];

async function deskWith(part: Partial<Sitting>) {
  await replaceDesk({
    ...emptyTables,
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
    students: [studentOf(), studentOf({ id: 'linh', givenName: 'Linh', joinCode: 'B2B2B2' })],
    papers: [{ id: 'paper1', title: 'Tides', instructions: '', questions, createdAt: at, changedAt: at }],
    sittings: [sittingOf({ paperVersion: null, ...part })],
  });
}

async function started(code = joinCode, now = start, tab?: string) {
  const reply = await begins(code, 'sitting1', 'ebb', now, tab);
  if (reply.outcome !== 'started') throw new Error(reply.why);
  return reply.packet;
}
const text = (words: string) => ({ response: { text: words }, at });
const answerOf = async (attemptId: string, id: string) =>
  (await desk.attempts.get(attemptId))?.answers[id]?.response;

beforeEach(() => deskWith({}));

describe('one by one and students can’t go back', () => {
  it('what is done with can no longer be changed, what came with it is taken', async () => {
    await deskWith({ oneByOne: true, noBack: true });
    const { attemptId, noBack } = await started();
    expect(noBack).toBe(true);
    await sends(joinCode, attemptId, { q3: text('118') }, null, start + 1000, { passed: ['q3', 'other'] });
    await sends(joinCode, attemptId, { q3: text('changed'), q4: text('iron') }, null, start + 2000);
    expect(await answerOf(attemptId, 'q3')).toEqual({ text: '118' });
    expect(await answerOf(attemptId, 'q4')).toEqual({ text: 'iron' });
    expect((await started(joinCode, start + 3000)).passed).toEqual(['q3']);
  });

  it('each student has the questions in an order of his own, the same whenever it is read', async () => {
    await deskWith({ shuffle: true });
    const orders = new Set<string>();
    for (let index = 0; index < 12; index++) {
      const code = `CCCCC${'23456789ABCD'.charAt(index)}`;
      await desk.students.add(studentOf({ id: code, joinCode: code }));
      const packet = await started(code);
      orders.add(packet.questions.map(({ id }) => id).join());
      expect((await started(code, start + 1000)).questions).toEqual(packet.questions);
    }
    expect(orders.size).toBeGreaterThan(1);
  });
});

describe('practice through the exchange', () => {
  const rules = { tries: 2, lossPerTry: 0.5, hints: true, showAnswer: true };

  it('a try is scored at once; nothing of key or hint travels before it is let out', async () => {
    await deskWith({ practice: rules });
    const packet = await started();
    expect(JSON.stringify(packet)).not.toContain('SECRET');
    const wrong = await practises(
      joinCode,
      packet.attemptId,
      'q1',
      { act: 'try', response: { picked: ['a'] } },
      start,
    );
    expect(wrong?.view).toMatchObject({ verdict: 'wrong', triesLeft: 1, pointsLeft: 0.5 });
    const hint = await practises(joinCode, packet.attemptId, 'q1', { act: 'hint' }, start + 1);
    expect(hint?.view).toMatchObject({ hints: ['SECRET-HINT'], pointsLeft: 0 });
    expect(await answerOf(packet.attemptId, 'q1')).toEqual({ picked: ['a'] });
    // Back on another device: what was let out is there again.
    expect((await started(joinCode, start + 5)).practice?.views.q1?.hints).toEqual(['SECRET-HINT']);
  });

  it('a question that is done can no longer be changed, and nobody else can try it', async () => {
    await deskWith({ practice: rules });
    const { attemptId } = await started();
    await practises(joinCode, attemptId, 'q1', { act: 'try', response: { picked: ['b'] } }, start);
    await sends(joinCode, attemptId, { q1: { response: { picked: ['a'] }, at } }, null, start + 1);
    expect(await answerOf(attemptId, 'q1')).toEqual({ picked: ['b'] });
    expect(await practises('B2B2B2', attemptId, 'q1', { act: 'show' }, start)).toBeNull();
    const bad = await practises(
      joinCode,
      attemptId,
      'q3',
      { act: 'try', response: { picked: ['x'] } },
      start + 2,
    );
    expect(bad?.view.tries).toBe(0);
  });

  it('where it is no practice there is nothing to try, hint or show', async () => {
    const { attemptId } = await started();
    expect(await practises(joinCode, attemptId, 'q1', { act: 'show' }, start)).toBeNull();
  });
});

describe('two tabs of one attempt', () => {
  it('the second has it, the first is told; what the first still had on its way is not lost', async () => {
    const { attemptId } = await started(joinCode, start, 'first');
    await started(joinCode, start + 10_000, 'second');
    const late = await sends(
      joinCode,
      attemptId,
      { q3: text('typed in the first') },
      ['q1'],
      start + 11_000,
      {
        tabId: 'first',
      },
    );
    expect(late?.elsewhere).toBe(true);
    expect(await answerOf(attemptId, 'q3')).toEqual({ text: 'typed in the first' });
    expect((await desk.attempts.get(attemptId))?.comeBack).toEqual([]);
    const here = await sends(joinCode, attemptId, { q3: text('typed in the second') }, null, start + 12_000, {
      tabId: 'second',
    });
    expect(here?.elsewhere).toBe(false);
    await sends(joinCode, attemptId, { q3: text('too old') }, null, start + 13_000, { tabId: 'first' });
    expect(await answerOf(attemptId, 'q3')).toEqual({ text: 'typed in the second' });
  });
});

describe('what the student’s side notices', () => {
  it('comes with its time by the clock that rules, and never before the start', async () => {
    const { attemptId } = await started();
    const noticed = [
      { kind: 'left' as const, agoMs: 20_000 },
      { kind: 'returned' as const, agoMs: 5_000 },
      { kind: 'left' as const, agoMs: 99_999_999 },
    ];
    await sends(joinCode, attemptId, {}, null, start + 30_000, { noticed });
    const attempt = await desk.attempts.get(attemptId);
    expect(attempt?.events.slice(1).map(({ kind, at: when }) => [kind, Date.parse(when) - start])).toEqual([
      ['left', 10_000],
      ['returned', 25_000],
      ['left', 0],
    ]);
    expect(attempt && leavingOf(attempt).times).toBe(2);
  });

  it('time at the questions adds up, and never to more than there was', async () => {
    const { attemptId } = await started();
    await sends(joinCode, attemptId, {}, null, start + 10_000, {
      timeOnMs: { q1: 4000, q3: 3000, foreign: 5 },
    });
    await sends(joinCode, attemptId, {}, null, start + 20_000, { timeOnMs: { q1: 99_999_999 } });
    const time = (await desk.attempts.get(attemptId))?.timeOnMs ?? {};
    expect(time).toEqual({ q1: 17_000, q3: 3000 });
  });
});

describe('straight after handing in', () => {
  const shows = {
    total: true,
    points: true,
    answers: true,
    rightOrWrong: true,
    accepted: false,
    comments: false,
  };

  it('shows what the sitting says, nothing before and nothing more', async () => {
    await deskWith({ after: shows });
    const { attemptId } = await started();
    expect(await reads(joinCode, 'sitting1', start + 1)).toBeNull();
    await sends(joinCode, attemptId, { q1: { response: { picked: ['b'] }, at } }, null, start + 2);
    await handsIn(joinCode, attemptId, start + 3);
    const script = await reads(joinCode, 'sitting1', start + 4);
    expect(script).toMatchObject({ total: { points: 1, max: 6 }, waiting: 1 });
    expect(JSON.stringify(script)).not.toContain('SECRET');
    expect(await seesHome(joinCode, start + 5)).toMatchObject([{ handedBack: true, may: 'noAttemptLeft' }]);
  });

  it('of several attempts the mean of all is the total, where the mean counts', async () => {
    await deskWith({ after: shows, attempts: 2, counts: 'mean' });
    for (const picked of ['b', 'a']) {
      const { attemptId } = await started();
      await sends(joinCode, attemptId, { q1: { response: { picked: [picked] }, at } }, null, start + 1);
      await handsIn(joinCode, attemptId, start + 2);
    }
    expect(await reads(joinCode, 'sitting1', start + 3)).toMatchObject({
      total: { points: 0.5, max: 6 },
      meanOf: 2,
      waiting: 2,
    });
  });
});

describe('guests', () => {
  it('come in with a name and the access code, to that sitting alone, and are seen as guests', async () => {
    await deskWith({ guests: true, accessCode: 'Ebb' });
    expect(await comesAsGuest('Nia', 'flood', start)).toBeNull();
    expect(await comesAsGuest('  ', 'ebb', start)).toBeNull();
    const guest = await comesAsGuest('Nia  Mwangi', ' ebb ', start);
    expect(guest).toMatchObject({ givenName: 'Nia', familyName: 'Mwangi', guest: true, groups: [] });
    const code = guest?.joinCode ?? '';
    expect(await seesHome(code, start)).toMatchObject([{ may: 'start', codeAsked: false }]);
    await started(code);
    const frame = await sittingFrame('sitting1');
    expect(frame?.students.filter(({ role }) => role === 'guest')).toHaveLength(1);
  });

  it('none where the sitting takes none, or is not open', async () => {
    await deskWith({ accessCode: 'ebb' });
    expect(await comesAsGuest('Nia', 'ebb', start)).toBeNull();
    await deskWith({ accessCode: 'ebb', guests: true });
    expect(await comesAsGuest('Nia', 'ebb', start - 1)).toBeNull();
    expect(await desk.students.count()).toBe(2);
  });
});

describe('a sitting that is deleted', () => {
  it('takes its guests and requests with it, and the undo brings them back', async () => {
    await deskWith({ guests: true, accessCode: 'ebb' });
    const guest = await comesAsGuest('Nia', 'ebb', start);
    await started(guest?.joinCode);
    await asks(guest?.joinCode ?? '', 'sitting1', { asks: 'other', words: 'Hello' }, start);
    await deleteSitting('sitting1', at);
    expect(await desk.students.count()).toBe(2);
    expect(await desk.requests.count()).toBe(0);
    await undo(at);
    expect(await desk.students.count()).toBe(3);
    expect(await desk.requests.count()).toBe(1);
  });
});

describe('the teacher’s own try-out', () => {
  it('can be sat at any time, leaves the sitting to follow its paper, and counts nowhere', async () => {
    await deskWith({
      accessCode: 'ebb',
      closedToStartsAt: at,
      opensAt: '2026-12-01T10:00:00.000Z',
      closesAt: null,
    });
    const code = await beginTryOut('sitting1');
    const reply = await begins(code, 'sitting1', '', start);
    expect(reply.outcome).toBe('started');
    expect((await desk.sittings.get('sitting1'))?.paperVersion).toBeNull();
    expect((await sittingFrame('sitting1'))?.students.map(({ role }) => role)).toEqual([
      undefined,
      undefined,
    ]);
    await clearTryOut('sitting1');
    expect(await desk.attempts.count()).toBe(0);
    expect(await desk.paperVersions.count()).toBe(0);
    expect(await desk.students.count()).toBe(2);
  });
});

describe('asking for an exception', () => {
  it('waits with the teacher, one at a time; the answer comes back to the student', async () => {
    const ask = () => asks(joinCode, 'sitting1', { asks: 'moreTime', words: 'I broke my arm' }, start);
    expect(await ask()).toBe(true);
    expect(await ask()).toBe(false);
    expect(await asks('ABCDEF', 'sitting1', { asks: 'other', words: 'x' }, start)).toBe(false);
    const [row] = await requestRows();
    await answerRequest(row?.request.id ?? '', false, 'Use the other hand', at);
    const [sitting] = await seesHome(joinCode, start);
    expect(sitting?.requests).toEqual([
      {
        asks: 'moreTime',
        words: 'I broke my arm',
        at,
        answer: { granted: false, words: 'Use the other hand', at },
      },
    ]);
    expect(await ask()).toBe(true);
  });

  it('granted, what it asks for is done and it is answered in one step, and undone in one', async () => {
    await asks(joinCode, 'sitting1', { asks: 'moreTime', words: 'I broke my arm' }, start);
    const [row] = await requestRows('sitting1');
    await grantRequest(row?.request.id ?? '', '10 minutes', at, () =>
      giveAllowance('sitting1', 'student1', { kind: 'minutes', minutes: 10 }, 'I broke my arm', at),
    );
    expect(await desk.allowances.count()).toBe(1);
    expect((await requestRows('sitting1'))[0]?.request.answer?.granted).toBe(true);
    expect(await undo(at)).toMatchObject({ outcome: 'undone', said: 'Amara Okafor: request granted' });
    expect(await desk.allowances.count()).toBe(0);
    expect((await requestRows('sitting1'))[0]?.request.answer).toBeNull();
  });
});
