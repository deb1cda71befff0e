import type { CopyFault } from '@/core/formats/backup/copyDue';
import Dexie, { type Table } from 'dexie';

interface Place {
  /** When the last copy was made; null: none yet. */
  lastAt: string | null;
  /** Since when the desk has changed beyond the last copy; null: it has not. */
  changedSince: string | null;
  fault: CopyFault | null;
  /** Of which desk the copies were that this browser put there last. */
  deskId?: string;
}

/** A folder that the teacher chose. */
export interface FolderPlace extends Place {
  key: 'folder';
  handle: FileSystemDirectoryHandle;
}

/** The classroom server that this browser is paired with. */
export interface ServerPlace extends Place {
  key: 'server';
  /** What copies there are sealed with; empty once the pairing was ended here. */
  secret: string;
  /** In Base64; drawn once. */
  salt: string;
}

export type CopyPlace = FolderPlace | ServerPlace;

/** Where copies keep themselves. A database of its own, so that it is still there when the desk is gone. */
class CopyDatabase extends Dexie {
  declare places: Table<CopyPlace, CopyPlace['key']>;

  constructor(name = 'gribbet-copies') {
    super(name);
    this.version(1).stores({ places: 'key' });
  }
}

export const copyPlaces = new CopyDatabase();

export async function folderPlace(): Promise<FolderPlace | undefined> {
  const found = await copyPlaces.places.get('folder');
  return found?.key === 'folder' ? found : undefined;
}

export async function serverPlace(): Promise<ServerPlace | undefined> {
  const found = await copyPlaces.places.get('server');
  return found?.key === 'server' ? found : undefined;
}
