import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { buildDemo } from '@demo/buildDemo';
import {
  at,
  courseText,
  openQuestion,
  planShowing,
  samples,
  studentOf,
  tideChoice,
} from '../../tests/unit/samples';
import { begins, greets, handsIn, reads, seesHome, sends } from '../../tests/unit/studentSide';
import type { Question } from '@/core/kinds';
import { totalPoints } from '@/core/scoring/paperFindings';
import { deskContent, emptyTables, joinPart, partContent, partPlan, putInPlace, replaceDesk } from './backup';
import { keepAsset } from './assets';
import { undo } from './command';
import { collectFrom, giveAllowance, giveAttempt } from './exceptions';
import { markAnswers } from './marks';
import { changePaper, createPaper } from './papers';
import { bringIn, createGroup, deleteGroup } from './people';
import { deskRows, keepProgress, progress } from './queries';
import { handBack, withdrawResults } from './releases';
import { adoptPaper, createSitting, deleteSitting, setClosedToStarts } from './sittings';
import { desk } from './tables';

const start = Date.parse(at);
const later = (minutes: number) => new Date(start + minutes * 60_000).toISOString();

const everyShow = {
  total: true,
  points: true,
  answers: true,
  rightOrWrong: true,
  accepted: true,
  comments: true,
};

beforeEach(async () => {
  await desk.delete();
  await desk.open();
});

/** A group of two, a paper of every kind, and a sitting open for two hours with an hour each. */
async function deskWithSitting() {
  const groupId = (await createGroup('Monday', at)).result;
  const row = { line: 1, number: '', email: '', knownId: null };
  await bringIn(
    groupId,
    [
      { ...row, familyName: 'Okafor', givenName: 'Amara' },
      { ...row, familyName: 'Tran', givenName: 'Linh' },
    ],
    at,
  );
  const paperId = (await createPaper('Tides', at)).result;
  const paper = await desk.papers.get(paperId);
  if (!paper) throw new Error('no paper');
  await changePaper({ ...paper, questions: Object.values(samples) }, 'Written', undefined, at);
  const settings = {
    paperId,
    title: 'Tides',
    groupIds: [groupId],
    opensAt: at,
    closesAt: later(120),
    timeLimitMs: 3_600_000,
    accessCode: 'ebb',
  };
  const sittingId = (await createSitting(settings, at)).result;
  const [amara, linh] = await desk.students.orderBy('joinCode').toArray();
  if (!amara || !linh) throw new Error('no students');
  return { groupId, paperId, sittingId, amara, linh };
}

async function startedBy(joinCode: string, sittingId: string, now = start) {
  const reply = await begins(joinCode, sittingId, 'ebb', now);
  if (reply.outcome !== 'started') throw new Error(reply.why);
  return reply;
}

