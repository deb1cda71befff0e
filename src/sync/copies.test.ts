import 'fake-indexeddb/auto';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { smallDemo } from '../../tests/unit/smallDemo';
import { serverConnection, type ServerConnection } from '@/sync/serverConnection';
import type { Fetch } from '@/carriers/ask';
import { readBackup } from '@/core/formats/backup';
import { openExchangeFolder, type ExchangeFolder } from '@/server/exchangeFolder';
import type { ServerSettings } from '@/server/settings';
import { exchangeServer } from '@/server/exchangeServer';
import { deskContent, emptyTables, putInPlace, replaceDesk } from '../store/backup';
import { forgetStudent } from '../store/forget';
import { copiesInFolder, copyIntoFolder, copyOntoServer, deskId, readServerCopy } from './copies';
import { base64From } from '@/core/basics/base64';
import {
  beginCopy,
  breakOffCopy,
  copyPlaces,
  endCopy,
  forgetSecret,
  keepSealKey,
  knownSealKey,
  noteChange,
  notCopiedSince,
  serverPlace,
  takeUpCopies,
} from './copyPlaces';
import { desk } from '../store/tables';

const start = Date.parse('2026-11-26T12:00:00.000Z');
const iso = (minutes: number) => new Date(start + minutes * 60_000).toISOString();

beforeEach(() => replaceDesk(smallDemo(start)));

/** A folder as browsers give one (File System Standard), in memory. */
class Folder {
  readonly files = new Map<string, Blob>();
  full = false;

  async getFileHandle(name: string) {
    if (!this.files.has(name)) this.files.set(name, new Blob());
    const chunks: Uint8Array<ArrayBuffer>[] = [];
    return {
      createWritable: async () =>
        new WritableStream<Uint8Array>({
          write: (chunk) => {
            if (this.full) throw Object.assign(new Error('full'), { name: 'QuotaExceededError' });
            chunks.push(Uint8Array.from(chunk));
          },
          close: () => void this.files.set(name, new Blob(chunks)),
        }),
    };
  }
  async removeEntry(name: string) {
    this.files.delete(name);
  }
  async *entries() {
    for (const [name, blob] of this.files) yield [name, { kind: 'file', getFile: async () => blob }];
  }
}
const asHandle = (folder: Folder) => folder as unknown as FileSystemDirectoryHandle; // as much of one as is used

describe('copies in a folder', () => {
  it('a copy is a backup that can be put back, named by its desk and time', async () => {
    const folder = new Folder();
    const content = await deskContent();
    await copyIntoFolder(asHandle(folder), content, 'abc234', iso(0));
    const [copy] = await copiesInFolder(asHandle(folder));
    expect(copy).toEqual({
      name: 'gribbet-desk-abc234-2026-11-26T120000Z.zip',
      deskId: 'abc234',
      at: iso(0),
    });
    const read = await readBackup(folder.files.get(copy?.name ?? '') ?? new Blob());
    if (!('backup' in read)) throw new Error(JSON.stringify(read));
    await replaceDesk(emptyTables);
    await putInPlace(read.backup);
    expect((await deskContent()).rows).toEqual(content.rows);
  });

  it('older ones go, another desk’s and other files stay', async () => {
    const folder = new Folder();
    await replaceDesk(emptyTables);
    const content = await deskContent();
    folder.files.set('holiday.zip', new Blob(['x']));
    await copyIntoFolder(asHandle(folder), content, 'zzz999', iso(-10_000));
    for (let minutes = 0; minutes < 60; minutes += 2)
      await copyIntoFolder(asHandle(folder), content, 'abc234', iso(minutes));
    const mine = (await copiesInFolder(asHandle(folder))).filter((copy) => copy.deskId === 'abc234');
    expect(mine.map(({ at }) => at)).toEqual([iso(58), iso(56), iso(54), iso(52)]);
    expect(folder.files.has('holiday.zip')).toBe(true);
    expect(folder.files.size).toBe(6);
  });

  it('one that could not be written leaves nothing that looks like a copy', async () => {
    const folder = new Folder();
    const content = await deskContent();
    await copyIntoFolder(asHandle(folder), content, 'abc234', iso(0));
    folder.full = true;
    await expect(copyIntoFolder(asHandle(folder), content, 'abc234', iso(2))).rejects.toThrow('full');
    expect((await copiesInFolder(asHandle(folder))).map(({ at }) => at)).toEqual([iso(0)]);
    expect(folder.files.size).toBe(1);
  });
});

