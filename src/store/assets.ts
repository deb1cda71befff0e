import { z } from 'zod';
import type { Asset } from '@/core/basics/asset';
import { assetId } from '@/core/basics/assetBytes';
import type { FileRef } from '@/core/basics/file';
import { assetsIn } from '@/core/basics/fileRules';
import { desk, type DeskDatabase } from './tables';

/**
 * Keeps the bytes of a picture or file under the id that is drawn from them; the same bytes are kept once. It is no
 * step of the log: what uses the file is, and bytes that nothing uses go once no act names them any more.
 */
export async function keepAsset(
  file: { name: string; mediaType: string; bytes: Uint8Array<ArrayBuffer> },
  db: DeskDatabase = desk,
): Promise<FileRef> {
  const { name, mediaType, bytes } = file;
  const ref: FileRef = { id: await assetId(bytes), name: name.slice(0, 200), mediaType, size: bytes.length };
  await db.assets.put({ ...ref, bytes });
  return ref;
}

/** The file with this id, to be shown or saved; null when it is not here. */
export async function deskFile(id: string): Promise<Asset | null> {
  return (await desk.assets.get(id)) ?? null;
}

/** What `dropUnusedFiles` reads and deletes: a transaction that calls it has these. */
export const tablesOfFiles: readonly string[] = [
  ...['assets', 'papers', 'paperVersions', 'bank', 'attempts', 'scans', 'readPages', 'prints'],
];

/** Deletes those of these files that no attempt, scanned page, print, paper or question of the bank has any more. */
export async function dropUnusedFiles(ids: readonly string[]): Promise<void> {
  const used = assetsIn([
    await desk.papers.toArray(),
    await desk.paperVersions.toArray(),
    await desk.bank.toArray(),
  ]);
  const mine = new Set(ids.filter((id) => !used.has(id)));
  if (mine.size === 0) return;
  await desk.attempts.each(({ files = [] }) => files.forEach(({ id }) => mine.delete(id)));
  await desk.scans.each(({ picture }) => mine.delete(picture.id));
  await desk.readPages.each(({ picture }) => mine.delete(picture.id));
  await desk.prints.each(({ foreign }) => foreign?.blanks.forEach(({ id }) => mine.delete(id)));
  await desk.assets.bulkDelete([...mine]);
}

const filesLeftKey = 'filesLeft';
/** Files that nothing may name any longer; `due`: an act that named some cannot be undone any more. */
const FilesLeft = z.object({ ids: z.string().array(), due: z.boolean() }).catch({ ids: [], due: false });
const filesLeft = async (db: DeskDatabase) => FilesLeft.parse((await db.settings.get(filesLeftKey))?.value);

/** What looks like the id of a file, wherever it stands (`assetId`: SHA-256 in the letters of Base64url). */
const filesNamed = (value: unknown): Set<string> =>
  new Set(JSON.stringify(value).match(/(?<![\w-])[\w-]{43}(?![\w-])/g));

/** Notes the files that were named here for the last time, perhaps: that is looked at when a copy is made. */
export async function mayBeLeft(gone: unknown, db: DeskDatabase): Promise<void> {
  const { ids } = await filesLeft(db);
  const all = new Set([...ids, ...filesNamed(gone)]);
  if (all.size > 0) await db.settings.put({ key: filesLeftKey, value: { ids: [...all], due: true } });
}

/** Deletes the files that were noted and that nothing on the desk names any more, not even an act that can be undone. */
export async function dropLeftFiles(): Promise<void> {
  if (!(await filesLeft(desk)).due) return;
  await desk.transaction('rw', desk.tables, async () => {
    const { ids } = await filesLeft(desk);
    const undoable = new Set<string>();
    await desk.logChanges.each((row) => filesNamed(row).forEach((id) => undoable.add(id)));
    await dropUnusedFiles(ids.filter((id) => !undoable.has(id)));
    const later = ids.filter((id) => undoable.has(id));
    await desk.settings.put({ key: filesLeftKey, value: { ids: later, due: false } });
  });
}
