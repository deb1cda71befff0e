import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import {
  at,
  attemptOf,
  markOf,
  openQuestion,
  passagePlan,
  sittingOf,
  studentOf,
} from '../../tests/unit/samples';
import { markedTwice } from '@/core/analysis/compareMarkers';
import { ownMarker, settledMarker } from '@/core/model/mark';
import type { MarksBack } from '@/core/model/share';
import { seatsOf } from '@/core/seats/seats';
import { keepAsset } from './assets';
import { emptyTables, replaceDesk } from './backup';
import { undo } from './command';
import { markAnswers } from './marks';
import { sittingRecords } from './queries';
import { settleMarks, takeMarks, takeMarksFromServer } from './sharedMarks';
import { giveAgain, giveShares, pullShareBack, shareToSend } from './shares';
import { marksToSend, removeTakenShare, takeShare } from './takenShares';
import { desk } from './tables';

const questionId = openQuestion.id;
const content = { title: 'Tides', instructions: '', questions: [openQuestion] };
const answers = [{ questionId, attemptIds: ['a0', 'a1'] }];
const later = (minutes: number) => new Date(Date.parse(at) + minutes * 60_000).toISOString();

beforeEach(() =>
  replaceDesk({
    ...emptyTables,
    groups: [{ id: 'group1', name: 'Monday', createdAt: at }],
    students: ['s0', 's1'].map((id, n) => studentOf({ id, joinCode: n ? 'B2B2B2' : 'K7M4QX' })),
    papers: [{ ...content, id: 'paper1', createdAt: at, changedAt: at }],
    paperVersions: [{ ...content, paperId: 'paper1', version: 1, frozenAt: at }],
    sittings: [sittingOf({ paperVersion: 1, closesAt: null, timeLimitMs: null })],
    attempts: ['s0', 's1'].map((studentId, n) =>
      attemptOf({
        ...{ id: `a${n}`, studentId, paperVersion: 1, questionIds: [questionId], handedInAt: at },
        answers: { [questionId]: { response: { text: `answer ${n}` }, at } },
      }),
    ),
  }),
);

async function given() {
  const { result } = await giveShares(
    'sitting1',
    [{ marker: 'Ana', purpose: 'marker', way: 'file', answers }],
    at,
  );
  const [share] = result;
  if (!share) throw new Error('no share');
  return share;
}

/** The colleague's desk is this one as well: a share taken in is a sitting of its own. */
async function markedBy(shareId: string, points: number[], minutes = 5): Promise<MarksBack> {
  const { content: whole, code } = await shareToSend(shareId);
  await takeShare(whole, code, at);
  for (const [n, worth] of points.entries())
    await markAnswers(
      { sittingId: shareId, questionId, attemptIds: [`${shareId}.${n}`] },
      { points: worth },
      'marked',
      later(minutes + n),
    );
  const found = await marksToSend(shareId, later(minutes + 5));
  if (!found) throw new Error('no marks');
  return found.back;
}

async function totals(): Promise<(number | undefined)[]> {
  const records = await sittingRecords('sitting1');
  return records
    ? seatsOf(records, Date.parse(at) + 1000).map(({ scorecard }) =>
        scorecard && scorecard.waiting === 0 ? scorecard.total : undefined,
      )
    : [];
}

