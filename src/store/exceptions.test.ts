import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, samples, sittingOf, studentOf } from '../../tests/unit/samples';
import { begins, handsIn, seesHome, sends } from '../../tests/unit/studentSide';
import { emptyTables, replaceDesk } from './backup';
import { undo } from './command';
import {
  carryOn,
  collectFrom,
  giveAllowance,
  giveAttempt,
  giveLasting,
  setAside,
  startAfresh,
  restoreAttempt,
} from './exceptions';
import { desk } from './tables';
import { lateKey } from '@/core/attempts/late';
import { ownMarker } from '@/core/model/mark';
import { decideLate } from './lateAnswers';
import { markAnswers } from './marks';

const start = Date.parse(at);
const after = (minutes: number) => start + minutes * 60_000;
const iso = (minutes: number) => new Date(after(minutes)).toISOString();
const { joinCode, id } = studentOf();

beforeEach(() =>
  replaceDesk({
    ...emptyTables,
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
    students: [studentOf(), studentOf({ id: 'other', joinCode: 'BBBBBB' })],
    papers: [
      {
        id: 'paper1',
        title: 'Tides',
        instructions: '',
        questions: Object.values(samples),
        createdAt: at,
        changedAt: at,
      },
    ],
    sittings: [sittingOf({ paperVersion: null })],
  }),
);

async function begin(minutes = 0): Promise<string> {
  const reply = await begins(joinCode, 'sitting1', '', after(minutes));
  if (reply.outcome !== 'started') throw new Error(reply.why);
  return reply.packet.attemptId;
}

const typed = (attemptId: string, text: string, minutes: number) =>
  sends(joinCode, attemptId, { q4: { response: { text }, at } }, null, after(minutes));

describe('an attempt handed in by mistake', () => {
  it('is carried on with the same answers and the time that was left; the undo ends it again', async () => {
    const attemptId = await begin();
    await typed(attemptId, 'the iron of the boat', 9);
    await handsIn(joinCode, attemptId, after(10));
    await carryOn('sitting1', id, 'Handed in by mistake', iso(30));
    const status = await typed(attemptId, 'and the engine', 31);
    expect(status).toMatchObject({ state: 'working', deadline: after(80) });
    expect(await begin(32)).toBe(attemptId);
    expect((await desk.attempts.get(attemptId))?.answers.q4?.response).toEqual({ text: 'and the engine' });
  });

  it('cannot be carried on once all its time was used, and that is said', async () => {
    await begin();
    await expect(carryOn('sitting1', id, 'r', iso(90))).rejects.toThrow(/noTimeLeft/);
    await expect(carryOn('sitting1', 'other', 'r', iso(90))).rejects.toThrow(/noAttemptEnded/);
  });

  it('is undone in one step', async () => {
    const attemptId = await begin();
    await handsIn(joinCode, attemptId, after(10));
    await carryOn('sitting1', id, 'By mistake', iso(12));
    expect((await undo(iso(13))).outcome).toBe('undone');
    expect((await desk.attempts.get(attemptId))?.handedInAt).toBe(iso(10));
  });
});

describe('a paper opened by mistake', () => {
  it('is set aside while it runs; the student starts afresh, even where it is closed to new starts', async () => {
    const first = await begin();
    await typed(first, 'kept', 1);
    await desk.sittings.update('sitting1', { closedToStartsAt: iso(2) });
    await startAfresh('sitting1', id, 'Opened by mistake', iso(5));
    expect(await typed(first, 'too late', 6)).toMatchObject({ state: 'collected' });
    expect(await begins('BBBBBB', 'sitting1', '', after(6))).toMatchObject({ why: 'closedToStarts' });
    const second = await begin(7);
    expect(second).not.toBe(first);
    expect(await desk.attempts.get(second)).toMatchObject({ number: 2, answers: {} });
    expect((await desk.attempts.get(first))?.answers.q4?.response).toEqual({ text: 'kept' });
  });

  it('taken back while another runs, it is collected: never two running', async () => {
    const first = await begin();
    await setAside('sitting1', id, 'A try-out', iso(1));
    await begin(2);
    await restoreAttempt(first, 'It is the better one', iso(3));
    expect(await desk.attempts.get(first)).toMatchObject({ setAsideAt: null, collectedAt: iso(3) });
    await expect(restoreAttempt(first, 'again', iso(4))).rejects.toThrow(/notSetAside/);
  });

  it('a later one taken back while an earlier one runs goes on in its place', async () => {
    const first = await begin();
    await giveAttempt('sitting1', id, 'Second chance', iso(1));
    const second = await begin(2);
    await setAside('sitting1', id, 'A try-out', iso(3));
    await carryOn('sitting1', id, 'By mistake', iso(4));
    expect(await begin(5)).toBe(first);
    await restoreAttempt(second, 'It is the better one', iso(6));
    expect(await desk.attempts.get(first)).toMatchObject({ collectedAt: iso(6) });
    expect(await begin(7)).toBe(second);
    await expect(carryOn('sitting1', id, 'r', iso(8))).rejects.toThrow(/noAttemptEnded/);
  });
});

