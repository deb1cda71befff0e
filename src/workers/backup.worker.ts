import { expose } from 'comlink';
import { serverConnection } from '@/sync/serverConnection';
import { readBackup, writeBackup, type Backup, type BackupRead, type Progress } from '@/core/formats/backup';
import type { DeskCopy } from '@/core/model/deskCopy';
import type { ClashChoice } from '@/core/formats/backup/joinPart';
import { deskContent, joinPart, partContent, partPlan, putInPlace } from '@/store/backup';
import { finishDeletions } from '@/store/retention';
import { setTab } from '@/store/command';
import { readServerCopy } from '@/sync/copies';
import type { BackupFound } from './backupWork';

/** Backups are written and read here, so that the page goes on and can stop it. */
let found: Backup | null = null;

async function kept(read: BackupRead): Promise<BackupFound> {
  if ('fault' in read) return read;
  found = read.backup;
  const { students, groups, papers, sittings, attempts } = found.rows;
  const counts = [students, groups, papers, sittings, attempts].map(({ length }) => length);
  const { savedAt, part } = found;
  return { savedAt, counts, ...(part !== undefined && { part, plan: await partPlan(found.rows) }) };
}

const backupWorker = {
  save: async (savedAt: string, withPages: boolean, progress: Progress): Promise<Blob> => {
    await finishDeletions();
    const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
    // The browser keeps what is large on disk.
    const blob = new Response(readable, { headers: { 'content-type': 'application/zip' } }).blob();
    await writeBackup(await deskContent(withPages), savedAt, writable, { progress });
    return blob;
  },
  savePart: async (
    part: string,
    sittingIds: string[],
    savedAt: string,
    progress: Progress,
  ): Promise<Blob> => {
    const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
    const blob = new Response(readable, { headers: { 'content-type': 'application/zip' } }).blob();
    await writeBackup(await partContent(new Set(sittingIds)), savedAt, writable, { progress, part });
    return blob;
  },
  join: async (
    choices: [string, ClashChoice][],
    tab: { id: string; where: string } | null,
    now: string,
    progress: Progress,
  ): Promise<void> => {
    if (!found) throw new Error('Nothing was read');
    setTab(tab && { id: tab.id, where: () => tab.where });
    await joinPart(found, new Map(choices), now, progress);
  },
  read: async (file: File, progress: Progress): Promise<BackupFound> =>
    kept(await readBackup(file, progress)),
  readOnServer: async (copy: DeskCopy, secret: string, progress: Progress): Promise<BackupFound> =>
    kept(await readServerCopy(serverConnection(), secret, copy, progress)),
  put: async (progress: Progress): Promise<void> => {
    if (!found) throw new Error('Nothing was read');
    await putInPlace(found, progress);
  },
};
export type BackupWorker = typeof backupWorker;

expose(backupWorker);