describe('a share of marking', () => {
  it('goes out, is marked on another desk, and comes back under its marker', async () => {
    const share = await given();
    const back = await markedBy(share.id, [2, 1]);
    const { result } = await takeMarks('sitting1', [back], later(20));
    expect(result).toEqual([{ shareId: share.id, marker: 'Ana', outcome: 'taken', marked: 2, leftOut: 0 }]);
    expect(await totals()).toEqual([2, 1]);
    const mark = await desk.marks.get(['a0', questionId, share.id]);
    expect(mark).toMatchObject({ sittingId: 'sitting1', points: 2 });
    expect(mark?.history.map(({ by }) => by)).toEqual([share.id]);
    // The same file again is nothing new; one with less takes away what is gone.
    expect((await takeMarks('sitting1', [back], later(21))).result[0]?.outcome).toBe('sameAsBefore');
    await takeMarks('sitting1', [{ ...back, marks: back.marks.slice(0, 1) }], later(22));
    expect(await totals()).toEqual([2, undefined]);
    expect((await undo(later(23))).outcome).toBe('undone');
    expect(await totals()).toEqual([2, 1]);
  });

  it('pulled back takes no more files until it is open again; what came stays, and what the server had before comes', async () => {
    const share = await given();
    const back = await markedBy(share.id, [2, 1]);
    await takeMarks('sitting1', [{ ...back, marks: back.marks.slice(0, 1) }], later(20));
    await pullShareBack(share.id, later(21), later(21));
    expect((await takeMarks('sitting1', [back], later(22))).result[0]?.outcome).toBe('pulledBack');
    expect(await totals()).toEqual([2, undefined]);
    // The server takes nothing of it since then.
    await takeMarksFromServer([back], later(22));
    expect(await totals()).toEqual([2, 1]);
    await pullShareBack(share.id, null, later(23));
    expect((await takeMarks('sitting1', [back], later(24))).result[0]?.outcome).toBe('sameAsBefore');
    expect((await takeMarks('another', [back], later(24))).result[0]?.outcome).toBe('otherSitting');
  });

  it('is taken in once, and goes without a trace', async () => {
    const before = await Promise.all([
      desk.papers.toArray(),
      desk.students.toArray(),
      desk.attempts.toArray(),
    ]);
    const share = await given();
    const { content: whole, code } = await shareToSend(share.id);
    expect((await takeShare(whole, code, at)).here).toBe(false);
    expect((await takeShare(whole, code, at)).here).toBe(true);
    await removeTakenShare(share.id, at);
    expect(
      await Promise.all([desk.papers.toArray(), desk.students.toArray(), desk.attempts.toArray()]),
    ).toEqual(before);
    expect(await desk.takenShares.count()).toBe(0);
    expect(await desk.paperVersions.count()).toBe(1);
  });
});

describe('marks of several', () => {
  const mine = (attemptId: string, change: Parameters<typeof markAnswers>[1], minutes: number) =>
    markAnswers(
      { sittingId: 'sitting1', questionId, attemptIds: [attemptId] },
      change,
      'mine',
      later(minutes),
    );

  it('the teacher goes on from what a colleague gave', async () => {
    const share = await given();
    await takeMarks('sitting1', [await markedBy(share.id, [2, 1])], later(20));
    await mine('a0', { comment: 'Well put' }, 30);
    const own = await desk.marks.get(['a0', questionId, ownMarker]);
    expect(own).toMatchObject({ points: 2, comment: 'Well put' });
    expect(own?.history.map(({ before }) => before?.points)).toEqual([2]);
    await mine('a0', { points: 3 }, 31);
    expect(await totals()).toEqual([3, 1]);
    expect((await desk.marks.get(['a0', questionId, share.id]))?.points).toBe(2);
  });

  it('that differ are settled; what each gave stays, and the teacher may still change it', async () => {
    const share = await given();
    await mine('a0', { points: 3 }, 1);
    await takeMarks('sitting1', [await markedBy(share.id, [2, 1])], later(20));
    expect(await totals()).toEqual([3, 1]);
    const pairs = markedTwice(await desk.marks.toArray(), ownMarker, share.id);
    await settleMarks('sitting1', pairs, 'mean', 'mean of you and Ana', later(30));
    expect(await totals()).toEqual([2.5, 1]);
    expect((await desk.marks.get(['a0', questionId, settledMarker]))?.history[0]?.why).toBe(
      'mean of you and Ana',
    );
    expect((await desk.marks.get(['a0', questionId, ownMarker]))?.points).toBe(3);
    await settleMarks('sitting1', pairs, 'second', 'as Ana gave', later(31));
    expect(await totals()).toEqual([2, 1]);
    expect((await undo(later(32))).outcome).toBe('undone');
    expect(await totals()).toEqual([2.5, 1]);
    await mine('a0', { points: 4 }, 40);
    expect(await totals()).toEqual([4, 1]);
    expect((await desk.marks.get(['a0', questionId, settledMarker]))?.points).toBe(2.5);
  });

  it('a blind sample changes nothing: its marks lie apart', async () => {
    await mine('a0', { points: 3 }, 1);
    await mine('a1', { points: 1 }, 2);
    const { sittingId } = await giveAgain('sitting1', answers, later(10));
    expect(await desk.marks.where({ sittingId }).count()).toBe(0);
    await markAnswers(
      { sittingId, questionId, attemptIds: [`${sittingId}.0`] },
      { points: 0 },
      'again',
      later(11),
    );
    expect(await totals()).toEqual([3, 1]);
    expect((await undo(later(12))).outcome).toBe('undone');
    expect((await undo(later(13))).outcome).toBe('undone');
    expect(await desk.shares.count()).toBe(0);
    expect(await desk.sittings.count()).toBe(1);
  });
});

