import { sumBy } from 'remeda';
import { version } from '../../basics/version';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import {
  BlobReader,
  configure,
  Uint8ArrayWriter,
  ZipReader,
  ZipWriter,
  type FileEntry,
} from '@zip.js/zip.js';
import { z } from 'zod';
import { deskTableNames } from '../../model/desk';
import { checkedDesk, DeskRows, isFile, type BackupFault, type BackupRead, type DeskContent } from './desk';
import { backupFormat, versionOf } from './older';
import { archiveVersion } from './version';

/**
 * A desk as a zip (APPNOTE.TXT of the zip format): `desk.json` says what it is, `tables/` has a file for each table with
 * a row of JSON a line, `bytes/` each picture and file as it is under its id, and `digests.json` the SHA-256 (FIPS 180-4)
 * of the tables. Written and read as a stream: what is in memory at once are the rows, and one file. See docs/formats.md.
 */

// It is in a worker already.
configure({ useWebWorkers: false });

/** The most that the tables of a file unpack to: a small file can't grow to fill the memory. */
const mostTableBytes = 1024 ** 3;
const mostHeadBytes = 64 * 1024;
const mostTitle = 200;
/** Rows are written so many bytes at a time. */
const chunkBytes = 64 * 1024;

const headPath = 'desk.json';
const digestsPath = 'digests.json';
const tablePath = (table: string) => `tables/${table}.jsonl`;
const bytesPath = (id: string) => `bytes/${id}`;

/** Told how far it is, from 0 to 1. */
export type Progress = (share: number) => void;

/**
 * Writes a desk.
 *
 * @param withBytes false where its files are kept apart
 * @param part what it is called where it is a part of a desk
 */
export async function writeArchive(
  { rows, bytes }: DeskContent,
  savedAt: string,
  to: WritableStream<Uint8Array>,
  {
    withBytes = true,
    progress = () => undefined,
    part,
  }: { withBytes?: boolean; progress?: Progress; part?: string } = {},
): Promise<void> {
  const zip = new ZipWriter(to, { level: 6 });
  const digests: Record<string, string> = {};
  const files = withBytes ? rows.assets : [];
  const all = sumBy(deskTableNames, (table) => rows[table].length) + files.length * fileWeight;
  let done = 0;
  const passed = (weight: number) => progress(all === 0 ? 1 : (done += weight) / all);
  const add = async (path: string, each: ReadableStream<Uint8Array>, digest: Digest) => {
    await zip.add(path, each);
    digests[path] = bytesToHex(digest.digest());
  };
  const head = {
    ...{ format: backupFormat, version: archiveVersion, savedAt, savedBy: `Gribbet ${version}` },
    ...(part !== undefined && { part }),
  };
  const headDigest = sha256.create();
  await add(headPath, linesOf([head], headDigest), headDigest);
  for (const table of deskTableNames) {
    const digest = sha256.create();
    await add(tablePath(table), linesOf(rows[table], digest, passed), digest);
  }
  for (const { id } of files) {
    const content = await bytes(id);
    // Pictures are packed already.
    await zip.add(bytesPath(id), streamOf(content), { level: 0 });
    passed(fileWeight);
  }
  await zip.add(digestsPath, linesOf([{ sha256: digests }], sha256.create()));
  await zip.close();
}

/** A file takes about as long as so many rows. */
const fileWeight = 20;

type Digest = ReturnType<typeof sha256.create>;

const streamOf = (bytes: Uint8Array) =>
  new ReadableStream<Uint8Array>({
    start: (controller) => {
      controller.enqueue(bytes);
      controller.close();
    },
  });

/** Rows as lines of JSON, and their digest. */
function linesOf(rows: readonly unknown[], digest: Digest, passed: (rows: number) => void = () => undefined) {
  let next = 0;
  return new ReadableStream<Uint8Array>({
    pull: (controller) => {
      const from = next;
      let text = '';
      while (next < rows.length && text.length < chunkBytes) text += `${JSON.stringify(rows[next++])}\n`;
      if (text === '') return controller.close();
      const chunk = new TextEncoder().encode(text);
      digest.update(chunk);
      controller.enqueue(chunk);
      passed(next - from);
    },
  });
}

/** Thrown within a reading, and told as its outcome. */
class Faulty extends Error {
  constructor(readonly fault: BackupFault) {
    super(fault.code);
  }
}

/**
 * Reads a desk. Either all of it is good, every file of it too, or the fault says where it is not.
 *
 * @param elsewhere gives the files that are kept apart; they are checked when they are asked for
 */
export async function readArchive(
  file: Blob,
  progress: Progress = () => undefined,
  elsewhere?: (id: string) => Promise<Uint8Array>,
): Promise<BackupRead> {
  try {
    return await readWhole(file, progress, elsewhere);
  } catch (error) {
    if (error instanceof Faulty) return { fault: error.fault };
    // The package says in words of its own what is wrong with a zip.
    return { fault: { code: 'torn', detail: error instanceof Error ? error.message : '' } };
  }
}

