import { readArchive, type Progress } from './archive';
import type { BackupRead } from './desk';
import { readOlder } from './older';

/** The whole desk as one file, and back again. */

export { writeArchive as writeBackup, readArchive, type Progress } from './archive';
export {
  checkedDesk,
  contentOf,
  DeskRows,
  DeskTables,
  isFile,
  joinedRows,
  noRows,
  type Backup,
  type BackupFault,
  type BackupRead,
  type DeskContent,
} from './desk';

/** Reads a backup of any version. Either all of it is good, or the fault says where it is not. */
export async function readBackup(file: Blob, progress?: Progress): Promise<BackupRead> {
  const begin = new Uint8Array(await file.slice(0, 2).arrayBuffer());
  // A zip begins so (APPNOTE.TXT of the zip format, 4.3.7 and 4.3.16).
  const zip = begin[0] === 0x50 && begin[1] === 0x4b;
  return zip ? readArchive(file, progress) : readOlder(await file.text());
}
