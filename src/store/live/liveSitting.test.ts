import 'fake-indexeddb/auto';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, sittingOf, studentOf } from '../../../tests/unit/samples';
import { emptyTables, replaceDesk } from '../backup';
import { desk } from '../tables';
import { LiveSitting } from './liveSitting';

const now = Date.parse(at) + 1000;
const sitting = sittingOf({ id: 'sitting1' });
const students = Array.from({ length: 6 }, (_, index) =>
  studentOf({ id: `s${index}`, joinCode: `AAAAA${index + 2}`, groupIds: sitting.groupIds }),
);
const paper = { title: 'Tides', instructions: '', questions: paperQuestions };

let live: LiveSitting;
let stop: () => void;
let told = 0;

beforeEach(async () => {
  await replaceDesk({
    ...emptyTables,
    groups: sitting.groupIds.map((id) => ({ id, name: id, createdAt: at })),
    students,
    papers: [{ ...paper, id: sitting.paperId, createdAt: at, changedAt: at }],
    paperVersions: [{ ...paper, paperId: sitting.paperId, version: 1, frozenAt: at }],
    sittings: [sitting, sittingOf({ id: 'other' })],
    attempts: students.map(({ id }) => attemptOf({ id: `a-${id}`, studentId: id, handedInAt: at })),
  });
  live = new LiveSitting('sitting1');
  stop = live.subscribe(() => told++);
  await seats();
});
afterEach(() => stop());

/** The seats once they are read. */
async function seats() {
  return vi.waitFor(() => {
    const sittingNow = live.at(now);
    if (!sittingNow) throw new Error('not read yet');
    return sittingNow.seats;
  });
}
const pointsOf = (id: string) =>
  live.at(now)?.seats.find(({ student }) => student.id === id)?.scorecard?.total ?? null;

