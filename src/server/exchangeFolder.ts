import { randomBytes } from 'node:crypto';
import { constants, existsSync, readFileSync, writeFileSync } from 'node:fs';
import { mkdir, open, readdir, readFile, rename, rm, type FileHandle } from 'node:fs/promises';
import { join } from 'node:path';
import jsonPatch from 'fast-json-patch';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import {
  StoreFull,
  type ExchangeStore,
  type KeptChange,
  type KeptRow,
  type RowChanges,
} from './exchangeStore';
import { leaveFolder, takeFolder } from './inUse';
import { lineText, replay, type Line } from './journal';
import { NamedLocks } from './namedLocks';

/** A journal that has grown beyond this is written anew as a snapshot. */
const mostJournalBytes = 32 * 1024 * 1024;

/** How bytes get into the journal; tests put a full disk in its place. */
export type Append = (file: FileHandle, bytes: Uint8Array, position: number) => Promise<void>;

export const append: Append = async (file, bytes, position) => {
  // A disk that is nearly full takes a part and says so; only the next part fails.
  for (let done = 0; done < bytes.length;)
    done += (await file.write(bytes, done, bytes.length - done, position + done)).bytesWritten;
  await file.datasync();
};

/**
 * The exchange in a folder: a snapshot, a journal of what was changed since, and a file for each file. A change is
 * appended to the journal and on disk before it holds; those that come at once share one writing. A line torn off by a
 * sudden end was acknowledged to nobody and is dropped when the folder is opened.
 *
 * @throws where another server has the folder, or it is damaged: with the file and line
 */
export async function openExchangeFolder(path: string, write: Append = append): Promise<ExchangeFolder> {
  await mkdir(join(path, 'files'), { recursive: true });
  takeFolder(path);
  const id = await boxId(path);
  const rows = new Map<string, KeptRow>();
  const names = await readdir(path);
  const numbered = (begin: string) =>
    names
      .map((name) => new RegExp(`^${begin}-(\\d+)\\.ndjson$`).exec(name)?.[1])
      .filter((found) => found !== undefined)
      .map(Number)
      .sort((a, b) => a - b);
  const snapshot = numbered('snapshot').at(-1);
  if (snapshot !== undefined) await replay(join(path, `snapshot-${snapshot}.ndjson`), rows, null);
  let rev = snapshot ?? 0;
  let journal = snapshot ?? 0;
  let bytes = 0;
  // An older journal too: where the new one could not be begun, writing went on in it.
  for (const from of numbered('journal')) {
    const read = await replay(join(path, `journal-${from}.ndjson`), rows, snapshot ?? 0);
    rev = Math.max(rev, read.rev);
    bytes = read.bytes;
    journal = from;
  }
  const file = await open(join(path, `journal-${journal}.ndjson`), constants.O_RDWR | constants.O_CREAT);
  await file.truncate(bytes);
  await syncFolder(path);
  return new ExchangeFolder(path, id, rows, rev, file, bytes, write);
}

export class ExchangeFolder implements ExchangeStore {
  private waiting: { changes: readonly KeptChange[]; kept: () => void; failed: (why: unknown) => void }[] =
    [];
  private writing: Promise<void> | null = null;
  private readonly locks = new NamedLocks();
  private readonly watchers = new Set<() => void>();
  private readonly hearers = new Set<(message: string) => void>();
  /** Rows by the first part of their key, and by the first two, which is how they are asked for. */
  private readonly shelves = new Map<string, Map<string, KeptRow>>();

  constructor(
    private readonly path: string,
    private isId: string,
    private readonly rows: Map<string, KeptRow>,
    private last: number,
    private journal: FileHandle,
    private bytesWritten: number,
    private readonly write: Append,
  ) {
    for (const row of rows.values()) this.hold(row.key, row);
  }

  get id(): string {
    return this.isId;
  }

  async get(key: string): Promise<unknown> {
    return this.rows.get(key)?.value;
  }

  async list(prefix: string): Promise<KeptRow[]> {
    const shelf = shelvesOf(prefix).at(-1);
    const among = shelf === undefined ? this.rows : this.shelves.get(shelf);
    return [...(among?.values() ?? [])].filter(({ key }) => key.startsWith(prefix));
  }

