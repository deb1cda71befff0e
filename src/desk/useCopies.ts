import { useCallback, useEffect, useState } from 'react';
import { serverConnection } from '@/sync/serverConnection';
import type { DeskCopy } from '@/core/model/deskCopy';
import { copiesInFolder, type FolderCopy } from '@/sync/copies';
import { copyPlaces, type FolderPlace, type ServerPlace } from '@/sync/copyPlaces';
import { useCopyPlaces } from './useCopyPlaces';
import { copyNow } from '@/workers/copies';

/** A copy that was found, and where. */
export type FoundCopy = {
  deskId: string;
  at: string;
  /** Whether this browser made it; otherwise it is of a desk elsewhere. */
  own: boolean;
  /** The computer it was on, where it is one of two desks that were both changed. */
  keptFrom?: string;
} & ({ place: 'folder'; file: () => Promise<File> } | { place: 'server'; copy: DeskCopy; secret: string });

/** All copies that can be put back, those of this desk first, then the newest; what cannot be looked at now has none. */
export function useFoundCopies(): { copies: FoundCopy[] | null; look: () => Promise<void> } {
  const places = useCopyPlaces();
  const [copies, setCopies] = useState<FoundCopy[] | null>(null);
  const look = useCallback(async () => {
    if (!places) return;
    const [inFolder, onServer] = await Promise.all([
      places.folder ? foundInFolder(places.folder) : [],
      places.server && places.server.secret !== '' ? foundOnServer(places.server) : [],
    ]);
    setCopies(
      [...inFolder, ...onServer].sort((a, b) => Number(b.own) - Number(a.own) || b.at.localeCompare(a.at)),
    );
  }, [places]);
  useEffect(() => void look(), [look]);
  return { copies, look };
}

async function foundInFolder({ handle, deskId: mine }: FolderPlace): Promise<FoundCopy[]> {
  try {
    if ((await handle.queryPermission({ mode: 'readwrite' })) !== 'granted') return [];
    const copies: FolderCopy[] = await copiesInFolder(handle);
    return copies.map(({ name, deskId, at }) => ({
      ...{ place: 'folder', deskId, at, own: deskId === mine },
      file: async () => (await handle.getFileHandle(name)).getFile(),
    }));
  } catch {
    return [];
  }
}

async function foundOnServer({ secret, deskId: mine }: ServerPlace): Promise<FoundCopy[]> {
  const copies = await serverConnection()
    .copies()
    .catch(() => []);
  return copies.map((copy) => ({
    ...{ place: 'server', deskId: copy.deskId, at: copy.at, own: copy.deskId === mine },
    ...(copy.kept && { keptFrom: copy.kept.computer }),
    copy,
    secret,
  }));
}

/** Whether this browser can write into a folder that somebody chose (File System Access). */
export const canChooseFolder = (): boolean => 'showDirectoryPicker' in window;

/** Asks for a folder and begins to keep copies in it; false when none was chosen. */
export async function chooseFolder(): Promise<boolean> {
  let handle: FileSystemDirectoryHandle;
  try {
    handle = await window.showDirectoryPicker({ id: 'gribbet-copies', mode: 'readwrite' });
  } catch (error) {
    if ((error as Error).name === 'AbortError') return false;
    throw error;
  }
  await copyPlaces.places.put({ key: 'folder', handle, lastAt: null, changedSince: null, fault: null });
  copyNow();
  return true;
}

/** Asks the browser to let Gribbet write into the chosen folder again. */
export async function allowFolder({ handle }: FolderPlace): Promise<void> {
  if ((await handle.requestPermission({ mode: 'readwrite' })) !== 'granted') return;
  await copyPlaces.places.update('folder', { fault: null });
  copyNow();
}

export const leaveFolder = (): Promise<void> => copyPlaces.places.delete('folder');