describe('a sitting held in memory', () => {
  it('one mark reads one row, and seats one student anew', async () => {
    await desk.marks.bulkPut(
      students.map(({ id }) => markOf({ attemptId: `a-${id}`, questionId: 'q1', points: null })),
    );
    await vi.waitFor(() => expect(live.rows('marks')).toHaveLength(6));
    const before = await seats();
    const read: string[] = [];
    const reading = (row: { attemptId: string; questionId: string }) => {
      read.push(`${row.attemptId} ${row.questionId}`);
      return row;
    };
    desk.marks.hook('reading', reading as never);
    await desk.marks.put(markOf({ attemptId: 'a-s3', questionId: 'q4', points: 2 }));
    await vi.waitFor(() => expect(pointsOf('s3')).toBe(2));
    desk.marks.hook('reading').unsubscribe(reading as never);
    expect(read).toEqual(['a-s3 q4']);
    const after = await seats();
    expect(after.map((seat, place) => seat === before[place])).toEqual([true, true, true, false, true, true]);
  });

  it('what is taken away is gone, be it one row or all of them', async () => {
    const marks = students.map(({ id }) => markOf({ attemptId: `a-${id}`, questionId: 'q4', points: 1 }));
    await desk.marks.bulkPut(marks);
    await vi.waitFor(() => expect(pointsOf('s5')).toBe(1));
    await desk.marks.delete(['a-s5', 'q4', 'teacher']);
    await vi.waitFor(() => expect(pointsOf('s5')).toBe(0));
    expect(pointsOf('s4')).toBe(1);
    await desk.marks.where({ sittingId: 'sitting1' }).delete();
    await vi.waitFor(() => expect(pointsOf('s4')).toBe(0));
    await desk.attempts.delete('a-s0');
    await vi.waitFor(() => expect(live.at(now)?.progress.notStarted).toBe(1));
  });

  it('rows of another sitting change nothing, and nobody is seated anew', async () => {
    const before = await seats();
    await desk.attempts.put(attemptOf({ id: 'elsewhere', studentId: 's1', sittingId: 'other' }));
    await desk.marks.put(markOf({ attemptId: 'a-s1', questionId: 'q4', points: 3 }));
    await vi.waitFor(() => expect(pointsOf('s1')).toBe(3));
    expect((await seats()).filter((seat, place) => seat !== before[place])).toHaveLength(1);
  });

  it('who comes in without a seat gets one; who is named otherwise keeps the rest of it', async () => {
    await desk.students.add(studentOf({ id: 'guest', joinCode: 'AAAAA9', role: 'guest', groupIds: [] }));
    await desk.attempts.add(attemptOf({ id: 'a-guest', studentId: 'guest' }));
    await vi.waitFor(async () => expect(await seats()).toHaveLength(7));
    const before = await seats();
    await desk.students.update('s2', { givenName: 'Ines' });
    await vi.waitFor(async () =>
      expect((await seats()).find(({ student }) => student.id === 's2')?.student.givenName).toBe('Ines'),
    );
    const unchanged = (await seats()).filter((seat) => before.includes(seat));
    expect(unchanged).toHaveLength(6);
  });

  it('a list of rows is the same until one of them changes', async () => {
    const attempts = live.rows('attempts');
    await desk.marks.put(markOf({ attemptId: 'a-s1', questionId: 'q4', points: 3 }));
    await vi.waitFor(() => expect(live.rows('marks')).toHaveLength(1));
    expect(live.rows('attempts')).toBe(attempts);
  });

  it('a read that fails changes nothing that is shown, and is made up for', async () => {
    const before = await seats();
    const once = vi.spyOn(desk, 'transaction').mockRejectedValueOnce(new Error('the disk is asleep'));
    const put = desk.marks.put(markOf({ attemptId: 'a-s2', questionId: 'q4', points: 3 }));
    await put;
    await vi.waitFor(() => expect(once).toHaveBeenCalled());
    expect((await seats())[2]).toBe(before[2]);
    await vi.waitFor(() => expect(pointsOf('s2')).toBe(3), { timeout: 5_000 });
    once.mockRestore();
  });

  it('looked at again after nobody looked, it tells what happened meanwhile', async () => {
    vi.useFakeTimers({ toFake: ['setTimeout'] });
    stop();
    vi.runAllTimers();
    vi.useRealTimers();
    expect(live.at(now)).toBeUndefined();
    await desk.marks.put(markOf({ attemptId: 'a-s1', questionId: 'q4', points: 3 }));
    stop = live.subscribe(() => told++);
    await vi.waitFor(() => expect(pointsOf('s1')).toBe(3));
  });

  it('a large one is told in pieces to who asks for what there is so far, and to others once all is read', async () => {
    await desk.students.bulkAdd([
      studentOf({ id: 's00', joinCode: 'AAAAAA', groupIds: [] }),
      studentOf({ id: 's9', joinCode: 'AAAAAB', groupIds: [] }),
    ]);
    await desk.attempts.bulkAdd([
      // Nobody expected them: one is before, one after all who were.
      attemptOf({ id: 'a-s00', studentId: 's00', handedInAt: at }),
      attemptOf({ id: 'a-s9', studentId: 's9', handedInAt: at }),
      attemptOf({ id: 'b-s0', studentId: 's0', number: 2, handedInAt: at }),
      attemptOf({ id: 'b-s3', studentId: 's3', number: 2, handedInAt: at }),
    ]);
    const large = new LiveSitting('sitting1', { most: 3, first: 3, later: 2 });
    const read: number[] = [];
    const end = large.subscribe(() => {
      const soFar = large.at(now, true);
      if (!soFar?.reading) return;
      expect(large.at(now)).toBeUndefined();
      expect([soFar.reading.of, large.rows('attempts').length]).toEqual([10, soFar.reading.done]);
      read.push(soFar.reading.done);
      // What is done meanwhile shows before the rest has come.
      if (read.length === 1) void desk.marks.put(markOf({ attemptId: 'b-s0', questionId: 'q4', points: 2 }));
      if (read.length === 1) void desk.attempts.update('a-s2', { comeBack: ['q1'] });
    });
    await vi.waitFor(() => expect(large.at(now)?.reading).toBeNull());
    await vi.waitFor(() => expect(large.at(now)?.seats).toHaveLength(8));
    expect(read).toEqual([...read].sort((a, b) => a - b));
    expect(read.length).toBeGreaterThan(2);
    await vi.waitFor(() => {
      const seatOf = (id: string) => large.at(now)?.seats.find(({ student }) => student.id === id);
      expect([seatOf('s0')?.scorecard?.total, seatOf('s2')?.attempt?.comeBack]).toEqual([2, ['q1']]);
    });
    const whole = new LiveSitting('sitting1');
    const endWhole = whole.subscribe(() => undefined);
    await vi.waitFor(() => expect(whole.at(now)?.seats).toEqual(large.at(now)?.seats));
    end();
    endWhole();
  });

  it('a sitting that is not there, or no longer, is none', async () => {
    const none = new LiveSitting('nowhere');
    const end = none.subscribe(() => undefined);
    await vi.waitFor(() => expect(none.at(now)).toBeNull());
    end();
    await desk.sittings.delete('sitting1');
    await vi.waitFor(() => expect(live.at(now)).toBeNull());
    expect(told).toBeGreaterThan(0);
  });
});