  /** All rows are in memory. */
  request<W>(work: () => Promise<W>): Promise<W> {
    return work();
  }

  async readAhead(): Promise<void> {
    // They are there.
  }

  async changed(since: number, prefixes: readonly string[], most: number): Promise<RowChanges> {
    const lists = await Promise.all(prefixes.map((prefix) => this.list(prefix)));
    const all = lists
      .flat()
      .filter((row) => row.rev > since)
      .sort((a, b) => a.rev - b.rev);
    const last = all[most - 1]?.rev;
    if (last === undefined) return { rows: all, rev: Math.max(since, this.last), more: false };
    return { rows: all.filter(({ rev }) => rev <= last), rev: last, more: true };
  }

  async rev(): Promise<number> {
    return this.last;
  }

  commit(changes: readonly KeptChange[]): Promise<void> {
    if (changes.length === 0) return Promise.resolve();
    // As it will be read again; and nobody can change it any more.
    const plain = JSON.parse(JSON.stringify(changes)) as KeptChange[];
    return new Promise((kept, failed) => {
      this.waiting.push({ changes: plain, kept, failed });
      this.writing ??= this.writeAll();
    });
  }

  /** Writes what waits, as often as something waits: all of it with one look at the disk. */
  private async writeAll(): Promise<void> {
    try {
      while (this.waiting.length > 0) {
        const batch = this.waiting;
        this.waiting = [];
        // Later changes of a batch are told against the earlier ones.
        const after = new Map<string, KeptRow | null>();
        let rev = this.last;
        const lines = batch.map(({ changes }) => {
          rev += 1;
          const line: Line = { rev, changes: changes.map((change) => this.told(change, after)) };
          for (const { key, value } of changes) after.set(key, value === null ? null : { key, value, rev });
          return lineText(line);
        });
        const bytes = Buffer.from(lines.join(''));
        try {
          await this.write(this.journal, bytes, this.bytesWritten);
        } catch (error) {
          // What was written of it in part must not stand before what comes next.
          await this.journal.truncate(this.bytesWritten).catch(() => undefined);
          const why = isFull(error) ? new StoreFull('No room is left on the disk') : error;
          for (const { failed } of batch) failed(why);
          continue;
        }
        this.bytesWritten += bytes.length;
        this.last = rev;
        for (const [key, row] of after) this.hold(key, row);
        for (const { kept } of batch) kept();
        for (const changed of this.watchers) changed();
        if (this.bytesWritten > mostJournalBytes) await this.compact().catch(() => undefined);
      }
    } finally {
      // At once, with no step between it and the last look at what waits: nothing that comes now is overlooked.
      this.writing = null;
    }
  }

  private hold(key: string, row: KeptRow | null): void {
    if (row) this.rows.set(key, row);
    else this.rows.delete(key);
    for (const name of shelvesOf(key)) {
      const shelf = this.shelves.get(name) ?? new Map<string, KeptRow>();
      if (row) shelf.set(key, row);
      else shelf.delete(key);
      if (shelf.size > 0) this.shelves.set(name, shelf);
      else this.shelves.delete(name);
    }
  }

  /** A change as it is written: as a patch where that is shorter. */
  private told({ key, value }: KeptChange, after: ReadonlyMap<string, KeptRow | null>): Line['changes'][0] {
    const before = (after.has(key) ? after.get(key) : this.rows.get(key))?.value;
    if (value === null || typeof before !== 'object' || before === null) return { key, value };
    return { key, patch: jsonPatch.compare(before, value as object) };
  }

