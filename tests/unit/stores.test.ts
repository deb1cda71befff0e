import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { afterAll, afterEach, beforeAll, describe, expect, it } from 'vitest';
import { openExchangeFolder } from '@/server/exchangeFolder';
import type { ExchangeStore, KeptChange } from '@/server/exchangeStore';
import { moveStore } from '@/server/moveStore';
import { openPostgresStore, type PostgresStore } from '@/server/postgresStore';
import { newCluster, noPostgres, type Cluster } from './postgres';

const quiet = () => undefined;
const opened: ExchangeStore[] = [];
const kept = <S extends ExchangeStore>(store: S): S => {
  opened.push(store);
  return store;
};
afterEach(async () => {
  for (const store of opened.splice(0)) await store.close();
});

const inFolder = async () => kept(await openExchangeFolder(mkdtempSync(join(tmpdir(), 'gribbet-store-'))));

let cluster: Cluster | null = null;
beforeAll(async () => {
  if (!noPostgres) cluster = await newCluster();
});
afterAll(() => cluster?.kill());
const newDatabase = () => cluster?.newDatabase() ?? '';
const inPostgres = async (url = newDatabase()) => kept(await openPostgresStore(url, quiet));

const stores: [string, () => Promise<ExchangeStore>][] = [
  ['a folder', inFolder],
  ...(noPostgres ? [] : ([['a database', () => inPostgres()]] as [string, () => Promise<ExchangeStore>][])),
];
if (noPostgres) it.skip(`the store in PostgreSQL: not tried, as ${noPostgres}`, quiet);

const part = fc.constantFrom('a', 'b', 'ab', '1', '%2F', 'é', '𝄞');
const key = fc.array(part, { minLength: 1, maxLength: 3 }).map((parts) => parts.join('/'));
const value = fc.option(
  fc.oneof(
    fc.jsonValue().filter((each) => each !== null),
    fc.string({ unit: 'binary' }),
  ),
);
const commits = fc.array(fc.array(fc.record({ key, value }), { maxLength: 6 }), { maxLength: 8 });
const plain = (from: unknown) => JSON.parse(JSON.stringify(from)) as unknown;

describe.each(stores)('the exchange in %s', (_, open) => {
  it('keeps what was put last, says what was put since, by any beginning of a key', async () => {
    const store = await open();
    const rows = new Map<string, unknown>();
    await fc.assert(
      fc.asyncProperty(
        commits,
        fc.constantFrom('', 'a', 'a/', 'b/1', 'ab/', 'é'),
        fc.nat(5),
        async (all, prefix, most) => {
          const before = await store.rev();
          const touched = new Set<string>();
          for (const changes of all) {
            await store.commit(changes);
            for (const change of changes) {
              touched.add(change.key);
              if (change.value === null) rows.delete(change.key);
              else rows.set(change.key, plain(change.value));
            }
          }
          const here = [...rows].filter(([each]) => each.startsWith(prefix));
          const listed = await store.list(prefix);
          expect(new Map(listed.map((row) => [row.key, row.value]))).toEqual(new Map(here));
          for (const [each, stands] of here.slice(0, 3)) expect(await store.get(each)).toEqual(stands);
          expect(await store.get('nobody')).toBeUndefined();
          // In pieces of any size: each row that was put comes once, and in the order it was put in.
          const told: string[] = [];
          for (let since = before, more = true; more;) {
            const piece = await store.changed(since, [prefix], most + 1);
            told.push(...piece.rows.map((row) => row.key));
            expect(
              piece.rows.every(({ rev }, index) => rev > since && rev >= (piece.rows[index - 1]?.rev ?? 0)),
            ).toBe(true);
            expect(piece.rev).toBeGreaterThanOrEqual(since);
            [since, more] = [piece.rev, piece.more];
          }
          expect(told.toSorted()).toEqual(
            here
              .map(([each]) => each)
              .filter((each) => touched.has(each))
              .toSorted(),
          );
        },
      ),
      { numRuns: 60 },
    );
  });

  it('a name is held by one at a time, also from within another, and given free by what fails', async () => {
    const store = await open();
    let inside = 0;
    const add = (name: string) =>
      store.locked(`outer ${name}`, () =>
        store.locked(name, async () => {
          expect(++inside).toBe(1);
          const before = ((await store.get('count')) as number | undefined) ?? 0;
          await store.commit([{ key: 'count', value: before + 1 }]);
          inside -= 1;
        }),
      );
    await Promise.all(Array.from({ length: 60 }, () => add('one')));
    expect(await store.get('count')).toBe(60);
    await expect(store.locked('one', () => Promise.reject(new Error('failed')))).rejects.toThrow('failed');
    expect(await store.locked('one', async () => 'free')).toBe('free');
  });

  it('files are there as they were put, once, whatever their size', async () => {
    const store = await open();
    const bytes = Uint8Array.from({ length: 2_500_000 }, (__, index) => index % 251);
    for (let n = 0; n < 2; n++) await store.putBytes('big', bytes);
    await store.putBytes('none', new Uint8Array(0));
    expect(Buffer.compare(Buffer.from((await store.bytes('big')) ?? []), Buffer.from(bytes))).toBe(0);
    expect((await store.bytes('none'))?.length).toBe(0);
    expect(await store.files()).toEqual(['big', 'none']);
    await store.dropBytes('big');
    expect(await store.bytes('big')).toBeNull();
    expect(await store.files()).toEqual(['none']);
  });

  it('many files at once, each under a lock of its own, do not wait for each other', async () => {
    const store = await open();
    const bytes = Uint8Array.from({ length: 1_200_000 }, (__, index) => index % 13);
    const put = (n: number) =>
      store.locked(`student ${n}`, async () => {
        await store.putBytes(`file-${n}`, bytes);
        await store.commit([{ key: `files/${n}`, value: n }]);
      });
    await Promise.all(Array.from({ length: 50 }, (__, n) => put(n)));
    expect(await store.files()).toHaveLength(50);
    expect(await store.list('files/')).toHaveLength(50);
  });

  it('who watches is told; who hears, hears', async () => {
    const store = await open();
    const changed = new Promise<void>((resolve) => store.watch(resolve));
    const heard = new Promise<string>((resolve) => store.hear(resolve));
    await store.commit([{ key: 'a', value: 1 }]);
    store.tell('once');
    await changed;
    expect(await heard).toBe('once');
  });
});

