import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, samples, sittingOf, studentOf } from '../../tests/unit/samples';
import { begins, fetchesFile, handsIn, seesHome, sends, sendsFile } from '../../tests/unit/studentSide';
import { assetId } from '@/core/basics/assetBytes';
import { mostFileBytes } from '@/core/basics/fileRules';
import type { Answers } from '@/core/model/sitting';
import { attemptState, deadlineOf, graceMs, isAside, termsFor } from '@/core/attempts/terms';
import { lastAttempt } from '@/core/attempts/counting';
import { emptyTables, replaceDesk } from './backup';
import {
  carryOn,
  collectFrom,
  giveAllowance,
  giveAttempt,
  setAside,
  startAfresh,
  restoreAttempt,
} from './exceptions';
import { desk } from './tables';

const start = Date.parse(at);
const questions = Object.values(samples);
const { joinCode, id: studentId } = studentOf();

/** A fresh desk with one student and one sitting of two hours, an hour each. */
async function freshDesk() {
  await replaceDesk({
    ...emptyTables,
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
    students: [studentOf()],
    papers: [{ id: 'paper1', title: 'Tides', instructions: '', questions, createdAt: at, changedAt: at }],
    sittings: [sittingOf({ paperVersion: null })],
  });
}

/** An act that may be refused in words, as things stand. */
const tried = (work: Promise<unknown>) => work.catch((error: unknown) => expect(error).toBeInstanceOf(Error));

/** Something that happens, `after` minutes after the one before. */
type Act = { after: number } & (
  | {
      what:
        'start' | 'otherTab' | 'handIn' | 'collect' | 'another' | 'carryOn' | 'afresh' | 'aside' | 'percent';
    }
  | { what: 'type' | 'typeInOldTab'; text: string }
  | { what: 'minutes'; minutes: number }
  | { what: 'back'; pick: number }
);

const anyAct = fc
  .record({
    after: fc.integer({ min: 0, max: 25 }),
    what: fc.constantFrom(
      'start' as const,
      'type' as const,
      'type' as const,
      'otherTab' as const,
      'typeInOldTab' as const,
      'handIn' as const,
      'collect' as const,
      'another' as const,
      'minutes' as const,
      'carryOn' as const,
      'carryOn' as const,
      'afresh' as const,
      'aside' as const,
      'back' as const,
      'percent' as const,
    ),
    text: fc.constantFrom('iron', 'the boat’s own iron', 'two cones', '118'),
    minutes: fc.integer({ min: 1, max: 40 }),
    pick: fc.nat(3),
  })
  .map((act) => act as Act);

describe('files on their way', () => {
  const bytes = Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1);
  const begun = async () => {
    await freshDesk();
    const other = studentOf({ id: 'student2', joinCode: 'B2B2B2' });
    await desk.students.add(other);
    const reply = await begins(joinCode, 'sitting1', '', start);
    if (reply.outcome !== 'started') throw new Error(reply.why);
    const file = { id: await assetId(bytes), name: 'sheet.gif', mediaType: 'text/html', size: 9, bytes };
    return { attemptId: reply.packet.attemptId, file, other };
  };

  it('a file is kept once, as what its bytes are, and comes back to its student alone', async () => {
    const { attemptId, file, other } = await begun();
    expect(await fetchesFile(joinCode, 'sitting1', file.id, start)).toBeNull();
    expect(await sendsFile(joinCode, attemptId, file, start)).toBe('kept');
    expect(await sendsFile(joinCode, attemptId, file, start)).toBe('kept');
    expect((await desk.attempts.get(attemptId))?.files).toHaveLength(1);
    const back = await fetchesFile(joinCode, 'sitting1', file.id, start);
    expect(back?.mediaType).toBe('image/png');
    expect(back?.bytes).toEqual(bytes);
    expect(await fetchesFile(other.joinCode, 'sitting1', file.id, start)).toBeNull();
    expect(await sendsFile(other.joinCode, attemptId, file, start)).toBe('unknown');
  });

  it('is refused when it is not what it says or too large; after time is up it is kept with the answers that came late', async () => {
    const { attemptId, file } = await begun();
    const send = (part: object, now = start) => sendsFile(joinCode, attemptId, { ...file, ...part }, now);
    expect(await send({ bytes: Uint8Array.of(1) })).toBe('unknown');
    expect(await send({ bytes: new Uint8Array(mostFileBytes + 1) })).toBe('tooMuch');
    expect(await desk.assets.count()).toBe(0);
    expect(await send({}, start + 3 * 3_600_000)).toBe('kept');
  });

  it('the pictures of a paper come to who sits it, no other picture of the desk does', async () => {
    const { other } = await begun();
    const asset = { name: 'chart.png', mediaType: 'image/png', size: 9, bytes };
    await desk.assets.bulkAdd([
      { ...asset, id: 'chart' },
      { ...asset, id: 'of another paper' },
    ]);
    expect((await fetchesFile(joinCode, 'sitting1', 'chart', start))?.name).toBe('picture');
    expect(await fetchesFile(joinCode, 'sitting1', 'of another paper', start)).toBeNull();
    expect(await fetchesFile(other.joinCode, 'sitting1', 'chart', start)).toBeNull();
  });
});