it('what a copy is of is in none before it has ended, whenever its page is left', async () => {
  const place = { lastAt: iso(0), changedSince: iso(5), fault: null, secret: 'tide tables', salt: '' };
  await copyPlaces.places.put({ key: 'server', ...place });
  const since = async () => {
    const now = await serverPlace();
    return now && { since: notCopiedSince(now), changedSince: now.changedSince };
  };
  await beginCopy('server', iso(6));
  expect(await since()).toEqual({ since: iso(5), changedSince: null });
  // The page was left: another one begins.
  await takeUpCopies();
  expect(await since()).toEqual({ since: iso(5), changedSince: iso(5) });
  await beginCopy('server', iso(7));
  await breakOffCopy('server', iso(7), 'unreachable');
  expect(await since()).toEqual({ since: iso(5), changedSince: iso(5) });
  await beginCopy('server', iso(8));
  await noteChange();
  await endCopy('server', iso(8), 'abc234');
  const noted = (await serverPlace())?.changedSince ?? null;
  expect(noted).not.toBeNull();
  expect(await since()).toEqual({ since: noted, changedSince: noted });
  await beginCopy('server', iso(9));
  await endCopy('server', iso(9), 'abc234');
  await takeUpCopies();
  expect(await since()).toEqual({ since: null, changedSince: null });
  await copyPlaces.places.clear();
});

