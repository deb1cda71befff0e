import { sumBy } from 'remeda';
import { ServerFault } from '@/core/exchange/serverFault';
import { customAlphabet } from 'nanoid';
import pLimit from 'p-limit';
import type { ServerConnection } from '@/sync/serverConnection';
import { bytesFrom } from '@/core/basics/base64';
import { version } from '@/core/basics/version';
import {
  DeskRows,
  checkedDesk,
  joinedRows,
  readArchive,
  writeBackup,
  type BackupRead,
  type DeskContent,
  type Progress,
} from '@/core/formats/backup';
import type { DeskCopy } from '@/core/model/deskCopy';
import {
  copiesToDrop,
  copyKey,
  copyName,
  copyNamed,
  filePartId,
  openedPart,
  sealedPart,
  textOfPart,
  textPart,
  type Part,
} from '@/core/formats/backup/copies';
import {
  DeskIndex,
  piecesOf,
  rowsByTable,
  rowsOfPieces,
  type Piece,
  type PieceRow,
} from '@/core/formats/backup/pieces';
import { keepSealKey, knownSealKey, type ServerPlace } from './copyPlaces';
import { deskIdKey, knownDeskId } from '../store/deskSettings';
import { copiesSince } from '../store/forget';
import { desk } from '../store/tables';

/** Copies of the whole desk, in a folder of this computer and sealed on the classroom server. */

const sixOf = customAlphabet('abcdefghijkmnpqrstuvwxyz23456789', 6);

/** What tells this desk's copies from those of another; drawn when it is asked for first. */
export async function deskId(): Promise<string> {
  const found = await knownDeskId();
  if (found !== null) return found;
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

/** What a copy on the server is sealed with. */
export type SealedWith = Pick<ServerPlace, 'secret' | 'salt'>;

/** What a copy that was sent is made of. */
export type SentCopy = Pick<NonNullable<ServerPlace['sent']>, 'index' | 'files'>;

interface ServerCopyOptions {
  /** The computer that makes it. */
  computer?: string;
  /** The copy that was sent last: what is the same lies there. */
  sent?: SentCopy | undefined;
  /** It is one of two desks that were both changed. */
  kept?: DeskCopy['kept'];
}

/**
 * Puts a copy onto the server, sealed: only the pieces that are not there yet.
 *
 * @returns what it is made of
 * @throws {ServerFault} `elsewhere`: another computer holds the desk
 */
export async function copyOntoServer(
  line: ServerConnection,
  { secret, salt }: SealedWith,
  content: DeskContent,
  id: string,
  now: string,
  { computer, sent, kept }: ServerCopyOptions = {},
): Promise<SentCopy> {
  const key = await keyOf(secret, salt);
  const { index, head, parts, files, size } = await partsOfCopy(key, content, now, sent?.index);
  const pieces = index.pieces.map(({ part }) => part);
  const lacking = sent?.files
    ? notAmong(parts.keys(), [...sent.index.pieces.map(({ part }) => part), ...sent.files])
    : await line.lackingParts([...new Set([head.id, ...pieces, ...files])]);
  const some = pLimit(atOnce);
  await Promise.all(
    lacking.map((each) =>
      some(async () => {
        const part = parts.get(each);
        if (!part) return;
        const sealed = await sealedPart(key, part);
        await steadily(() => line.putPart(each, sealed));
      }),
    ),
  );
  const since = await copiesSince();
  try {
    await line.putCopy({
      ...{ deskId: id, at: now, version: 2, salt, size, zip: [head.id, ...pieces], files },
      ...(computer !== undefined && { computer }),
      ...(kept && { kept }),
      ...(since !== null && { since }),
    });
  } catch (error) {
    // What was thought to lie there does not: all of it is made again.
    if (!sent || !(error instanceof ServerFault) || error.why !== 'notYet') throw error;
    return copyOntoServer(line, { secret, salt }, content, id, now, { ...(computer && { computer }), kept });
  }
  return { index, files };
}

const notAmong = (ids: Iterable<string>, known: readonly string[]): string[] => {
  const there = new Set(known);
  return [...ids].filter((id) => !there.has(id));
};

/**
 * What a copy is made of, by the ids under which it lies sealed. Pieces that the copy before had are not made again.
 *
 * @returns its index, the part that holds it, parts that may have to be sent, files; size in bytes
 */
async function partsOfCopy(key: Uint8Array, content: DeskContent, now: string, sent: DeskIndex | undefined) {
  const lie = new Map(sent?.pieces.map((piece) => [`${piece.key} ${piece.digest}`, piece.part]));
  const pieces: DeskIndex['pieces'] = [];
  const parts = new Map<string, Part>();
  let size = sumBy(content.rows.assets, (asset) => asset.size);
  for (const { key: name, text, digest } of await piecesOf(content.rows)) {
    size += text.length;
    let part = lie.get(`${name} ${digest}`);
    if (part === undefined) {
      const made = await textPart(key, text);
      parts.set(made.id, made);
      part = made.id;
    }
    pieces.push({ key: name, digest, part });
  }
  const index: DeskIndex = { savedAt: now, savedBy: version, pieces };
  const head = await textPart(key, JSON.stringify(index));
  parts.set(head.id, head);
  const files: string[] = [];
  for (const ref of content.rows.assets) {
    const part = { id: await filePartId(key, ref.id), bytes: () => content.bytes(ref.id) };
    parts.set(part.id, part);
    files.push(part.id);
  }
  return { index, head, parts, files, size };
}

/** A network that breaks for a moment does not end what takes long. */
async function steadily<T>(ask: () => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries += 1)
    try {
      return await ask();
    } catch (error) {
      if (!(error instanceof ServerFault) || error.why !== 'unreachable' || tries === mostTries) throw error;
      await new Promise((resolve) => setTimeout(resolve, tries * againMs));
    }
}
const mostTries = 3;
const againMs = 500;