const textOf = (response: unknown) => (response as { text?: string } | undefined)?.text ?? '';

describe('an attempt through random acts and times', () => {
  it('loses no answer it acknowledged, never has two running, and takes nothing after time is up', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(anyAct, { minLength: 3, maxLength: 18 }), async (acts) => {
        await freshDesk();
        let now = start;
        let attemptId: string | null = null;
        let tab = 'tab';
        let tabs = 0;
        const acknowledged = new Map<string, string>();
        for (const act of acts) {
          now += act.after * 60_000;
          const iso = new Date(now).toISOString();
          if (act.what === 'start' || act.what === 'otherTab') {
            const next = act.what === 'otherTab' ? `tab${(tabs += 1)}` : tab;
            const reply = await begins(joinCode, 'sitting1', '', now, next);
            if (reply.outcome === 'started') {
              attemptId = reply.packet.attemptId;
              tab = next;
            }
          } else if (act.what === 'minutes')
            await giveAllowance(
              'sitting1',
              studentId,
              { kind: 'minutes', minutes: act.minutes },
              'Extra time',
              iso,
            );
          else if (act.what === 'percent')
            await giveAllowance('sitting1', studentId, { kind: 'percent', percent: 25 }, 'Extra time', iso);
          else if (act.what === 'carryOn') await tried(carryOn('sitting1', studentId, 'By mistake', iso));
          else if (act.what === 'afresh') await tried(startAfresh('sitting1', studentId, 'By mistake', iso));
          else if (act.what === 'aside') await tried(setAside('sitting1', studentId, 'By mistake', iso));
          else if (act.what === 'back') {
            const kept = (await desk.attempts.toArray()).filter(isAside);
            const which = kept[act.pick % kept.length];
            if (which) await tried(restoreAttempt(which.id, 'Better', iso));
          } else if (act.what === 'another') await giveAttempt('sitting1', studentId, 'Second chance', iso);
          else if (attemptId !== null && act.what === 'handIn') await handsIn(joinCode, attemptId, now);
          else if (attemptId !== null && act.what === 'collect')
            await collectFrom('sitting1', studentId, 'hangs', iso);
          else if (attemptId !== null && act.what === 'type') {
            const answers: Answers = { q4: { response: { text: act.text }, at: iso } };
            const status = await sends(joinCode, attemptId, answers, null, now, { tabId: tab });
            // At the very end of the time the state is "time was up", but what was under way is still taken.
            const inGrace =
              status?.state === 'collectedByTime' && now < (status.deadline ?? Infinity) + graceMs;
            if (status?.state === 'working' || inGrace) acknowledged.set(attemptId, act.text);
          }

          if (attemptId !== null && act.what === 'typeInOldTab') {
            const before = (await desk.attempts.get(attemptId))?.answers.q4;
            const answers: Answers = { q4: { response: { text: 'from an old tab' }, at: iso } };
            await sends(joinCode, attemptId, answers, null, now, { tabId: 'an older one' });
            const attempt = await desk.attempts.get(attemptId);
            // What was answered since the attempt went on elsewhere is never overwritten.
            if (before && before.at >= (attempt?.tab?.since ?? ''))
              expect(attempt?.answers.q4).toEqual(before);
            else if (acknowledged.has(attemptId))
              acknowledged.set(attemptId, textOf(attempt?.answers.q4?.response));
          }
          const attempts = await desk.attempts.toArray();
          const terms = termsFor(studentOf(), sittingOf(), await desk.allowances.toArray(), now);
          const running = attempts.filter(
            (each) => !isAside(each) && attemptState(each, terms, now) === 'working',
          );
          expect(running.length).toBeLessThanOrEqual(1);
          // The one that runs is the one that its student comes back to.
          if (running[0]) expect(lastAttempt(attempts)?.id).toBe(running[0].id);
          for (const attempt of attempts) {
            const kept = attempt.answers.q4?.response;
            if (acknowledged.has(attempt.id)) expect(kept).toBeDefined();
            const typedAt = attempt.answers.q4 ? Date.parse(attempt.answers.q4.at) : 0;
            expect(typedAt).toBeLessThan((deadlineOf(attempt, terms) ?? Infinity) + graceMs);
            expect(attempt.events[0]?.kind).toBe('started');
            const ends = attempt.events.filter(({ kind }) => kind === 'handedIn' || kind === 'carriedOn');
            if (attempt.handedInAt) expect(ends.at(-1)?.kind).toBe('handedIn');
            // Every act of the teacher is on record with its reason.
            for (const event of attempt.events)
              if (/^(collected|carriedOn|setAside|takenBack)$/.test(event.kind))
                expect(event.reason).toBeTruthy();
          }
        }
        for (const [id, text] of acknowledged)
          expect((await desk.attempts.get(id))?.answers.q4?.response).toEqual({ text });
      }),
      { numRuns: 120 },
    );
  }, 120_000);
});