it('a mark from elsewhere that is none is refused by its schema', async () => {
  const share = await given();
  const back = {
    shareId: share.id,
    savedAt: at,
    marks: [markOf({ attemptId: `${share.id}.0`, questionId, points: 2, at: 'x' })],
  };
  await expect(takeMarks('sitting1', [back], later(1))).rejects.toThrow();
  expect(await desk.marks.count()).toBe(0);
});

it('a photo goes out without what the camera wrote, and marks on it come back to the one that is here', async () => {
  const words = [...new TextEncoder().encode('by Lea')];
  const scan = [0xff, 0xda, 0, 2, 1, 2, 3, 0xff, 0xd9];
  const bytes = Uint8Array.from([0xff, 0xd8, 0xff, 0xfe, 0, words.length + 2, ...words, ...scan]);
  const file = await keepAsset({ name: 'Lea.jpg', mediaType: 'image/jpeg', bytes });
  const attempt = await desk.attempts.get('a0');
  const paper = await desk.paperVersions.get(['paper1', 1]);
  if (!attempt || !paper) throw new Error('nothing there');
  await desk.paperVersions.put({ ...paper, questions: [...paper.questions, passagePlan] });
  await desk.attempts.put({
    ...attempt,
    ...{ files: [file], questionIds: [questionId, passagePlan.id] },
    answers: { [passagePlan.id]: { response: { files: [file] }, at } },
  });
  const wish = { marker: 'Ana', purpose: 'marker' as const, way: 'file' as const };
  const { result } = await giveShares(
    'sitting1',
    [{ ...wish, answers: [{ questionId: passagePlan.id, attemptIds: ['a0'] }] }],
    at,
  );
  const share = result[0];
  if (!share) throw new Error('no share');
  const { content: whole } = await shareToSend(share.id);
  const [asset] = whole.assets;
  expect(asset?.id).not.toBe(file.id);
  expect(atob(asset?.base64 ?? '')).not.toContain('Lea');
  expect(JSON.stringify(whole.scripts)).toContain(asset?.id);
  // What stays on this desk is the file that is here.
  const again = await giveAgain('sitting1', [{ questionId: passagePlan.id, attemptIds: ['a0'] }], later(1));
  const sample = await desk.attempts.get(`${again.sittingId}.0`);
  expect(JSON.stringify(sample?.answers)).toContain(file.id);
  const tick = { id: 'm', is: 'tick' as const, on: `${asset?.id}#1`, points: [10, 10], text: '' };
  const mark = markOf({ attemptId: `${share.id}.0`, questionId: passagePlan.id, points: 1, work: [tick] });
  await takeMarks('sitting1', [{ shareId: share.id, savedAt: at, marks: [mark] }], later(1));
  const kept = await desk.marks.get(['a0', passagePlan.id, share.id]);
  expect(kept?.work).toEqual([{ ...tick, on: `${file.id}#1` }]);
});
