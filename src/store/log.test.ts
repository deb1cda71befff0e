import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { at, paperQuestions } from '../../tests/unit/samples';
import { runCommand, undo } from './command';
import { desk } from './tables';

const paper = {
  id: 'p',
  title: '',
  instructions: '',
  questions: paperQuestions,
  createdAt: at,
  changedAt: at,
};
const later = (ms: number) => new Date(Date.parse(at) + ms).toISOString();
const day = 24 * 3_600_000;

beforeEach(async () => {
  await desk.delete();
  await desk.open();
  await desk.papers.add(paper);
});

const titled = (title: string, now: string, joins?: string) =>
  runCommand(
    { command: 'changePaper', said: `Title: ${title}`, ...(joins && { joins }) },
    now,
    async (record) => record.put('papers', { ...(await desk.papers.get('p')), title }),
  );

describe('the log', () => {
  it('a run of typing is one entry with one patch, and one undo takes all of it back', async () => {
    const words = 'Tides and streams of the bay';
    for (let length = 1; length <= words.length; length++)
      await titled(words.slice(0, length), later(length * 100), 'title');
    const [entry, ...more] = await desk.log.toArray();
    expect(more).toEqual([]);
    expect(entry?.rows).toBe(1);
    const [kept, ...others] = await desk.logChanges.toArray();
    expect(others).toEqual([]);
    expect(kept?.changes).toHaveLength(1);
    expect(JSON.stringify(kept?.changes).length).toBeLessThan(600);
    expect((await undo(later(9_000))).outcome).toBe('undone');
    expect((await desk.papers.get('p'))?.title).toBe('');
  });

  it('what is typed and deleted again comes to nothing', async () => {
    await titled('x', later(100), 'title');
    await titled('', later(200), 'title');
    expect((await desk.log.toArray()).map(({ rows }) => rows)).toEqual([0]);
    expect((await undo(later(300))).outcome).toBe('nothing');
  });

  it('of acts older than a month and than the last two hundred what was done is kept, not each row', async () => {
    for (let count = 0; count < 260; count++) await titled(`Title ${count}`, later(count * 1000));
    expect((await desk.log.toArray()).filter(({ rows }) => rows === 0)).toEqual([]);
    for (let count = 260; count < 300; count++)
      await titled(`Title ${count}`, later(40 * day + count * 1000));
    const log = await desk.log.toArray();
    expect(log).toHaveLength(300);
    const kept = log.filter(({ rows }) => rows > 0).map(({ seq }) => seq);
    expect(kept.length).toBeGreaterThanOrEqual(200);
    expect((await desk.logChanges.toArray()).map(({ seq }) => seq)).toEqual(kept);
    expect(log[0]).toMatchObject({ said: 'Title: Title 0', rows: 0 });
    for (let count = 0; count < 200; count++) expect((await undo(later(41 * day))).outcome).toBe('undone');
    expect((await desk.papers.get('p'))?.title).toBe('Title 99');
  });
});
