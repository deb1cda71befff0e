import { createHash } from 'node:crypto';
import fc from 'fast-check';
import { unzipSync, zipSync } from 'fflate';
import { beforeAll, describe, expect, it } from 'vitest';
import { smallDemo } from '../../../../tests/unit/smallDemo';
import { backupBytes, backupIn } from '../../../../tests/unit/savedDesk';
import { assetsIn } from '../../basics/fileRules';
import { version } from '../../basics/version';
import { contentOf, noRows, readBackup, type DeskRows } from './index';
import { olderDigest } from './older';

const savedAt = '2026-11-23T10:00:00.000Z';
const tables = smallDemo(Date.parse(savedAt));
const content = contentOf(tables);
let whole: Uint8Array<ArrayBuffer>;
beforeAll(async () => {
  whole = await backupBytes(content, savedAt);
});

const text = (value: unknown) => new TextEncoder().encode(value as string);
const jsonIn = (bytes: Uint8Array | undefined): unknown => JSON.parse(new TextDecoder().decode(bytes));

type Files = Record<string, Uint8Array>;

/** What is wrong with a file that somebody changed who could make up its digests, too. */
async function faultIn(change: (files: Files) => unknown, digests = true) {
  const files = unzipSync(whole);
  change(files);
  if (digests) {
    const named = Object.keys(files).filter((path) => path === 'desk.json' || path.startsWith('tables/'));
    const of = (path: string) =>
      createHash('sha256')
        .update(files[path] ?? '')
        .digest('hex');
    files['digests.json'] = text(
      JSON.stringify({ sha256: Object.fromEntries(named.map((path) => [path, of(path)])) }),
    );
  }
  const read = await backupIn(zipSync(files));
  return 'fault' in read ? read.fault : null;
}

/** Changes the rows of one table in it. */
const inTable =
  (table: keyof DeskRows, change: (rows: Record<string, unknown>[]) => void) => (files: Files) => {
    const path = `tables/${table}.jsonl`;
    const lines = new TextDecoder().decode(files[path]).split('\n').slice(0, -1);
    const rows = lines.map((line) => JSON.parse(line) as Record<string, unknown>);
    change(rows);
    files[path] = text(rows.map((row) => `${JSON.stringify(row)}\n`).join(''));
  };

describe('a backup of the whole desk', () => {
  it('comes back equal, its files byte by byte', async () => {
    const read = await backupIn(whole);
    if (!('backup' in read)) throw new Error(JSON.stringify(read));
    expect(read.backup.savedAt).toBe(savedAt);
    expect(read.backup.rows).toEqual(content.rows);
    const [first] = content.rows.assets;
    expect(await read.backup.bytes(first?.id ?? '')).toEqual(await content.bytes(first?.id ?? ''));
  });

  it('is a zip that any program opens: a row a line, bytes as bytes', async () => {
    // Read by another implementation of the format (fflate).
    const files = unzipSync(whole);
    expect(jsonIn(files['desk.json'])).toEqual({
      format: 'gribbet-desk',
      version: 3,
      savedAt,
      savedBy: `Gribbet ${version}`,
    });
    const lines = new TextDecoder().decode(files['tables/students.jsonl']).trim().split('\n');
    expect(lines.map((line) => JSON.parse(line) as unknown)).toEqual(tables.students);
    const [first] = content.rows.assets;
    expect(files[`bytes/${first?.id}`]).toEqual(await content.bytes(first?.id ?? ''));
  });

  it('a file that is not a desk is refused in words of its own', async () => {
    const faultOf = async (bytes: Uint8Array<ArrayBuffer>) => backupIn(bytes);
    expect(await faultOf(text('{'))).toMatchObject({ fault: { code: 'notJson' } });
    expect(await faultOf(text('{"format":"something else","version":1}'))).toEqual({
      fault: { code: 'foreign' },
    });
    expect(await faultOf(text('[1,2]'))).toEqual({ fault: { code: 'foreign' } });
    expect(await faultOf(zipSync({ 'a.txt': text('a') }))).toEqual({ fault: { code: 'foreign' } });
    expect(await faultOf(whole.slice(0, 5000))).toMatchObject({ fault: { code: 'torn' } });
    expect(await faultOf(new Uint8Array())).toMatchObject({ fault: { code: 'notJson' } });
  });

  it('any bit that is another one is noticed: nothing is taken in that was not saved', async () => {
    // A paper with its pictures and three students: each bit costs a reading of the whole.
    const paper = tables.papers.find((each) => assetsIn(each).size > 0);
    if (!paper) throw new Error('no paper with a picture');
    const assets = tables.assets.filter(({ id }) => assetsIn(paper).has(id));
    const students = tables.students.slice(0, 3);
    const small = await backupBytes(contentOf({ ...noRows(), papers: [paper], assets, students }), savedAt);
    const saved = await backupIn(small);
    if (!('backup' in saved)) throw new Error('not saved');
    const place = fc.record({ at: fc.nat(small.length - 1), bit: fc.nat(7) });
    await fc.assert(
      fc.asyncProperty(place, async ({ at, bit }) => {
        const spoilt = small.slice();
        spoilt[at] = (spoilt[at] ?? 0) ^ (1 << bit);
        const read = await backupIn(spoilt);
        // What is no part of the content (a time in the directory of the zip) may differ.
        if ('backup' in read) expect(read.backup.rows).toEqual(saved.backup.rows);
        else expect(read.fault.code).toMatch(/^(torn|notJson|foreign|newer|changed|tooLarge)$/);
      }),
      { numRuns: 150 },
    );
  });

  it('a part that is missing, added or another one is noticed', async () => {
    const plain = (change: (files: Files) => unknown) => faultIn(change, false);
    expect(await plain((files) => delete files['tables/marks.jsonl'])).toEqual({ code: 'changed' });
    expect(await plain(inTable('marks', (rows) => rows.pop()))).toEqual({ code: 'changed' });
    expect(await plain((files) => delete files['digests.json'])).toEqual({ code: 'changed' });
    const picture = `bytes/${content.rows.assets[0]?.id}`;
    expect(await faultIn((files) => Reflect.deleteProperty(files, picture))).toEqual({ code: 'changed' });
    expect(
      await faultIn((files) => (files[picture] = text('x'.repeat(files[picture]?.length ?? 0)))),
    ).toEqual({
      code: 'changed',
    });
  });

  it('a newer version is refused before anything in it is read', async () => {
    const fault = await faultIn((files) => {
      files['desk.json'] = text(JSON.stringify({ format: 'gribbet-desk', version: 9 }));
      delete files['tables/marks.jsonl'];
    });
    expect(fault).toEqual({ code: 'newer', version: 9 });
  });

  it('damage is named by its place', async () => {
    const started = inTable('attempts', (rows) => Object.assign(rows[3] ?? {}, { startedAt: 'yesterday' }));
    expect(await faultIn(started)).toMatchObject({ code: 'damaged', path: 'tables.attempts.3.startedAt' });
    const line = (files: Files) => (files['tables/marks.jsonl'] = text('{}\n{"a":\n'));
    expect(await faultIn(line)).toMatchObject({ code: 'damaged', path: 'tables/marks.jsonl, line 2' });
  });

  it('what is there twice, and what points to nothing, is named before anything is put back', async () => {
    const twice = inTable('students', (rows) => rows.push({ ...rows[0] }));
    expect(await faultIn(twice)).toMatchObject({ code: 'double', key: tables.students[0]?.id });
    const mark = inTable('marks', (rows) => rows.push({ ...rows[0] }));
    expect(await faultIn(mark)).toMatchObject({
      code: 'double',
      path: `tables.marks.${tables.marks.length}`,
    });
    const gone = inTable('marks', (rows) => Object.assign(rows[0] ?? {}, { attemptId: 'gone' }));
    expect(await faultIn(gone)).toMatchObject({ code: 'loose', path: 'tables.marks.0.attemptId' });
  });

  it('nesting without end is refused in words', async () => {
    const deep = `${'{"content":['.repeat(20_000)}${']}'.repeat(20_000)}\n`;
    expect(await faultIn((files) => (files['tables/papers.jsonl'] = text(deep)))).toMatchObject({
      code: 'damaged',
      expected: 'less deeply nested',
    });
  });
});

