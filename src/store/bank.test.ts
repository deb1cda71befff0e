import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { buildDemo } from '@demo/buildDemo';
import { at, samples } from '../../tests/unit/samples';
import {
  bankList,
  changeBankQuestion,
  makeSeparate,
  newBankQuestion,
  putBack,
  putIntoBank,
  takeIntoPaper,
  takeOutOfBank,
  takeOver,
} from './bank';
import { backupBytes, backupIn } from '../../tests/unit/savedDesk';
import { deskContent, emptyTables, replaceDesk } from './backup';
import { undo } from './command';
import { sameContent } from '@/core/model/sameContent';
import { changePaper } from './papers';
import { desk } from './tables';

const now = Date.parse(at);
const paperOf = (id: string) => ({
  id,
  title: id,
  instructions: '',
  questions: [] as (typeof samples)[keyof typeof samples][],
  createdAt: at,
  changedAt: at,
});

beforeEach(() =>
  replaceDesk({
    ...emptyTables,
    papers: [{ ...paperOf('p'), questions: [samples.trueFalse, samples.number] }, paperOf('q')],
  }),
);

const paper = async (id: string) => {
  const found = await desk.papers.get(id);
  if (!found) throw new Error('no paper');
  return found;
};
const rowOf = async (id: string) => {
  const row = (await bankList(now)).find((each) => each.id === id);
  if (!row) throw new Error('no row');
  return row;
};

describe('the bank on the desk', () => {
  it('a question is begun and changed there, for no paper yet; papers are told that theirs is not the same', async () => {
    const { result: id } = await newBankQuestion('trueFalse', at);
    expect(await rowOf(id)).toMatchObject({ uses: [], records: [], lastUsed: null });
    await takeIntoPaper(await rowOf(id), 'q', at);
    const entry = await desk.bank.get(id);
    if (!entry) throw new Error('no entry');
    const changed = { ...entry, question: { ...entry.question, stem: 'A sounding is a depth.' } };
    await changeBankQuestion(changed, 'Worded', 'stem', at);
    expect((await rowOf(id)).uses).toMatchObject([{ paperId: 'q', same: false }]);
    await expect(
      changeBankQuestion(
        { ...changed, question: { ...changed.question, points: -1 } },
        'Broken',
        undefined,
        at,
      ),
    ).rejects.toThrow();
    await undo(at);
    expect((await desk.bank.get(id))?.question.stem).toBe('');
  });

  it('lists every question of every paper, and each once when it is linked', async () => {
    expect((await bankList(now)).map((row) => row.id)).toEqual(['q5', 'q6']);
    const bankId = (await putIntoBank('p', 'q5', at)).result;
    expect((await bankList(now)).map((row) => row.id)).toEqual([bankId, 'q6']);
    await takeIntoPaper(await rowOf(bankId), 'q', at);
    expect((await rowOf(bankId)).uses.map((use) => [use.paperId, use.same])).toEqual([
      ['p', true],
      ['q', true],
    ]);
  });

  it('a question of another paper alone is put into the bank when it is taken', async () => {
    await takeIntoPaper(await rowOf('q6'), 'q', at);
    const [entry] = await desk.bank.toArray();
    expect((await paper('p')).questions[1]?.bankId).toBe(entry?.id);
    expect((await paper('q')).questions).toMatchObject([{ kind: 'number', bankId: entry?.id }]);
    await undo(at);
    expect(await desk.bank.count()).toBe(0);
    expect((await paper('p')).questions[1]?.bankId).toBeUndefined();
    expect((await paper('q')).questions).toEqual([]);
  });

  it('changes are passed on only when asked: put back from one paper, taken over in another', async () => {
    const bankId = (await putIntoBank('p', 'q5', at)).result;
    const copyId = (await takeIntoPaper(await rowOf(bankId), 'q', at)).result;
    const before = await paper('p');
    const questions = before.questions.map((each) => (each.id === 'q5' ? { ...each, points: 4 } : each));
    await changePaper({ ...before, questions }, 'Points', undefined, at);
    expect((await rowOf(bankId)).uses.map((use) => use.same)).toEqual([false, true]);
    await putBack('p', 'q5', at);
    expect((await rowOf(bankId)).uses.map((use) => use.same)).toEqual([true, false]);
    await takeOver('q', copyId, at);
    expect((await paper('q')).questions).toMatchObject([{ id: copyId, points: 4, bankId }]);
  });

  it('made separate, or taken out of the bank, a paper keeps its question', async () => {
    const bankId = (await putIntoBank('p', 'q5', at)).result;
    await makeSeparate('p', 'q5', at);
    expect((await paper('p')).questions[0]).toEqual(samples.trueFalse);
    await takeOutOfBank(bankId, at);
    expect((await bankList(now)).map((row) => row.id)).toEqual(['q5', 'q6']);
  });

  it('a link to the bank is no change of the paper that students sat', async () => {
    const before = await paper('p');
    await putIntoBank('p', 'q5', at);
    expect(sameContent(before, await paper('p'))).toBe(true);
  });

  it('is in the backup, and a backup of before there was one still comes in', async () => {
    await putIntoBank('p', 'q5', at);
    const read = await backupIn(await backupBytes(await deskContent(), at));
    expect('backup' in read && read.backup.rows.bank).toEqual(await desk.bank.toArray());
    const { bank: _, ...tables } = emptyTables;
    const old = { format: 'gribbet-desk', version: 1, savedAt: at, tables };
    const older = await backupIn(new TextEncoder().encode(JSON.stringify(old)));
    expect('backup' in older && older.backup.rows.bank).toEqual([]);
  });

  it('figures come from the sittings: each question of the demo that was sat has a facility', async () => {
    const today = Date.now();
    await replaceDesk(buildDemo(today));
    const rows = await bankList(today);
    const lights = rows.filter((row) => row.uses.some((use) => use.paperId === 'paper-lights'));
    expect(lights).toHaveLength(11);
    for (const { record } of lights) {
      expect(record?.facility).toBeGreaterThan(0);
      expect(record?.facility).toBeLessThan(1);
      expect(record?.scored).toBe(92);
    }
    // A class made with abilities: strong students do better on almost every question.
    const telling = lights.filter((row) => (row.record?.discrimination ?? 0) > 0.1);
    expect(telling.length).toBeGreaterThan(7);
    expect(rows.find((row) => row.uses[0]?.paperId === 'paper-passage')?.lastUsed).toBeNull();
  });
});