describe('several at once', () => {
  it('minutes for all are one step, and one undo takes them back', async () => {
    await giveAllowance('sitting1', [id, 'other'], { kind: 'minutes', minutes: 10 }, 'Fire alarm', iso(0));
    expect((await desk.allowances.toArray()).map(({ studentId }) => studentId).sort()).toEqual(['other', id]);
    expect((await desk.log.toArray()).at(-1)?.said).toBe('2 students have 10 more minutes');
    await undo(iso(1));
    expect(await desk.allowances.count()).toBe(0);
  });

  it('collecting leaves alone who is not working', async () => {
    const attemptId = await begin();
    await collectFrom('sitting1', [id, 'other'], 'Time is over', iso(5));
    expect((await desk.attempts.get(attemptId))?.collectedAt).toBe(iso(5));
    expect(await desk.attempts.count()).toBe(1);
  });

  it('what cannot be done for one of them is done for none', async () => {
    const attemptId = await begin();
    await handsIn(joinCode, attemptId, after(3));
    await expect(carryOn('sitting1', [id, 'other'], 'r', iso(5))).rejects.toThrow(/noAttemptEnded/);
    expect((await desk.attempts.get(attemptId))?.handedInAt).toBe(iso(3));
  });
});

describe('an attempt whose time ran out before another one began', () => {
  it('stays ended when more minutes are given afterwards: never two running', async () => {
    const first = await begin();
    await giveAttempt('sitting1', id, 'Second chance', iso(10));
    await carryOn('sitting1', id, 'By mistake', iso(10));
    const second = await begin(61);
    expect(second).not.toBe(first);
    expect(await desk.attempts.get(first)).toMatchObject({ collectedAt: iso(60) });
    await giveAllowance('sitting1', id, { kind: 'minutes', minutes: 30 }, 'Extra time', iso(62));
    expect((await typed(first, 'too late', 63))?.state).toBe('collected');
    expect((await typed(second, 'here', 63))?.state).toBe('working');
  });
});

describe('time of one’s own', () => {
  it('who was ill sits it the day after, alone', async () => {
    const nextDay = 24 * 60;
    await giveAllowance(
      'sitting1',
      id,
      { kind: 'window', opensAt: iso(nextDay), closesAt: iso(nextDay + 90) },
      'Illness',
      iso(0),
    );
    const startAt = (code: string, minutes: number) => begins(code, 'sitting1', '', after(minutes));
    expect(await startAt(joinCode, 10)).toMatchObject({ why: 'notYet' });
    expect(await startAt('BBBBBB', nextDay + 5)).toMatchObject({ why: 'over' });
    expect(await startAt(joinCode, nextDay + 60)).toMatchObject({
      outcome: 'started',
      status: { deadline: after(nextDay + 90) },
    });
  });

  it('a quarter more holds in every sitting until it is taken back', async () => {
    await giveLasting(id, 25, 'Reads slowly', iso(0));
    expect((await seesHome(joinCode, start))[0]?.timeLimitMs).toBe(75 * 60_000);
    expect((await seesHome('BBBBBB', start))[0]?.timeLimitMs).toBe(60 * 60_000);
    await giveLasting(id, null, 'no longer needed', iso(1));
    expect((await seesHome(joinCode, start))[0]?.timeLimitMs).toBe(60 * 60_000);
    expect((await desk.log.toArray()).map(({ said }) => said)).toEqual([
      'Amara Okafor gets 25% extra time in every sitting (Reads slowly)',
      'Amara Okafor gets no extra time (no longer needed)',
    ]);
    await expect(giveLasting('gone', 25, 'r', iso(2))).rejects.toThrow(/studentGone/);
  });
});

describe('an answer that came after the end', () => {
  it('let count over one that was marked: the mark is put aside for a second look, and all of it is taken back', async () => {
    const attemptId = await begin();
    await typed(attemptId, 'in time', 9);
    await handsIn(joinCode, attemptId, after(10));
    const marked = { sittingId: 'sitting1', questionId: 'q4', attemptIds: [attemptId] };
    await markAnswers(marked, { points: 1 }, 'one', iso(11));
    const late = {
      questionId: 'q4',
      response: { text: 'after it' },
      at: iso(12),
      typedAt: iso(9),
      decision: null,
    };
    await desk.attempts.update(attemptId, { late: [late] });
    await decideLate(
      'sitting1',
      [{ attemptId, keys: [lateKey(late)] }],
      true,
      'The connection broke',
      iso(13),
    );
    const mark = () => desk.marks.get([attemptId, 'q4', ownMarker]);
    expect(await mark()).toMatchObject({ points: 1, aside: true });
    await undo(iso(14));
    expect(await mark()).toMatchObject({ points: 1, aside: false });
    expect((await desk.attempts.get(attemptId))?.late?.[0]?.decision).toBeNull();
  });
});