type Older = {
  version: number;
  digest?: string;
  savedAt: string;
  tables: Record<string, Record<string, unknown>[]>;
};

/** As versions 1 and 2 saved it. */
async function older(version: number, change: (raw: Older) => unknown = () => undefined) {
  const raw = JSON.parse(JSON.stringify({ format: 'gribbet-desk', version, savedAt, tables })) as Older;
  change(raw);
  if (version > 1) raw.digest ??= await olderDigest(savedAt, raw.tables);
  return readBackup(new Blob([JSON.stringify(raw)]));
}

describe('backups of before they were zips', () => {
  it.each([1, 2])('version %i still opens', async (version) => {
    const read = await older(version);
    if (!('backup' in read)) throw new Error(JSON.stringify(read));
    expect(read.backup.rows).toEqual(content.rows);
    const [first] = content.rows.assets;
    expect(await read.backup.bytes(first?.id ?? '')).toEqual(await content.bytes(first?.id ?? ''));
  });

  it('another content than its digest is of is refused; so is what points to nothing', async () => {
    expect(await older(2, (raw) => (raw.digest = 'AAAA'))).toEqual({ fault: { code: 'changed' } });
    for (const version of [1, 2])
      expect(
        await older(version, (raw) => Object.assign(raw.tables.marks?.[0] ?? {}, { attemptId: 'gone' })),
      ).toMatchObject({ fault: { code: 'loose', path: 'tables.marks.0.attemptId' } });
  });

  it('what an entry of the log changed was in the entry once, and stands apart now', async () => {
    const row = content.rows.papers[0];
    const change = { how: 'added', table: 'papers', key: [row?.id], row };
    const entry = { at: savedAt, who: 'teacher', command: 'createPaper', about: null, undoneAt: null };
    const read = await older(2, (raw) => {
      raw.tables.log = [{ ...entry, seq: 7, said: 'Created', changes: [change] }];
      Reflect.deleteProperty(raw.tables, 'logChanges');
    });
    const rows = 'backup' in read ? read.backup.rows : null;
    expect(rows?.log).toEqual([{ ...entry, seq: 7, said: 'Created', rows: 1 }]);
    expect(rows?.logChanges).toEqual([{ seq: 7, changes: [change] }]);
  });

  it('of an older desk, what hung on nothing is left behind, and who had opened a result is kept', async () => {
    const [first] = tables.releases;
    const read = await older(1, (raw) => {
      raw.tables.outbox?.push({
        ...{ id: 'm1', sittingId: 'gone', studentId: 'gone', email: '', subject: '', text: '', at: savedAt },
      });
      Object.assign(raw.tables.releases?.[0] ?? {}, { openedAt: [savedAt] });
      Reflect.deleteProperty(raw.tables, 'openings');
    });
    const rows = 'backup' in read ? read.backup.rows : null;
    expect(rows?.outbox).toEqual(tables.outbox);
    expect(rows?.openings).toEqual([
      { sittingId: first?.sittingId, studentId: first?.studentId, at: [savedAt] },
    ]);
  });
});
