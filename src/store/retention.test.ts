import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { sumBy } from 'remeda';
import { smallDemo } from '../../tests/unit/smallDemo';
import { at } from '../../tests/unit/samples';
import { deskContent, replaceDesk } from './backup';
import { undo } from './command';
import { copiesSince } from './forget';
import { keptWhere } from './keptWhere';
import { markAnswers } from './marks';
import { coursesDue, coursesHere, deleteAnswers, finishDeletions, setRetention } from './retention';
import { desk } from './tables';

const start = Date.parse(at);
const yearMs = 366 * 24 * 3_600_000;

beforeEach(async () => {
  await desk.delete();
  await desk.open();
  await replaceDesk(smallDemo(start));
});

/** All rows of the desk but what only says that something was done. */
async function rows(): Promise<Record<string, unknown[]>> {
  const tables = desk.tables.filter(
    ({ name }) => !['log', 'logChanges', 'settings', 'progress', 'totals'].includes(name),
  );
  return Object.fromEntries(
    await Promise.all(tables.map(async (table) => [table.name, await table.toArray()] as const)),
  );
}

const course = async () => {
  const [first] = await coursesHere();
  if (!first) throw new Error('no sittings in the demo');
  return first;
};

describe('how long answers are kept', () => {
  it('is due once the time after the last sitting is over, where a time is set and there are answers', async () => {
    const { course: name, closedAt } = await course();
    expect(await coursesDue(start + 9 * yearMs)).toEqual([]);
    await setRetention(name, 12);
    expect(await coursesDue(start)).toEqual([]);
    expect((await coursesDue(Date.parse(closedAt) + yearMs))[0]).toMatchObject({ course: name, months: 12 });
    await setRetention(name, null);
    expect(await coursesDue(start + 9 * yearMs)).toEqual([]);
  });

  it('deletes every answer and what hangs on it, nothing else, and brings all of it back until a copy is made', async () => {
    const { course: name, sittingIds, attempts } = await course();
    expect(attempts).toBeGreaterThan(20);
    const before = await rows();
    await deleteAnswers(name, sittingIds, at);
    const after = await rows();
    for (const table of ['attempts', 'marks', 'releases', 'openings', 'scans', 'piles', 'allowances'])
      expect(after[table], table).toEqual(
        (before[table] ?? []).filter((row) => !sittingIds.includes((row as { sittingId: string }).sittingId)),
      );
    for (const table of [
      'papers',
      'paperVersions',
      'sittings',
      'groups',
      'students',
      'markBooks',
      'bank',
      'assets',
    ])
      expect(after[table], table).toEqual(before[table]);
    expect((await course()).attempts).toBe(0);
    expect(await coursesDue(start + 9 * yearMs)).toEqual([]);
    expect((await undo(at)).outcome).toBe('undone');
    expect(await rows()).toEqual(before);
    // What was brought back stays when a copy is made.
    await finishDeletions();
    expect(await rows()).toEqual(before);
    expect(await copiesSince()).toBeNull();
  });

  it('once a copy is made they are nowhere: not in the copy, not in the record, no file of theirs', async () => {
    const { course: name, sittingIds } = await course();
    const [attempt] = await desk.attempts.where({ sittingId: 'tides' }).toArray();
    const place = {
      sittingId: 'tides',
      questionId: attempt?.questionIds[0] ?? '',
      attemptIds: [attempt?.id ?? ''],
    };
    await markAnswers(place, { comment: 'A comment that is told to nobody else' }, 'Comment', at);
    const pictures = (await desk.scans.toArray()).map(({ picture }) => picture.id);
    expect(pictures.length).toBeGreaterThan(0);
    await deleteAnswers(name, sittingIds, at);
    await finishDeletions();
    const everything = JSON.stringify(
      [
        await rows(),
        await desk.log.toArray(),
        await desk.logChanges.toArray(),
        await desk.settings.toArray(),
      ],
      (_, value: unknown) => (value instanceof Uint8Array ? null : value),
    );
    for (const sought of [attempt?.id ?? '', 'A comment that is told', ...pictures])
      expect(everything).not.toContain(sought);
    expect(await desk.assets.bulkGet(pictures)).toEqual(pictures.map(() => undefined));
    expect((await undo(at)).outcome).toBe('nothing');
    // Copies of before go with the next one.
    expect(await copiesSince()).toBe(at);
    expect(await deskContent(true)).toBeTruthy();
  });
});

it('what is kept where is what is there', async () => {
  const kept = await keptWhere();
  expect(kept).toMatchObject({
    students: await desk.students.count(),
    attempts: await desk.attempts.count(),
    files: await desk.assets.count(),
    paired: false,
    onServer: 0,
    messagesWaiting: 0,
  });
  const counted = sumBy(kept.courses, ({ attempts }) => attempts);
  expect(counted).toBe(kept.attempts);
});