describe('commands', () => {
  it('write the log, and undo takes back the last one whole', async () => {
    const { groupId } = await deskWithSitting();
    const before = (await deskContent()).rows;
    await deleteGroup(groupId, later(1));
    expect(await desk.groups.count()).toBe(0);
    expect(await desk.students.count()).toBe(0);
    expect(await undo(later(2))).toMatchObject({ outcome: 'undone', said: 'Group Monday deleted' });
    const logged = { log: [], logChanges: [] };
    expect({ ...(await deskContent()).rows, ...logged }).toEqual({ ...before, ...logged });
  });

  it('every command of the slice can be taken back, down to the empty desk', async () => {
    const { sittingId, amara } = await deskWithSitting();
    await setClosedToStarts(sittingId, true, later(1));
    await giveAllowance(sittingId, amara.id, { kind: 'minutes', minutes: 10 }, 'Extra time', later(1));
    await giveAttempt(sittingId, amara.id, 'Illness', later(1));
    await handBack(planShowing(sittingId, everyShow), [amara.id], later(1));
    await withdrawResults(sittingId, [amara.id], later(1));
    await markAnswers({ sittingId, questionId: 'q4', attemptIds: ['x'] }, { points: 2 }, 'marked', later(1));
    await deleteSitting(sittingId, later(2));
    for (let guard = 0; guard < 30 && (await undo(later(3))).outcome === 'undone'; guard++);
    const { log, logChanges: _, ...tables } = (await deskContent()).rows;
    expect(Object.values(tables).every((rows) => rows.length === 0)).toBe(true);
    expect(log.length).toBeGreaterThan(8);
    expect(await undo(later(4))).toMatchObject({ outcome: 'nothing' });
  });

  it('a run of typing is one step to undo, a field of your own another', async () => {
    const paperId = (await createPaper('T', at)).result;
    const paper = await desk.papers.get(paperId);
    if (!paper) throw new Error('no paper');
    for (const [second, title] of ['Ti', 'Tid', 'Tides'].entries())
      await changePaper(
        { ...paper, title },
        'Title changed',
        'title',
        new Date(start + second * 1000).toISOString(),
      );
    await changePaper(
      { ...paper, title: 'Tides', instructions: 'Go' },
      'Instructions',
      'instructions',
      later(1),
    );
    expect(await desk.log.count()).toBe(3);
    await undo(later(2));
    expect(await desk.papers.get(paperId)).toMatchObject({ title: 'Tides', instructions: '' });
    await undo(later(2));
    expect(await desk.papers.get(paperId)).toMatchObject({ title: 'T' });
  });

  it('an undo never takes away what a student has done since', async () => {
    const { sittingId, amara } = await deskWithSitting();
    const { packet } = await startedBy(amara.joinCode, sittingId);
    expect(await undo(later(1))).toMatchObject({ outcome: 'changedSince' });
    expect(await desk.attempts.get(packet.attemptId)).toBeDefined();
    expect(await desk.sittings.count()).toBe(1);
  });

  it('a mark keeps what was before it in the log', async () => {
    await markAnswers({ sittingId: 's', questionId: 'q4', attemptIds: ['a', 'b'] }, { points: 2 }, 'two', at);
    await markAnswers(
      { sittingId: 's', questionId: 'q4', attemptIds: ['a'] },
      { points: 3 },
      'three',
      later(1),
    );
    const last = await desk.logChanges.orderBy('seq').last();
    expect(JSON.stringify(last?.changes)).toContain('"path":"/points","value":2');
    await undo(later(2));
    expect(await desk.marks.get(['a', 'q4', 'teacher'])).toMatchObject({ points: 2 });
  });
});