async function readWhole(
  file: Blob,
  progress: Progress,
  elsewhere?: (id: string) => Promise<Uint8Array>,
): Promise<BackupRead> {
  const entries = await entriesOf(file);
  const headEntry = entries.get(headPath);
  if (!headEntry) return { fault: { code: 'foreign' } };
  const version = versionOf(await smallJson(headEntry), archiveVersion);
  if ('fault' in version) return version;
  const tableEntries = deskTableNames.flatMap((table) => {
    const path = tablePath(table);
    const entry = entries.get(path);
    return entry ? [{ table, path, entry }] : [];
  });
  const lined: LinedEntry[] = [{ path: headPath, entry: headEntry }, ...tableEntries];
  const digests = await digestsOf(entries.get(digestsPath), new Set(lined.map(({ path }) => path)));

  const ofTables = sumBy(tableEntries, ({ entry }) => entry.uncompressedSize);
  if (ofTables > mostTableBytes) throw new Faulty({ code: 'tooLarge', path: 'tables', most: mostTableBytes });
  const files = [...entries.values()].filter(({ filename }) => filename.startsWith('bytes/'));
  const all = ofTables + sumBy(files, ({ uncompressedSize }) => uncompressedSize);
  let done = 0;
  const passed = (bytes: number) => progress(all === 0 ? 1 : Math.min(1, (done += bytes) / all));

  const rows = await rowsIn(lined, digests, passed);
  const [head] = rows.get(headPath) ?? [];
  const { savedAt, part } = head as { savedAt?: unknown; part?: unknown };
  const raw = {
    savedAt,
    tables: Object.fromEntries(tableEntries.map(({ table, path }) => [table, rows.get(path)])),
  };
  const checked = checkedDesk(raw, DeskRows, false);
  if ('fault' in checked) return checked;

  const bytes = bytesIn(entries, checked.tables.assets, elsewhere);
  if (!elsewhere)
    for (const { id, size } of checked.tables.assets) {
      await bytes(id);
      passed(size);
    }
  progress(1);
  const named = typeof part === 'string' ? { part: part.slice(0, mostTitle) } : {};
  return { backup: { savedAt: checked.savedAt, ...named, rows: checked.tables, bytes } };
}

/** A file of rows, one a line. */
interface LinedEntry {
  path: string;
  entry: FileEntry;
}

/** What is said of a file that is not as it was saved. */
const changed = () => new Faulty({ code: 'changed' });

/** What the zip holds, by its path; nothing twice. */
async function entriesOf(file: Blob): Promise<Map<string, FileEntry>> {
  const entries = new Map<string, FileEntry>();
  for (const entry of await new ZipReader(new BlobReader(file)).getEntries()) {
    if (entry.directory || entries.has(entry.filename)) throw changed();
    entries.set(entry.filename, entry);
  }
  return entries;
}

/** The digests of the files of rows. What is named is there, and what is there is named. */
async function digestsOf(
  entry: FileEntry | undefined,
  there: ReadonlySet<string>,
): Promise<Record<string, string>> {
  const read = z
    .object({ sha256: z.record(z.string(), z.string()) })
    .safeParse(entry && (await smallJson(entry)));
  if (!read.success) throw changed();
  const named = Object.keys(read.data.sha256);
  if (named.length !== there.size || !named.every((path) => there.has(path))) throw changed();
  return read.data.sha256;
}

/** The rows of each file. One that is as it was saved but holds a line that can't be read is named, once all are known to be whole. */
async function rowsIn(
  lined: readonly LinedEntry[],
  digests: Record<string, string>,
  passed: (bytes: number) => void,
): Promise<Map<string, unknown[]>> {
  const rows = new Map<string, unknown[]>();
  let unreadable: BackupFault | null = null;
  for (const { path, entry } of lined) {
    const read = await readLines(entry, passed);
    if (read.digest !== digests[path]) throw changed();
    if (read.badLine !== null)
      unreadable ??= { code: 'damaged', path: `${path}, line ${read.badLine}`, expected: 'JSON', more: 0 };
    rows.set(path, read.rows);
  }
  if (unreadable) throw new Faulty(unreadable);
  return rows;
}

/** Reads the bytes of a picture or file, which are what its row says of them. */
const bytesIn =
  (
    entries: ReadonlyMap<string, FileEntry>,
    assets: DeskRows['assets'],
    elsewhere?: (id: string) => Promise<Uint8Array>,
  ) =>
  async (id: string): Promise<Uint8Array> => {
    const entry = entries.get(bytesPath(id));
    const ref = assets.find((asset) => asset.id === id);
    if (!ref) throw changed();
    if (!entry && elsewhere) return elsewhere(id);
    if (entry?.uncompressedSize !== ref.size) throw changed();
    const content = await entry.getData(new Uint8ArrayWriter(), { checkSignature: true });
    if (!(await isFile(ref, content))) throw changed();
    return content;
  };

async function smallJson(entry: FileEntry): Promise<unknown> {
  if (entry.uncompressedSize > mostHeadBytes)
    throw new Faulty({ code: 'tooLarge', path: entry.filename, most: mostHeadBytes });
  const text = new TextDecoder().decode(await entry.getData(new Uint8ArrayWriter()));
  try {
    return JSON.parse(text);
  } catch {
    throw changed();
  }
}

/** The rows of a table, line by line, with the digest of its bytes and the first line that is none. */
async function readLines(entry: FileEntry, passed: (bytes: number) => void) {
  const digest = sha256.create();
  const decoder = new TextDecoder();
  const rows: unknown[] = [];
  let badLine: number | null = null;
  let rest = '';
  const line = (text: string) => {
    try {
      rows.push(JSON.parse(text));
    } catch {
      badLine ??= rows.length + 1;
    }
  };
  let size = 0;
  const lines = new WritableStream<Uint8Array>({
    write: (chunk) => {
      size += chunk.length;
      // It unpacks to more than it says.
      if (size > entry.uncompressedSize) throw changed();
      digest.update(chunk);
      const parts = (rest + decoder.decode(chunk, { stream: true })).split('\n');
      rest = parts.pop() ?? '';
      parts.forEach(line);
      passed(chunk.length);
    },
  });
  await entry.getData(lines);
  rest += decoder.decode();
  if (rest !== '') line(rest);
  return { rows, badLine, digest: bytesToHex(digest.digest()) };
}