describe.skipIf(noPostgres)('servers that share a database', () => {
  it('two that open it at once make it once, and find it the same later', async () => {
    const url = newDatabase();
    const [one, other] = await Promise.all([inPostgres(url), inPostgres(url)]);
    expect(one.id).toBe(other.id);
    await one.commit([{ key: 'a', value: { text: 'as it was typed: \u0000 “é” 1.50' } }]);
    expect(await other.get('a')).toEqual({ text: 'as it was typed: \u0000 “é” 1.50' });
    expect((await inPostgres(url)).id).toBe(one.id);
  });

  it('made by a newer Gribbet, it is left alone, and that is said', async () => {
    const url = newDatabase();
    await inPostgres(url);
    cluster?.restore(new URL(url).pathname.slice(1), 'insert into gribbet_migrations values (99, now())');
    await expect(openPostgresStore(url, quiet)).rejects.toThrow(/newer Gribbet \(step 99/);
  });

  it('where there is no database, that is said in a line', async () => {
    for (const host of ['127.0.0.1', 'localhost'])
      await expect(openPostgresStore(`postgres://gribbet@${host}:9/none`, quiet)).rejects.toThrow(
        /^GRIBBET_STORE cannot be used: connect ECONNREFUSED/,
      );
  });

  it('whoever asks what came since misses nothing of what many write at once, and hears it over the other server', async () => {
    const url = newDatabase();
    const [one, other] = await Promise.all([inPostgres(url), inPostgres(url)]);
    const put: string[] = [];
    let over = false;
    const write = async (store: PostgresStore, who: number) => {
      for (let n = 0; n < 120; n++) {
        const changes: KeptChange[] = Array.from({ length: 1 + (n % 3) }, (_, index) => ({
          key: `rows/${who}-${n}-${index}`,
          value: 'x'.repeat((who * 97 + n) % 4000),
        }));
        await store.commit(changes);
        put.push(...changes.map((change) => change.key));
      }
    };
    const told: string[] = [];
    const read = async () => {
      for (let since = 0; ;) {
        const last = over;
        const piece = await other.changed(since, ['rows/'], 50);
        told.push(...piece.rows.map((row) => row.key));
        since = piece.rev;
        if (last && !piece.more) return;
      }
    };
    let woken = 0;
    other.watch(() => woken++);
    const reading = read();
    await Promise.all(Array.from({ length: 12 }, (_, who) => write(who % 2 ? one : other, who)));
    over = true;
    await reading;
    expect(told.toSorted()).toEqual(put.toSorted());
    expect(woken).toBeGreaterThan(0);
  });

  it('what one student needs is looked up, not looked for among all rows', async () => {
    const url = newDatabase();
    const store = await inPostgres(url);
    const rows = Array.from({ length: 4_000 }, (_, n) => ({
      key: `attempts/student${n}/sitting/a`,
      value: n,
    }));
    await store.commit(rows);
    const database = new URL(url).pathname.slice(1);
    cluster?.restore(database, 'vacuum analyze gribbet_rows');
    const read = (n: number) =>
      store.request(async () => {
        const prefix = `attempts/student${n}/`;
        await store.readAhead([`students/${n}`], [prefix, `allowances/student${n}/`]);
        expect(await store.list(prefix)).toMatchObject([{ value: n }]);
        expect(await store.get(`students/${n}`)).toBeUndefined();
        // Under a lock it is read anew.
        await store.locked('one', async () => expect(await store.list(prefix)).toHaveLength(1));
      });
    const scans = () =>
      Number(
        cluster?.sqlIn(
          database,
          "select seq_tup_read from pg_stat_user_tables where relname = 'gribbet_rows'",
        ),
      );
    const before = scans();
    // So often that the database settles on one way of answering.
    for (let n = 0; n < 60; n++) await read(n);
    await store.close();
    opened.splice(opened.indexOf(store), 1);
    expect(scans() - before).toBeLessThan(4_000);
  });

  it('a name is held by one at a time over both', async () => {
    const url = newDatabase();
    const both = await Promise.all([inPostgres(url), inPostgres(url)]);
    await Promise.all(
      Array.from({ length: 80 }, (_, n) =>
        both[n % 2]?.locked('count', async () => {
          const before = ((await both[n % 2]?.get('count')) as number | undefined) ?? 0;
          await both[n % 2]?.commit([{ key: 'count', value: before + 1 }]);
        }),
      ),
    );
    expect(await both[0].get('count')).toBe(80);
  });

  it('news that break off are made up for, and come back', async () => {
    const url = newDatabase();
    const store = await inPostgres(url);
    const writer = await inPostgres(url);
    const changed = () =>
      new Promise<void>((resolve) => {
        const stop = store.watch(() => {
          stop();
          resolve();
        });
      });
    cluster?.sql(
      "select pg_terminate_backend(pid) from pg_stat_activity where query like '%listen%' and pid <> pg_backend_pid()",
    );
    await changed();
    await expect
      .poll(
        async () => {
          const told = changed();
          await writer.commit([{ key: 'a', value: Math.random() }]);
          return Promise.race([
            told.then(() => true),
            new Promise((resolve) => setTimeout(resolve, 500, false)),
          ]);
        },
        { timeout: 15_000 },
      )
      .toBe(true);
  });

  it('a copy taken while it is used goes on in another cluster, where transactions are counted anew', async () => {
    const url = newDatabase();
    const store = await inPostgres(url);
    for (let n = 0; n < 300; n++) await store.commit([{ key: `rows/${n % 20}`, value: n }]);
    await store.putBytes('file', Uint8Array.of(1, 2, 3));
    const before = await store.rev();
    const copy = cluster?.dump(new URL(url).pathname.slice(1)) ?? '';
    const elsewhere = await newCluster();
    try {
      elsewhere.sql('create database again');
      elsewhere.restore('again', copy);
      expect(Number(elsewhere.sql('select pg_snapshot_xmax(pg_current_snapshot())'))).toBeLessThan(before);
      const again = await openPostgresStore(elsewhere.url.replace('/postgres', '/again'), quiet);
      expect(again.id).toBe(store.id);
      expect(await again.list('')).toEqual(await store.list(''));
      expect(await again.bytes('file')).toEqual(await store.bytes('file'));
      await again.commit([{ key: 'rows/new', value: 'since' }]);
      expect((await again.changed(before, ['rows/'], 10)).rows.map((row) => row.value)).toEqual(['since']);
      await again.close();
    } finally {
      await elsewhere.kill();
    }
  });
});

describe.skipIf(noPostgres)('moving a store', () => {
  it('there and back: the same rows, files, name; revisions go on; nothing is moved onto something', async () => {
    const [from, database, back] = [await inFolder(), await inPostgres(), await inFolder()];
    for (let n = 0; n < 40; n++)
      await from.commit([{ key: `a/${n}`, value: { n, text: 'é 𝄞', list: [null, 1.5] } }]);
    await from.putBytes(
      'file',
      Uint8Array.from({ length: 1_100_000 }, (_, index) => index % 7),
    );
    const rows = (store: ExchangeStore) =>
      store.list('').then((all) => new Map(all.map((row) => [row.key, row.value])));
    expect(await moveStore(from, database)).toEqual({ rows: 40, files: 1 });
    expect(await moveStore(database, back)).toEqual({ rows: 40, files: 1 });
    for (const store of [database, back]) {
      expect(await rows(store)).toEqual(await rows(from));
      expect(store.id).toBe(from.id);
      expect((await store.bytes('file'))?.length).toBe(1_100_000);
      // A desk that had heard of all is told of what comes from now on.
      const heard = await from.rev();
      await store.commit([{ key: 'b', value: 'new' }]);
      expect((await store.changed(heard, ['b'], 10)).rows.map((row) => row.value)).toEqual(['new']);
    }
    await expect(moveStore(from, database)).rejects.toThrow('not empty');
  });
});