describe('the desk’s end of a carrier', () => {
  it('greets by code, however it is typed, and nobody without one', async () => {
    const { amara } = await deskWithSitting();
    const typed = `${amara.joinCode.slice(0, 3).toLowerCase()} ${amara.joinCode.slice(3)}`;
    expect(await greets(typed)).toMatchObject({ familyName: amara.familyName, groups: ['Monday'] });
    expect(await greets('222222')).toBeNull();
  });

  it('asks for the access code once, and goes on with the same attempt after that', async () => {
    const { sittingId, amara } = await deskWithSitting();
    expect(await begins(amara.joinCode, sittingId, 'flood', start)).toEqual({
      outcome: 'refused',
      why: 'wrongCode',
    });
    const first = await startedBy(amara.joinCode, sittingId);
    await sends(
      amara.joinCode,
      first.packet.attemptId,
      { q4: { response: { text: 'iron' }, at } },
      ['q1'],
      start + 5_000,
    );
    const again = await begins(amara.joinCode, sittingId, '', start + 60_000);
    expect(again).toMatchObject({
      outcome: 'started',
      packet: {
        attemptId: first.packet.attemptId,
        answers: { q4: { response: { text: 'iron' } } },
        comeBack: ['q1'],
      },
      status: { deadline: start + 3_600_000 },
    });
    expect(await desk.attempts.count()).toBe(1);
  });

  it('nothing it says before handing back holds a key, scheme, note or comment', async () => {
    const { sittingId, amara } = await deskWithSitting();
    const said: unknown[] = [await greets(amara.joinCode), await seesHome(amara.joinCode, start)];
    const { packet, status } = await startedBy(amara.joinCode, sittingId);
    said.push(packet, status);
    said.push(
      await sends(
        amara.joinCode,
        packet.attemptId,
        { q1: { response: { picked: ['c'] }, at } },
        null,
        start + 1,
      ),
    );
    said.push(await handsIn(amara.joinCode, packet.attemptId, start + 2));
    said.push(await reads(amara.joinCode, sittingId, start + 3), await seesHome(amara.joinCode, start + 4));
    const text = JSON.stringify(said);
    expect(text).not.toContain('SECRET');
    expect(text).toContain(tideChoice.stem);
  });

  it('takes only answers of the right shape to questions of this attempt, from its own student', async () => {
    const { sittingId, amara, linh } = await deskWithSitting();
    const { packet } = await startedBy(amara.joinCode, sittingId);
    const odd = {
      q1: { response: { text: 'not a pick' }, at },
      nowhere: { response: { text: 'x' }, at },
      q3: { response: { text: '118' }, at },
    };
    await sends(amara.joinCode, packet.attemptId, odd, null, start + 1);
    expect(
      await sends(
        linh.joinCode,
        packet.attemptId,
        { q4: { response: { text: 'mine' }, at } },
        null,
        start + 2,
      ),
    ).toBeNull();
    expect(Object.keys((await desk.attempts.get(packet.attemptId))?.answers ?? {})).toEqual(['q3']);
  });

  it('takes nothing after time is up or after the teacher collected', async () => {
    const { sittingId, amara, linh } = await deskWithSitting();
    const { packet } = await startedBy(amara.joinCode, sittingId);
    const late = await sends(
      amara.joinCode,
      packet.attemptId,
      { q4: { response: { text: 'late' }, at } },
      null,
      start + 3_700_000,
    );
    expect(late).toMatchObject({ state: 'collectedByTime', answered: [] });
    const other = await startedBy(linh.joinCode, sittingId);
    await collectFrom(sittingId, linh.id, 'hangs', later(1));
    const after = await sends(
      linh.joinCode,
      other.packet.attemptId,
      { q4: { response: { text: 'x' }, at } },
      null,
      start + 90_000,
    );
    expect(after).toMatchObject({ state: 'collected', answered: [] });
  });

  it('another attempt collects the one that still runs, and is the one that counts', async () => {
    const { sittingId, amara } = await deskWithSitting();
    const first = await startedBy(amara.joinCode, sittingId);
    await giveAttempt(sittingId, amara.id, 'Technical trouble', later(5));
    const second = await startedBy(amara.joinCode, sittingId, start + 360_000);
    expect(second.packet).toMatchObject({ attemptNumber: 2, answers: {} });
    expect(await desk.attempts.get(first.packet.attemptId)).toMatchObject({ collectedAt: later(5) });
  });

  it('lets the result out as far as released, notes each opening, and nothing once taken back', async () => {
    const { sittingId, amara } = await deskWithSitting();
    const { packet } = await startedBy(amara.joinCode, sittingId);
    await handsIn(amara.joinCode, packet.attemptId, start + 1000);
    await handBack(
      planShowing(sittingId, { ...everyShow, accepted: false, comments: false }),
      [amara.id],
      later(1),
    );
    expect(await reads(amara.joinCode, sittingId, start + 70_000)).toMatchObject({
      total: { points: 0, max: totalPoints(Object.values(samples)) },
    });
    expect((await desk.openings.get([sittingId, amara.id]))?.at).toHaveLength(1);
    await withdrawResults(sittingId, [amara.id], later(2));
    expect(await reads(amara.joinCode, sittingId, start + 130_000)).toBeNull();
  });
});

describe('a paper changed after it was sat', () => {
  it('stays as it was for the sitting until the teacher takes the change over', async () => {
    const { sittingId, paperId, amara } = await deskWithSitting();
    const { packet } = await startedBy(amara.joinCode, sittingId);
    await sends(
      amara.joinCode,
      packet.attemptId,
      { q1: { response: { picked: ['a'] }, at } },
      null,
      start + 1,
    );
    await handsIn(amara.joinCode, packet.attemptId, start + 2);
    const paper = await desk.papers.get(paperId);
    const rekeyed = { ...tideChoice, key: 'a' } as Question;
    if (paper)
      await changePaper(
        { ...paper, questions: [rekeyed, courseText, openQuestion] },
        'Key',
        undefined,
        later(1),
      );
    const shareOf = async () => {
      const sitting = await desk.sittings.get(sittingId);
      return sitting && (await progress(sitting, start + 120_000))?.progress.meanShare;
    };
    expect(await shareOf()).toBe(0);
    await adoptPaper(sittingId, later(2));
    // 1 of the 3 points that have a key: the question that was taken out no longer counts, the open one has none yet.
    expect(await shareOf()).toBeCloseTo(1 / 3, 12);
    expect(await desk.paperVersions.count()).toBe(2);
  });
});