describe('copies on the server', () => {
  const secret = 'ABCDEFGH23456789';
  let path: string;
  let folder: ExchangeFolder;
  let line: ServerConnection;
  let sent: string[];
  const place = { secret, salt: 'AAECAwQFBgcICQoLDA0ODw==' };

  beforeEach(async () => {
    path = mkdtempSync(join(tmpdir(), 'gribbet-copies-'));
    await opened(path);
  });
  afterEach(() => folder.close());

  /** A server with this folder, and the desk paired with it. */
  async function opened(inFolder: string): Promise<void> {
    folder = await openExchangeFolder(inFolder);
    const settings: ServerSettings = {
      folder: '',
      secret,
      fresh: false,
      origin: null,
      port: 4321,
      log: 'plain',
    };
    const server = exchangeServer(folder, settings, () => undefined);
    sent = [];
    let cookie = '';
    const asked: Fetch = async (address, { method = 'GET', body, headers }) => {
      if (method === 'PUT') sent.push(address);
      const request = new Request(`http://mailbox${address}`, {
        method,
        headers: {
          ...(headers as Record<string, string>),
          host: 'mailbox',
          origin: 'http://mailbox',
          cookie,
        },
        body: (body ?? null) as string | null,
      });
      const response = await server.answer(request, '10.0.0.1', start);
      cookie = response.headers.get('set-cookie')?.split(';')[0] ?? cookie;
      return response;
    };
    line = serverConnection(asked);
    await line.pair(secret);
  }

  it('come back equal, files and all; another secret does not open them', async () => {
    const content = await deskContent();
    await copyOntoServer(line, place, content, await deskId(), iso(0));
    const [copy] = await line.copies();
    if (!copy) throw new Error('none');
    const read = await readServerCopy(line, secret, copy);
    if (!('backup' in read)) throw new Error(JSON.stringify(read));
    await replaceDesk(emptyTables);
    await putInPlace(read.backup);
    expect((await deskContent()).rows).toEqual(content.rows);
    for (const { id, size } of content.rows.assets)
      expect((await desk.assets.get(id))?.bytes.length).toBe(size);
    expect(await readServerCopy(line, 'WRONGSECRET12345', copy)).toEqual({ fault: { code: 'sealed' } });
  });

  it('the key of the seal is drawn once in a browser, and goes with the secret', async () => {
    const salt = base64From(new Uint8Array(16).fill(7));
    const place = { key: 'server', lastAt: null, changedSince: null, fault: null } as const;
    // Of a secret that isn't kept here nothing is kept.
    await keepSealKey({ secret: 'tide tables of 2026', salt }, Uint8Array.of(1));
    expect(await copyPlaces.seals.count()).toBe(0);
    await copyPlaces.places.put({ ...place, secret: 'tide tables of 2026', salt });
    await keepSealKey({ secret: 'tide tables of 2026', salt }, Uint8Array.of(1));
    expect(await knownSealKey({ secret: 'tide tables of 2026', salt })).toEqual(Uint8Array.of(1));
    expect(await knownSealKey({ secret: 'tide tables of 2027', salt })).toBeNull();
    expect(await knownSealKey({ secret: 'tide tables of 2026', salt: '' })).toBeNull();
    await forgetSecret();
    expect(await copyPlaces.seals.count()).toBe(0);
    expect((await serverPlace())?.secret).toBe('');
    await copyPlaces.places.clear();
  });

  it('nothing of the desk can be read in the server’s folder', async () => {
    const content = await deskContent();
    await copyOntoServer(line, place, content, await deskId(), iso(0));
    const [student] = content.rows.students;
    const files = readdirSync(path, { recursive: true, withFileTypes: true }).filter((each) => each.isFile());
    const all = files.map((each) => readFileSync(join(each.parentPath, each.name), 'latin1')).join('');
    expect(all.length).toBeGreaterThan(10_000);
    for (const words of [
      student?.familyName,
      student?.joinCode,
      content.rows.papers[0]?.title,
      'PK\u0003\u0004',
    ])
      expect(all).not.toContain(words);
    for (const { id } of content.rows.assets) expect(all).not.toContain(id);
  });

  it('once somebody is forgotten, those of before go with the next one, in a folder too', async () => {
    const [id, handFolder] = [await deskId(), new Folder()];
    for (const minutes of [0, 1]) {
      await copyOntoServer(line, place, await deskContent(), id, iso(minutes));
      await copyIntoFolder(asHandle(handFolder), await deskContent(), id, iso(minutes));
    }
    const [student] = await desk.students.toArray();
    await forgetStudent(student?.id ?? '', iso(2));
    await copyOntoServer(line, place, await deskContent(), id, iso(3));
    await copyIntoFolder(asHandle(handFolder), await deskContent(), id, iso(3));
    expect((await line.copies()).map(({ at }) => at)).toEqual([iso(3)]);
    expect((await copiesInFolder(asHandle(handFolder))).map(({ at }) => at)).toEqual([iso(3)]);
    const [copy] = await line.copies();
    if (!copy) throw new Error('none');
    const read = await readServerCopy(line, secret, copy);
    if (!('backup' in read)) throw new Error(JSON.stringify(read));
    expect(JSON.stringify(read.backup)).not.toContain(student?.joinCode);
  });

  it('what lies there already is not sent again, and what no copy needs goes', async () => {
    const id = await deskId();
    await copyOntoServer(line, place, await deskContent(), id, iso(0));
    const files = (await deskContent()).rows.assets.length;
    expect(files).toBeGreaterThan(0);
    sent = [];
    await copyOntoServer(line, place, await deskContent(), id, iso(1));
    // The index tells its own time; pieces and files are the same.
    expect(sent.filter((address) => address.includes('/parts/'))).toHaveLength(1);
    const [student] = await desk.students.toArray();
    await desk.students.update(student?.id ?? '', { givenName: 'Changed' });
    sent = [];
    await copyOntoServer(line, place, await deskContent(), id, iso(1.5));
    expect(sent.filter((address) => address.includes('/parts/'))).toHaveLength(2);
    for (let minutes = 2; minutes < 12; minutes++)
      await copyOntoServer(line, place, await deskContent(), id, iso(minutes));
    const copies = await line.copies();
    expect(copies.map(({ at }) => at)).toEqual([iso(11), iso(10), iso(9), iso(8)]);
    const needed = new Set(copies.flatMap(({ zip, files: own }) => [...zip, ...own]));
    expect(needed.size).toBe(copies.length + (copies[0]?.zip.length ?? 0) - 1 + files);
    expect(readdirSync(join(path, 'files'))).toHaveLength(needed.size);
  });

  it('after a copy that is known only what changed goes to the server, and nothing is asked', async () => {
    const id = await deskId();
    const first = await copyOntoServer(line, place, await deskContent(), id, iso(0));
    const lackingParts = vi.fn(line.lackingParts);
    const watched = { ...line, lackingParts };
    sent = [];
    await copyOntoServer(watched, place, await deskContent(), id, iso(1), { sent: first });
    // The index and the copy itself.
    expect(sent).toHaveLength(2);
    expect(lackingParts).not.toHaveBeenCalled();
    // The server was set up anew meanwhile: nothing of it is there.
    const emptied = mkdtempSync(join(tmpdir(), 'gribbet-copies-'));
    await folder.close();
    await opened(emptied);
    await copyOntoServer(line, place, await deskContent(), id, iso(2), { sent: first });
    const [copy] = await line.copies();
    if (!copy) throw new Error('none');
    expect(copy.at).toBe(iso(2));
    expect('backup' in (await readServerCopy(line, secret, copy))).toBe(true);
  });

  it('a copy whose parts are not there is not taken for one', async () => {
    const copy = { deskId: 'abc234', at: iso(0), version: 1 as const, salt: place.salt, size: 1, files: [] };
    await expect(line.putCopy({ ...copy, zip: ['x'.repeat(43)] })).rejects.toMatchObject({ why: 'notYet' });
    expect(await line.copies()).toEqual([]);
  });

  it('another browser than a paired desk gets none', async () => {
    await copyOntoServer(line, place, await deskContent(), await deskId(), iso(0));
    await line.unpair();
    await expect(line.copies()).rejects.toMatchObject({ why: 'notPaired' });
  });
});
