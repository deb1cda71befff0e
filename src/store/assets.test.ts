import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { deskFile, keepAsset } from './assets';
import { backupBytes, backupIn } from '../../tests/unit/savedDesk';
import { deskContent, emptyTables, putInPlace, replaceDesk } from './backup';
import { undo } from './command';
import { bringPapers } from './papers';
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
