import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { smallDemo } from '../../tests/unit/smallDemo';
import { deskFile, dropUnusedFiles, keepAsset } from './assets';
import { paperQuestions } from '../../tests/unit/samples';
import type { Paper } from '@/core/model/paper';
import { backupBytes, backupIn } from '../../tests/unit/savedDesk';
import { deskContent, emptyTables, putInPlace, replaceDesk } from './backup';
import { runCommand, undo } from './command';
import { bringPapers } from './papers';
import { finishDeletions } from './retention';
import { desk } from './tables';

const now = '2026-11-23T10:00:00.000Z';
const chart = {
  name: 'chart.png',
  mediaType: 'image/png',
  bytes: Uint8Array.from({ length: 999 }, (_, at) => at % 256),
};

beforeEach(() => replaceDesk(emptyTables));

describe('the pictures and files of the desk', () => {
  it('the same bytes are kept once, under one id', async () => {
    const first = await keepAsset(chart);
    const again = await keepAsset({ ...chart, name: 'the same.png' });
    expect(again.id).toBe(first.id);
    expect(await desk.assets.count()).toBe(1);
    expect(first.size).toBe(999);
    expect(await deskFile('not here')).toBeNull();
  });

  it('come back from a backup byte by byte', async () => {
    const { id } = await keepAsset(chart);
    const saved = await backupIn(await backupBytes(await deskContent(), now));
    if (!('backup' in saved)) throw new Error('not saved');
    await replaceDesk(emptyTables);
    expect(await deskFile(id)).toBeNull();
    await putInPlace(saved.backup);
    expect((await deskFile(id))?.bytes).toEqual(chart.bytes);
  });
});

describe('files that nothing names any more', () => {
  const questionWith = (asset: string) => ({
    ...paperQuestions[0],
    prompt: [{ type: 'picture', asset, alt: 'A chart', decoration: false, width: 9, height: 9 }],
  });
  const put = (title: string, questions: unknown[], ms: number) =>
    runCommand(
      { command: 'changePaper', said: title },
      new Date(Date.parse(now) + ms).toISOString(),
      async (record) =>
        record.put('papers', {
          ...{ id: 'p', title, instructions: '', createdAt: now, changedAt: now },
          questions: questions as Paper['questions'],
        }),
    );

  it('go with the last act that named them and can be undone; those that something names stay', async () => {
    const [gone, used] = [
      await keepAsset(chart),
      await keepAsset({ ...chart, bytes: Uint8Array.from([1, 2, 3]) }),
    ];
    const never = await keepAsset({ ...chart, bytes: Uint8Array.from([4, 5, 6]) });
    await put('both', [questionWith(gone.id), questionWith(used.id)], 0);
    await put('one', [questionWith(used.id)], 1_000);
    for (let act = 2; act < 100; act++) await put(`act ${act}`, [questionWith(used.id)], act * 1_000);
    await finishDeletions();
    expect(await deskFile(gone.id)).not.toBeNull();
    for (let act = 100; act < 310; act++)
      await put(`act ${act}`, [questionWith(used.id)], 40 * 86_400_000 + act * 1_000);
    // Of acts older than a month and than the last 200 the rows are gone.
    await finishDeletions();
    expect(await deskFile(gone.id)).toBeNull();
    expect(await deskFile(used.id)).not.toBeNull();
    // It was put there a moment ago, by an act that is still under way.
    expect(await deskFile(never.id)).not.toBeNull();
    const before = await desk.settings.get('filesLeft');
    await finishDeletions();
    expect(await desk.settings.get('filesLeft')).toEqual(before);
  });
});

it('a file is in use wherever the desk has it: in answers, on scanned pages, as the blank page of a print, in papers', async () => {
  await replaceDesk(smallDemo(Date.parse(now)));
  const all = (await desk.assets.toCollection().primaryKeys()) as string[];
  const blank = await keepAsset(chart);
  const [print] = await desk.prints.toArray();
  if (!print) throw new Error('no print in the demo');
  await desk.prints.put({ ...print, id: 'foreign', foreign: { blanks: [blank], name: null } });
  const nobody = await keepAsset({ ...chart, bytes: Uint8Array.from([7, 8, 9]) });
  await dropUnusedFiles([...all, blank.id, nobody.id]);
  expect(await desk.assets.toCollection().primaryKeys()).toEqual([...all, blank.id].sort());
});

describe('papers from elsewhere', () => {
  it('come in one step, with ids of this desk, and can be taken back together', async () => {
    const content = { title: 'From afar', instructions: '', questions: [] };
    const { result } = await bringPapers([content, { ...content, title: 'And another' }], 'Two papers', now);
    expect(new Set(result).size).toBe(2);
    expect((await desk.papers.bulkGet(result)).map((paper) => paper?.title)).toEqual([
      'From afar',
      'And another',
    ]);
    expect((await undo(now)).outcome).toBe('undone');
    expect(await desk.papers.count()).toBe(0);
  });

  it('are checked before anything is kept', async () => {
    const broken = { title: 'x'.repeat(501), instructions: '', questions: [] };
    const good = { title: 'Good', instructions: '', questions: [] };
    await expect(bringPapers([good, broken], 'Papers', now)).rejects.toThrow();
    expect(await desk.papers.count()).toBe(0);
  });
});
