import { readBackup, writeBackup, type BackupRead, type DeskContent } from '@/core/formats/backup';

/** A desk as the bytes of a file. */
export async function backupBytes(content: DeskContent, savedAt: string): Promise<Uint8Array<ArrayBuffer>> {
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const bytes = new Response(readable).arrayBuffer();
  await writeBackup(content, savedAt, writable);
  return new Uint8Array(await bytes);
}

export const backupIn = (bytes: Uint8Array<ArrayBuffer>): Promise<BackupRead> =>
  readBackup(new Blob([bytes]));