/** So many parts are on their way at the same time. */
const atOnce = 6;

/** A desk that lies on the server, as it was fetched. */
export interface FetchedDesk {
  index: DeskIndex;
  /** The pieces that were not here. */
  texts: string[];
  /** The rows of those that are here. */
  known: PieceRow[];
}

/**
 * Fetches the desk that a copy is.
 *
 * @param known the pieces that are here, by key
 * @returns null where another secret sealed it, or it is damaged
 */
export async function fetchDesk(
  line: ServerConnection,
  secret: string,
  copy: DeskCopy,
  known: ReadonlyMap<string, Pick<Piece, 'rows' | 'digest'>> = new Map(),
  progress: Progress = () => undefined,
): Promise<FetchedDesk | null> {
  const key = await keyOf(secret, copy.salt);
  const opened = async (id: string) => {
    const packed = await openedPart(key, id, await steadily(() => line.part(id)));
    return packed && textOfPart(packed);
  };
  const [head = ''] = copy.zip;
  const said = await opened(head);
  if (said === null) return null;
  const index = DeskIndex.parse(JSON.parse(said));
  const isHere = (piece: DeskIndex['pieces'][number]) => known.get(piece.key)?.digest === piece.digest;
  const here = index.pieces.filter(isHere);
  const lacking = index.pieces.filter((piece) => !isHere(piece));
  const texts: string[] = [];
  const some = pLimit(atOnce);
  await Promise.all(
    lacking.map(({ part }) =>
      some(async () => {
        const text = await opened(part);
        if (text !== null) texts.push(text);
        progress(1 - (lacking.length - texts.length) / index.pieces.length);
      }),
    ),
  );
  if (texts.length < lacking.length) return null;
  return { index, texts, known: here.flatMap(({ key: name }) => known.get(name)?.rows ?? []) };
}

/** A desk that was fetched, checked; its files are asked for one by one. */
export async function checkedContent(
  line: ServerConnection,
  secret: string,
  copy: DeskCopy,
  { index, texts, known }: FetchedDesk,
): Promise<BackupRead> {
  const rows = rowsOfPieces(texts);
  const before = rowsByTable(known) as unknown as DeskRows; // as they are on this desk
  const checked = checkedDesk({ savedAt: index.savedAt, tables: rows }, DeskRows, false, before);
  if ('fault' in checked) return checked;
  const key = await keyOf(secret, copy.salt);
  return {
    backup: {
      savedAt: checked.savedAt,
      // As they are, so that the pieces stay the same; what another version wrote as this one reads it.
      rows: index.savedBy === version ? joinedRows(before, rows as unknown as DeskRows) : checked.tables,
      bytes: async (fileId) => (await openedFile(line, key, fileId)) ?? new Uint8Array(),
    },
  };
}

const openedFile = async (line: ServerConnection, key: Uint8Array, fileId: string) => {
  const id = await filePartId(key, fileId);
  return openedPart(key, id, await steadily(() => line.part(id)));
};

/** A copy that lies on the server. */
export async function readServerCopy(
  line: ServerConnection,
  secret: string,
  copy: DeskCopy,
  progress?: Progress,
): Promise<BackupRead> {
  if (copy.version === 1) return readZipCopy(line, secret, copy, progress);
  const fetched = await fetchDesk(line, secret, copy, new Map(), progress);
  return fetched ? checkedContent(line, secret, copy, fetched) : { fault: { code: 'sealed' } };
}

/** As versions before made them. */
async function readZipCopy(
  line: ServerConnection,
  secret: string,
  copy: DeskCopy,
  progress?: Progress,
): Promise<BackupRead> {
  const key = await keyOf(secret, copy.salt);
  const pieces: Uint8Array<ArrayBuffer>[] = [];
  for (const id of copy.zip) {
    const piece = await openedPart(key, id, await line.part(id));
    if (!piece) return { fault: { code: 'sealed' } };
    pieces.push(Uint8Array.from(piece));
  }
  // A file that does not open is not what was saved: nothing is put in place then.
  return readArchive(
    new Blob(pieces),
    progress,
    async (fileId) => (await openedFile(line, key, fileId)) ?? new Uint8Array(),
  );
}

/** Draws the key beforehand: it takes long. */
export async function drawKey(secret: string, salt: string): Promise<void> {
  await keyOf(secret, salt);
}

let lastKey: { of: string; key: Promise<Uint8Array> } | null = null;

/** It takes long to draw, and is drawn once: here, or as another page of this browser has drawn it. */
function keyOf(secret: string, salt: string): Promise<Uint8Array> {
  const of = `${salt} ${secret}`;
  if (lastKey?.of !== of) lastKey = { of, key: drawnKey(secret, salt) };
  return lastKey.key;
}

async function drawnKey(secret: string, salt: string): Promise<Uint8Array> {
  const known = await knownSealKey({ secret, salt });
  if (known) return known;
  const key = await copyKey(secret, bytesFrom(salt));
  await keepSealKey({ secret, salt }, key);
  return key;
}
