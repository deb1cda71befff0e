import { spawn } from 'node:child_process';
import { once } from 'node:events';
import {
  appendFileSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { append, openExchangeFolder, type Append, type ExchangeFolder } from './exchangeFolder';
import { StoreFull } from './exchangeStore';

const opened: ExchangeFolder[] = [];
const fresh = () => mkdtempSync(join(tmpdir(), 'gribbet-folder-'));
const open = async (path: string, append?: Append) => {
  const folder = await openExchangeFolder(path, append);
  opened.push(folder);
  return folder;
};
const all = async (folder: ExchangeFolder) =>
  Object.fromEntries((await folder.list('')).map(({ key, value }) => [key, value]));

afterEach(async () => {
  for (const folder of opened.splice(0)) await folder.close().catch(() => undefined);
});

describe('the exchange in a folder', () => {
  it('is the same when it is opened again: rows, patches, what was taken away, revision, files, name', async () => {
    const path = fresh();
    const before = await open(path);
    await before.commit([
      { key: 'a/1/x', value: { n: 1, list: [1, 2, 3] } },
      { key: 'b/1', value: 'text' },
    ]);
    await before.commit([{ key: 'a/1/x', value: { n: 2, list: [1, 3], more: true } }]);
    await before.commit([{ key: 'b/1', value: null }]);
    await before.putBytes('file-1', Uint8Array.of(1, 2, 3));
    await before.close();
    const after = await open(path);
    expect(await all(after)).toEqual({ 'a/1/x': { n: 2, list: [1, 3], more: true } });
    expect(await after.rev()).toBe(3);
    expect(after.id).toBe(before.id);
    expect([...((await after.bytes('file-1')) ?? [])]).toEqual([1, 2, 3]);
    expect(await after.bytes('other')).toBeNull();
    expect((await after.list('a/1/')).length).toBe(1);
  });

  it('lists what begins so, however much of a key is given', async () => {
    const key = fc.array(fc.constantFrom('a', 'b', 'ab', '1'), { minLength: 1, maxLength: 4 });
    const changes = fc.array(
      fc.record({ key: key.map((parts) => parts.join('/')), value: fc.option(fc.nat()) }),
    );
    const folder = await open(fresh());
    const kept = new Map<string, number>();
    await fc.assert(
      fc.asyncProperty(changes, key, fc.boolean(), async (some, parts, closed) => {
        await folder.commit(some);
        for (const { key, value } of some)
          if (value === null) kept.delete(key);
          else kept.set(key, value);
        const prefix = parts.join('/') + (closed ? '/' : '');
        const listed = (await folder.list(prefix)).map(({ key, value }) => [key, value]);
        expect(listed.sort()).toEqual([...kept].filter(([key]) => key.startsWith(prefix)).sort());
      }),
    );
  });

  it('what comes at once shares one writing, and holds only once it is written', async () => {
    let writings = 0;
    let letWrite: () => void = () => undefined;
    const mayWrite = new Promise<void>((resolve) => (letWrite = resolve));
    const folder = await open(fresh(), async (file, bytes, position) => {
      writings += 1;
      await mayWrite;
      await file.write(bytes, 0, bytes.length, position);
    });
    const first = folder.commit([{ key: 'a/1', value: { n: 0 } }]);
    expect(await folder.get('a/1')).toBeUndefined();
    letWrite();
    await first;
    await Promise.all(
      Array.from({ length: 50 }, (_, n) => folder.commit([{ key: 'a/1', value: { n, [`k${n}`]: n } }])),
    );
    expect(writings).toBe(3);
    expect(await folder.get('a/1')).toEqual({ n: 49, k49: 49 });
  });

  it('a line torn off at the end was acknowledged to nobody: it is dropped, and writing goes on behind the rest', async () => {
    const path = fresh();
    const before = await open(path);
    await before.commit([{ key: 'a/1', value: 1 }]);
    await before.close();
    const journal = join(path, 'journal-0.ndjson');
    appendFileSync(journal, '0badc0de {"rev":2,"changes":[{"key":"a/2","val');
    const after = await open(path);
    expect(await all(after)).toEqual({ 'a/1': 1 });
    await after.commit([{ key: 'a/3', value: 3 }]);
    await after.close();
    expect(await all(await open(path))).toEqual({ 'a/1': 1, 'a/3': 3 });
  });

  it('damage before the end is no accident of stopping: it is named by file and line', async () => {
    const path = fresh();
    const before = await open(path);
    for (const n of [1, 2, 3]) await before.commit([{ key: `a/${n}`, value: 'word' }]);
    await before.close();
    const journal = join(path, 'journal-0.ndjson');
    writeFileSync(journal, readFileSync(journal, 'utf8').replace('a/2', 'a/9'));
    await expect(openExchangeFolder(path)).rejects.toThrow(/journal-0.ndjson, line 2: damaged/);
  });

  it('a full disk: what comes is refused, what was kept stays, and it goes on when there is room', async () => {
    let room = 400;
    const path = fresh();
    const folder = await open(path, async (file, bytes, position) => {
      const fits = bytes.subarray(0, Math.max(0, room));
      // As a disk does it: what still fits is written before it says that it is full.
      await file.write(fits, 0, fits.length, position);
      if (fits.length < bytes.length) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
      room -= bytes.length;
    });
    const kept: number[] = [];
    for (let n = 0; n < 20; n++)
      await folder.commit([{ key: `a/${n}`, value: { words: 'so and so' } }]).then(
        () => kept.push(n),
        (error: unknown) => expect(error).toBeInstanceOf(StoreFull),
      );
    expect(kept.length).toBeGreaterThan(2);
    expect(kept.length).toBeLessThan(10);
    expect(Object.keys(await all(folder)).length).toBe(kept.length);
    room = 10_000;
    await folder.commit([{ key: 'b/1', value: 1 }]);
    const before = await all(folder);
    await folder.close();
    expect(await all(await open(path))).toEqual(before);
  });

  it('written anew as a snapshot it is the same, and the old journal is gone', async () => {
    const path = fresh();
    const folder = await open(path);
    for (let n = 0; n < 30; n++) await folder.commit([{ key: `a/${n % 7}`, value: { n } }]);
    await folder.compact();
    await folder.commit([{ key: 'a/3', value: { n: 99 } }]);
    const before = await all(folder);
    await folder.close();
    expect(
      readdirSync(path)
        .filter((name) => name.endsWith('.ndjson'))
        .sort(),
    ).toEqual(['journal-30.ndjson', 'snapshot-30.ndjson']);
    const after = await open(path);
    expect(await all(after)).toEqual(before);
    expect(await after.rev()).toBe(31);
  });

  it('a disk that takes only a part at a time gets all of it, or says that it is full', async () => {
    const written: number[] = [];
    let room = 10;
    const file = {
      write: async (bytes: Uint8Array, offset: number, length: number) => {
        const bytesWritten = Math.min(3, length, room);
        if (bytesWritten === 0) throw Object.assign(new Error('full'), { code: 'ENOSPC' });
        room -= bytesWritten;
        written.push(...bytes.subarray(offset, offset + bytesWritten));
        return { bytesWritten };
      },
      datasync: async () => undefined,
    } as unknown as Parameters<Append>[0];
    await append(file, Uint8Array.of(1, 2, 3, 4, 5, 6, 7), 0);
    expect(written).toEqual([1, 2, 3, 4, 5, 6, 7]);
    await expect(append(file, Uint8Array.of(8, 9, 10, 11), 7)).rejects.toThrow('full');
  });

  it('where the new journal could not be begun, what was written into the old one is read as well', async () => {
    const path = fresh();
    const folder = await open(path);
    for (let n = 0; n < 5; n++) await folder.commit([{ key: 'a/1', value: { n } }]);
    // As it is left when the disk is full between the snapshot and its journal.
    const old = readFileSync(join(path, 'journal-0.ndjson'));
    await folder.compact();
    await folder.commit([{ key: 'a/1', value: { n: 5, last: true } }]);
    await folder.close();
    const later = readFileSync(join(path, 'journal-5.ndjson'));
    writeFileSync(join(path, 'journal-0.ndjson'), Buffer.concat([old, later]));
    rmSync(join(path, 'journal-5.ndjson'));
    const after = await open(path);
    expect(await all(after)).toEqual({ 'a/1': { n: 5, last: true } });
    await after.commit([{ key: 'a/2', value: 1 }]);
    await after.close();
    expect(await (await open(path)).rev()).toBe(7);
  });

  it('one after the other under one name; under another, at once', async () => {
    const folder = await open(fresh());
    const order: string[] = [];
    const work = (name: string, until: Promise<unknown>) => async () => {
      order.push(`${name} begins`);
      await until;
      order.push(`${name} ends`);
    };
    // The first goes on until the other is done, which is under another name.
    const other = folder.locked('y', work('other', Promise.resolve()));
    await Promise.all([
      folder.locked('x', work('first', other)),
      folder.locked('x', work('second', Promise.resolve())),
    ]);
    expect(order.indexOf('second begins')).toBeGreaterThan(order.indexOf('first ends'));
    expect(order.indexOf('other ends')).toBeLessThan(order.indexOf('first ends'));
  });

  it('is for one server at a time; the number of one that is gone may be another program’s by now', async () => {
    const path = fresh();
    const other = spawn(process.execPath, ['-e', 'setInterval(() => {}, 1000)']);
    try {
      await once(other, 'spawn');
      const stat = `/proc/${other.pid}/stat`;
      const began = existsSync(stat) ? (readFileSync(stat, 'utf8').split(' ')[21] ?? '') : '';
      writeFileSync(join(path, 'in-use'), `${other.pid} ${began}`);
      await expect(open(path)).rejects.toThrow(`in use by another Gribbet (process ${other.pid})`);
      writeFileSync(join(path, 'in-use'), `${other.pid} another time`);
      await (await open(path)).commit([{ key: 'a/1', value: 1 }]);
    } finally {
      other.kill();
    }
  });

  it('no name leads out of the folder of files', async () => {
    const folder = await open(fresh());
    await expect(folder.bytes('../box.json')).rejects.toThrow();
    await expect(folder.putBytes('a/b', Uint8Array.of(1))).rejects.toThrow();
  });
});
