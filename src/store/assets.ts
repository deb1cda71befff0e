import type { Asset } from '@/core/basics/asset';
import { assetId } from '@/core/basics/assetBytes';
import type { FileRef } from '@/core/basics/file';
import { assetsIn } from '@/core/basics/fileRules';
import { desk, type DeskDatabase } from './tables';

/**
 * Keeps the bytes of a picture or file under the id that is drawn from them; the same bytes are kept once. It is no
 * step of the log: what uses the file is, and bytes that nothing uses do no harm.
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

/** Deletes those of these files that no attempt, scanned page, paper or question of the bank has any more. */
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
  await desk.assets.bulkDelete([...mine]);
}
