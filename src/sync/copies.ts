import { customAlphabet } from 'nanoid';
import type { ServerConnection } from '@/sync/serverConnection';
import { bytesFrom } from '@/core/basics/base64';
import {
  readArchive,
  writeBackup,
  type BackupRead,
  type DeskContent,
  type Progress,
} from '@/core/formats/backup';
import {
  copiesToDrop,
  copyKey,
  copyName,
  copyNamed,
  filePartId,
  openedPart,
  sealedPart,
  zipParts,
  type DeskCopy,
  type Part,
} from '@/core/formats/backup/copies';
import type { ServerPlace } from './copyPlaces';
import { copiesSince } from '../store/forget';
import { desk } from '../store/tables';

/** Copies of the whole desk, in a folder of this computer and sealed on the classroom server. */

const deskIdKey = 'deskId';
const sixOf = customAlphabet('abcdefghijkmnpqrstuvwxyz23456789', 6);

/** What tells this desk's copies from those of another; drawn when it is asked for first. */
export async function deskId(): Promise<string> {
  const found = await desk.settings.get(deskIdKey);
  if (typeof found?.value === 'string') return found.value;
  const value = sixOf();
  await desk.settings.put({ key: deskIdKey, value });
  return value;
}

/** Puts a copy into a folder, and takes the ones away that need not be kept any longer. */
export async function copyIntoFolder(
  folder: FileSystemDirectoryHandle,
  content: DeskContent,
  id: string,
  now: string,
): Promise<void> {
  const name = copyName(id, now);
  const file = await folder.getFileHandle(name, { create: true });
  try {
    // What is written holds once it is closed; until then there is an empty file.
    await writeBackup(content, now, await file.createWritable());
  } catch (error) {
    await folder.removeEntry(name).catch(() => undefined);
    throw error;
  }
  const mine = (await copiesInFolder(folder)).filter((copy) => copy.deskId === id);
  const gone = new Set(
    copiesToDrop(
      mine.map(({ at }) => at),
      now,
      await copiesSince(),
    ),
  );
  for (const { at, name: old } of mine) if (gone.has(at)) await folder.removeEntry(old);
}

export interface FolderCopy {
  name: string;
  deskId: string;
  at: string;
}

/** The copies in a folder, the newest first. */
export async function copiesInFolder(folder: FileSystemDirectoryHandle): Promise<FolderCopy[]> {
  const found: FolderCopy[] = [];
  for await (const [name, handle] of folder.entries()) {
    const told = copyNamed(name);
    if (!told || handle.kind !== 'file') continue;
    // One that was begun and never closed is empty.
    if ((await (handle as FileSystemFileHandle).getFile()).size > 0) found.push({ name, ...told });
  }
  return found.sort((a, b) => b.at.localeCompare(a.at));
}

/** Puts a copy onto the server, sealed. Parts that lie there already are not sent again. */
export async function copyOntoServer(
  line: ServerConnection,
  place: Pick<ServerPlace, 'secret' | 'salt'>,
  content: DeskContent,
  id: string,
  now: string,
): Promise<void> {
  const key = await keyOf(place.secret, place.salt);
  const zip = await zipWithoutFiles(content, now);
  const ofZip = await zipParts(key, zip);
  const ofFiles: Part[] = [];
  for (const ref of content.rows.assets)
    ofFiles.push({ id: await filePartId(key, ref.id), bytes: () => content.bytes(ref.id) });
  const all = new Map([...ofZip, ...ofFiles].map((part) => [part.id, part]));
  for (const lacking of await line.lackingParts([...all.keys()])) {
    const part = all.get(lacking);
    if (part) await line.putPart(lacking, await sealedPart(key, part));
  }
  const since = await copiesSince();
  const copy: DeskCopy = {
    deskId: id,
    at: now,
    version: 1,
    salt: place.salt,
    ...(since !== null && { since }),
    size: zip.length + content.rows.assets.reduce((sum, { size }) => sum + size, 0),
    zip: ofZip.map((part) => part.id),
    files: ofFiles.map((part) => part.id),
  };
  await line.putCopy(copy);
}

async function zipWithoutFiles(content: DeskContent, now: string): Promise<Uint8Array> {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const bytes = new Response(readable).arrayBuffer();
  await writeBackup(content, now, writable, { withBytes: false });
  return new Uint8Array(await bytes);
}

/** A copy that lies on the server. */
export async function readServerCopy(
  line: ServerConnection,
  secret: string,
  copy: DeskCopy,
  progress?: Progress,
): Promise<BackupRead> {
  const key = await keyOf(secret, copy.salt);
  const opened = async (id: string) => openedPart(key, id, await line.part(id));
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  for (const id of copy.zip) {
    const piece = await opened(id);
    if (!piece) return { fault: { code: 'sealed' } };
    pieces.push(Uint8Array.from(piece));
  }
  // A file that does not open is not what was saved: nothing is put in place then.
  return readArchive(
    new Blob(pieces),
    progress,
    async (fileId) => (await opened(await filePartId(key, fileId))) ?? new Uint8Array(),
  );
}

let lastKey: { of: string; key: Promise<Uint8Array> } | null = null;

/** It takes long to draw, and is drawn once. */
function keyOf(secret: string, salt: string): Promise<Uint8Array> {
  const of = `${salt} ${secret}`;
  if (lastKey?.of !== of) lastKey = { of, key: copyKey(secret, bytesFrom(salt)) };
  return lastKey.key;
}
