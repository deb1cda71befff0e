import { useLiveQuery } from 'dexie-react-hooks';
import { folderPlace, serverPlace, type FolderPlace, type ServerPlace } from '@/sync/copyPlaces';

/** Where copies of this desk keep themselves, as it is now; undefined while that is looked up. */
export function useCopyPlaces(): { folder: FolderPlace | null; server: ServerPlace | null } | undefined {
  return useLiveQuery(async () => ({
    folder: (await folderPlace()) ?? null,
    server: (await serverPlace()) ?? null,
  }));
}