  /** Writes all rows into a new snapshot, then begins a new journal; whenever it ends, one of the two is whole. */
  async compact(): Promise<void> {
    const name = (begin: string) => join(this.path, `${begin}-${this.last}.ndjson`);
    const whole = `${name('snapshot')}.part`;
    const file = await open(whole, 'w');
    try {
      const lines = [...this.rows.values()].map(({ key, value, rev }) =>
        lineText({ rev, changes: [{ key, value }] }),
      );
      await file.writeFile(lines.join(''));
      await file.datasync();
    } finally {
      await file.close();
    }
    await rename(whole, name('snapshot'));
    const journal = await open(name('journal'), constants.O_RDWR | constants.O_CREAT | constants.O_TRUNC);
    await syncFolder(this.path);
    await this.journal.close();
    this.journal = journal;
    this.bytesWritten = 0;
    for (const old of await readdir(this.path)) {
      const number = /^(?:snapshot|journal)-(\d+)\.ndjson$/.exec(old)?.[1];
      if (number !== undefined && Number(number) < this.last) await rm(join(this.path, old));
    }
  }

  locked<W>(name: string, work: () => Promise<W>): Promise<W> {
    return this.locks.locked(name, work);
  }

  watch(changed: () => void): () => void {
    this.watchers.add(changed);
    return () => this.watchers.delete(changed);
  }

  tell(message: string): void {
    for (const hearer of this.hearers) hearer(message);
  }

  hear(heard: (message: string) => void): () => void {
    this.hearers.add(heard);
    return () => this.hearers.delete(heard);
  }

  limiter(name: string, points: number, durationS: number): RateLimiterMemory {
    return new RateLimiterMemory({
      keyPrefix: name,
      ...{ points, duration: durationS, blockDuration: durationS },
    });
  }

  async putBytes(id: string, bytes: Uint8Array): Promise<void> {
    const path = this.filePath(id);
    if (existsSync(path)) return;
    const part = `${path}.${randomBytes(6).toString('hex')}.part`;
    try {
      const file = await open(part, 'w');
      try {
        await file.writeFile(bytes);
        await file.datasync();
      } finally {
        await file.close();
      }
      await rename(part, path);
      await syncFolder(join(this.path, 'files'));
    } catch (error) {
      await rm(part, { force: true }).catch(() => undefined);
      throw isFull(error) ? new StoreFull('No room is left on the disk') : error;
    }
  }

  async bytes(id: string): Promise<Uint8Array | null> {
    return existsSync(this.filePath(id)) ? readFile(this.filePath(id)) : null;
  }

  async dropBytes(id: string): Promise<void> {
    await rm(this.filePath(id), { force: true });
  }

  async files(): Promise<string[]> {
    return (await readdir(join(this.path, 'files'))).filter((name) => !name.endsWith('.part')).sort();
  }

  private filePath(id: string): string {
    if (!/^[\w-]{1,64}$/.test(id)) throw new Error('No id of a file');
    return join(this.path, 'files', id);
  }

  async become(id: string, rev: number): Promise<void> {
    writeBoxId(this.path, id);
    this.isId = id;
    this.last = rev;
    await this.compact();
  }

  /** Ends writing and gives the folder free. */
  async close(): Promise<void> {
    await this.writing;
    await this.journal.close();
    leaveFolder(this.path);
  }
}

/** `attempts/` and `attempts/student1/` of `attempts/student1/sitting1/attempt1`. */
const shelvesOf = (key: string) =>
  [/^[^/]*\//, /^[^/]*\/[^/]*\//].flatMap((begin) => begin.exec(key)?.[0] ?? []);

const isFull = (error: unknown) =>
  ['ENOSPC', 'EDQUOT', 'EFBIG'].includes((error as NodeJS.ErrnoException)?.code ?? '');

/** So that a new name in a folder is on disk as well. */
async function syncFolder(path: string): Promise<void> {
  const folder = await open(path, 'r');
  await folder.sync().finally(() => folder.close());
}

const writeBoxId = (path: string, box: string) =>
  writeFileSync(join(path, 'box.json'), JSON.stringify({ box, version: 1 }));

async function boxId(path: string): Promise<string> {
  const name = join(path, 'box.json');
  if (!existsSync(name)) {
    writeBoxId(path, randomBytes(9).toString('base64url'));
    await syncFolder(path);
  }
  const { box, version } = JSON.parse(readFileSync(name, 'utf8')) as { box: string; version: number };
  if (version !== 1) throw new Error(`${name}: made by a newer Gribbet (version ${version})`);
  return box;
}