describe('who may sit what', () => {
  it('a student of another group is not let in, whatever the code', async () => {
    await freshDesk();
    await desk.students.add(studentOf({ id: 'other', joinCode: 'ABCDEF', groupIds: ['group2'] }));
    expect(await seesHome('ABCDEF', start)).toEqual([]);
    expect(await begins('ABCDEF', 'sitting1', '', start)).toEqual({
      outcome: 'refused',
      why: 'unknown',
    });
  });

  it('whoever left the group keeps the sitting that was sat', async () => {
    await freshDesk();
    await begins(joinCode, 'sitting1', '', start);
    await desk.students.update(studentId, { groupIds: [] });
    expect(await seesHome(joinCode, start + 1000)).toMatchObject([
      { sittingId: 'sitting1', may: 'resume', state: 'working' },
    ]);
  });

  it('a paper that cannot be sat as it stands is said so, and nothing is frozen', async () => {
    await freshDesk();
    await desk.papers.update('paper1', { questions: [] });
    expect(await begins(joinCode, 'sitting1', '', start)).toEqual({
      outcome: 'refused',
      why: 'notReady',
    });
    expect(await desk.paperVersions.count()).toBe(0);
  });

  it('the paper freezes at the first start; what is written after that is for later sittings', async () => {
    await freshDesk();
    await begins(joinCode, 'sitting1', '', start);
    await desk.papers.update('paper1', { title: 'Changed' });
    const again = await begins(joinCode, 'sitting1', '', start + 1000);
    expect(again).toMatchObject({ outcome: 'started', packet: { title: 'Tides' } });
  });

  it('instructions are shown to who may start, and to nobody else', async () => {
    await freshDesk();
    await desk.papers.update('paper1', { instructions: 'No books' });
    expect(await seesHome(joinCode, start - 1)).toMatchObject([{ may: 'notYet', instructions: '' }]);
    expect(await seesHome(joinCode, start)).toMatchObject([{ may: 'start', instructions: 'No books' }]);
    expect(await seesHome(joinCode, start + 3 * 3_600_000)).toMatchObject([
      { may: 'over', instructions: '' },
    ]);
  });
});