describe('the cache of standings', () => {
  it('is dropped by whatever it was computed from, and holds nothing of its own', async () => {
    const { sittingId, amara } = await deskWithSitting();
    await keepProgress((await deskRows(start)).sittings.flatMap((row) => row.progress ?? []));
    expect(await desk.progress.get(sittingId)).toMatchObject({ notStarted: 2 });
    await startedBy(amara.joinCode, sittingId);
    expect(await desk.progress.get(sittingId)).toBeUndefined();
    expect((await deskRows(start)).sittings[0]?.progress).toMatchObject({ notStarted: 1, working: 1 });
  });
});

describe('a backup', () => {
  it('puts the desk back as it was', async () => {
    const tables = buildDemo(start);
    await replaceDesk(tables);
    const kept = await deskContent();
    const files = new Map<string, Uint8Array>();
    for (const { id } of kept.rows.assets) files.set(id, await kept.bytes(id));
    await replaceDesk({
      ...tables,
      students: [studentOf()],
      sittings: [],
      attempts: [],
      marks: [],
      releases: [],
      assets: [],
    });
    expect(await desk.attempts.count()).toBe(0);
    expect(await desk.assets.count()).toBe(0);
    await putInPlace({ rows: kept.rows, bytes: async (id) => files.get(id) ?? new Uint8Array() });
    expect((await deskContent()).rows).toEqual(kept.rows);
    expect(kept.rows.attempts).toHaveLength(tables.attempts.length);
  });

  it('of one sitting is taken into another desk as one step, and taken back whole', async () => {
    await replaceDesk(buildDemo(start));
    const kept = await partContent(new Set(['tides']));
    const files = new Map<string, Uint8Array>();
    for (const { id } of kept.rows.assets) files.set(id, await kept.bytes(id));
    const bytes = async (id: string) => files.get(id) ?? new Uint8Array();
    const backup = { savedAt: new Date(start).toISOString(), part: 'Tides', rows: kept.rows, bytes };
    await replaceDesk({
      ...emptyTables,
      students: [studentOf({ id: 'own', joinCode: 'own', number: '9', email: '' })],
    });
    const before = (await deskContent()).rows;
    expect(await partPlan(kept.rows)).toMatchObject({ fresh: { sittings: 1, papers: 1 }, clashes: [] });
    await joinPart(backup, new Map(), backup.savedAt);
    expect(await desk.attempts.count()).toBe(kept.rows.attempts.length);
    expect(await desk.assets.count()).toBe(kept.rows.assets.length);
    expect((await partPlan(kept.rows)).same.sittings).toBe(1);
    const { outcome } = await undo(backup.savedAt);
    expect(outcome).toBe('undone');
    const { assets: _, log: __, logChanges: ___, ...after } = (await deskContent()).rows;
    expect(after).toEqual(expect.objectContaining({ students: before.students, attempts: [], sittings: [] }));
  });

  it('with a file that is not what it is called, nothing of it is put back', async () => {
    await replaceDesk(buildDemo(start));
    const kept = await deskContent();
    await replaceDesk({ ...emptyTables, students: [studentOf()] });
    const spoilt = { rows: kept.rows, bytes: async () => new Uint8Array([1, 2, 3]) };
    await expect(putInPlace(spoilt)).rejects.toThrow(/fileChanged/);
    expect(await desk.students.toArray()).toEqual([studentOf()]);
    expect(await desk.assets.count()).toBe(0);
  });

  it('whose last file is not what it is called leaves none of those before it, but what was here', async () => {
    const megabytes = (fill: number) => new Uint8Array(5_000_000).fill(fill);
    const file = (fill: number) => ({ name: `${fill}.bin`, mediaType: 'text/plain', bytes: megabytes(fill) });
    await replaceDesk({ ...emptyTables, students: [studentOf()] });
    const refs = [await keepAsset(file(1)), await keepAsset(file(2)), await keepAsset(file(3))];
    await desk.assets.bulkDelete(refs.slice(1).map(({ id }) => id));
    const rows = { ...(await deskContent()).rows, students: [], assets: refs };
    const put: number[] = [];
    const bytes = async (id: string) => {
      put.push(await desk.assets.count());
      return id === refs[2]?.id ? megabytes(9) : megabytes(2);
    };
    await expect(putInPlace({ rows, bytes })).rejects.toThrow(/fileChanged/);
    // The second was there when the third was looked at; they are too many bytes for one step.
    expect(put).toEqual([1, 2]);
    expect(await desk.assets.toCollection().primaryKeys()).toEqual([refs[0]?.id]);
    expect(await desk.students.count()).toBe(1);
  });
});
