import 'fake-indexeddb/auto';
import Dexie from 'dexie';
import { describe, expect, it } from 'vitest';
import { at, attemptOf, markOf, paperQuestions, studentOf } from '../../tests/unit/samples';
import { ownMarker } from '@/core/model/mark';
import { Paper } from '@/core/model/paper';
import { DeskDatabase } from './tables';

describe('a desk of an older version', () => {
  it('is opened with everything on it; only what is computed is made anew', async () => {
    const old = new Dexie('gribbet-older');
    old.version(1).stores({
      students: 'id, joinCode, number, email, *groupIds',
      groups: 'id, name',
      papers: 'id, changedAt',
      paperVersions: '[paperId+version], paperId',
      sittings: 'id, paperId, *groupIds',
      allowances: 'id, sittingId, [sittingId+studentId]',
      attempts: 'id, sittingId, studentId, [sittingId+studentId]',
      marks: '[attemptId+questionId], attemptId, sittingId, [sittingId+questionId]',
      releases: '[sittingId+studentId], sittingId, studentId',
      assets: 'id',
      settings: 'key',
      log: '++seq, about, command',
      standings: 'sittingId',
    });
    const paper = {
      id: 'p',
      title: 'Tides',
      instructions: 'Answer all.',
      questions: paperQuestions,
      createdAt: at,
      changedAt: at,
    };
    await old.open();
    await old.table('papers').add(paper);
    await old.table('students').add(studentOf());
    await old.table('standings').add({ sittingId: 's', meanShare: 0.5 });
    old.close();

    const desk = new DeskDatabase('gribbet-older');
    await desk.open();
    expect(await desk.papers.toArray()).toEqual([paper]);
    // What was written before parts, links and markup existed is still a paper.
    expect(Paper.parse((await desk.papers.toArray())[0])).toEqual(paper);
    expect(await desk.students.count()).toBe(1);
    expect(await desk.progress.count()).toBe(0);
    expect(desk.tables.map(({ name }) => name)).not.toContain('standings');
    expect(await desk.bank.toArray()).toEqual([]);
    desk.close();
  });

  it('of a version that has no step of its own: what came later is made, and its rows are there', async () => {
    const old = new Dexie('gribbet-sixteen');
    old.version(16).stores({
      attempts: 'id, sittingId, studentId, [sittingId+studentId]',
      marks: '[attemptId+questionId+markerId], attemptId, sittingId, [sittingId+questionId]',
      progress: 'sittingId',
      shares: 'id, sittingId',
    });
    await old.open();
    await old.table('marks').add(markOf({ attemptId: 'a1', questionId: 'q4', points: 2 }));
    await old.table('progress').add({ sittingId: 's' });
    old.close();
    const desk = new DeskDatabase('gribbet-sixteen');
    await desk.open();
    expect((await desk.marks.get(['a1', 'q4', ownMarker]))?.points).toBe(2);
    expect(await desk.markBooks.toArray()).toEqual([]);
    // Made anew since answers on paper came.
    expect(await desk.progress.count()).toBe(0);
    desk.close();
  });

  it('of the version before this one too: each row, each index, and the cache under its new name', async () => {
    const old = new Dexie('gribbet-seven');
    old.version(7).stores({
      students: 'id, joinCode, number, email, *groupIds',
      groups: 'id, name',
      papers: 'id, changedAt',
      paperVersions: '[paperId+version], paperId',
      sittings: 'id, paperId, *groupIds',
      allowances: 'id, sittingId, [sittingId+studentId]',
      attempts: 'id, sittingId, studentId, [sittingId+studentId]',
      marks: '[attemptId+questionId], attemptId, sittingId, [sittingId+questionId]',
      releases: '[sittingId+studentId], sittingId, studentId',
      openings: '[sittingId+studentId], sittingId, studentId',
      assets: 'id',
      bank: 'id',
      requests: 'id, sittingId, [sittingId+studentId]',
      outbox: 'id, sittingId',
      templates: 'id',
      settings: 'key',
      log: '++seq, about, command',
      standings: 'sittingId',
      carried: 'id, sittingId',
      posted: 'key',
      line: 'key',
    });
    await old.open();
    await old.table('attempts').add(attemptOf({ id: 'a1' }));
    const { markerId: _m, history: _h, ...mark } = markOf({ attemptId: 'a1', questionId: 'q4', points: 2 });
    await old.table('marks').add(mark);
    const key = ['a1', 'q4'];
    const patch = { how: 'patched', table: 'marks', key, forth: [], back: [] };
    const entry = { at, who: 'teacher', command: 'markAnswers', about: null, undoneAt: null };
    await old.table('log').bulkAdd([
      { ...entry, said: 'marked', changes: [{ how: 'added', table: 'marks', key, row: mark }] },
      { ...entry, said: 'marked again', changes: [patch] },
      // Odd as no entry should be: the desk opens all the same.
      { ...entry, said: 'x'.repeat(3000), changes: [] },
    ]);
    await old.table('line').add({ key: 'line', box: 'b', secret: 's', rev: 3 });
    await old.table('standings').add({ sittingId: 's' });
    const before = old.tables.map(({ name, schema }) => [
      name,
      schema.primKey.src,
      schema.indexes.map(({ src }) => src),
    ]);
    old.close();

    const desk = new DeskDatabase('gribbet-seven');
    await desk.open();
    expect(await desk.attempts.where({ sittingId: attemptOf().sittingId }).count()).toBe(1);
    expect((await desk.marks.get(['a1', 'q4', ownMarker]))?.points).toBe(2);
    expect((await desk.pairing.get('now'))?.rev).toBe(3);
    // What was done before can still be undone: its rows are known by the key there is now.
    expect((await desk.log.toArray()).map(({ rows }) => rows)).toEqual([1, 1, 0]);
    expect(await desk.log.toArray()).not.toContainEqual(
      expect.objectContaining({ changes: expect.anything() }),
    );
    const [added, patched] = (await desk.logChanges.toArray()).map(({ changes }) => changes[0]);
    expect(added).toMatchObject({
      key: ['a1', 'q4', ownMarker],
      row: await desk.marks.toCollection().first(),
    });
    expect(patched?.key).toEqual(['a1', 'q4', ownMarker]);
    const now = new Map(
      desk.tables.map(({ name, schema }) => [
        name,
        [schema.primKey.src, schema.indexes.map(({ src }) => src)],
      ]),
    );
    for (const [name, ...schema] of before)
      if (!['standings', 'marks', 'line'].includes(String(name)))
        expect([name, ...(now.get(String(name)) ?? [])]).toEqual([name, ...schema]);
    expect([...now.keys()]).toContain('progress');
    expect([...now.keys()]).not.toContain('marksAside');
    expect(now.get('marks')?.[0]).toBe('[attemptId+questionId+markerId]');
    desk.close();
  });
});
