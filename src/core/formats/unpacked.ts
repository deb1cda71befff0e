import { configure, Uint8ArrayReader, ZipReader, type Entry, type FileEntry } from '@zip.js/zip.js';
import { Refused } from '../basics/refused';
import { safePath } from './zip';

// It is in a worker already.
configure({ useWebWorkers: false });

const mostFiles = 10_000;

/** How large what is unpacked may be: one file, and all together. */
export interface MostBytes {
  /** Also guards against sizes that the package itself lies about. */
  file: number;
  together: number;
}

const mostOfPackage: MostBytes = { file: 50 * 1024 * 1024, together: 200 * 1024 * 1024 };

export type PackageFiles = ReadonlyMap<string, Uint8Array<ArrayBuffer>>;

/**
 * The files of a zip (APPNOTE.TXT), by their path. Bounded before anything is unpacked: a small file that would grow to
 * gigabytes is refused by the sizes it declares, and one that lies about them as soon as it grows beyond. Each file is
 * held against its CRC-32, so that none is taken that is damaged.
 *
 * @throws {Refused} no zip, too many or too large files, a damaged or locked one, or paths that lead out of the package
 */
export async function unpacked(bytes: Uint8Array, most: MostBytes = mostOfPackage): Promise<PackageFiles> {
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new Refused('notZip', '');
  const entries = await entriesOf(bytes);
  if (entries.length > mostFiles) throw new Refused('tooManyFiles', '', String(mostFiles));
  let together = 0;
  const files: FileEntry[] = [];
  for (const entry of entries) {
    const { filename, uncompressedSize, encrypted } = entry;
    if (!safePath(filename)) throw new Refused('badPath', filename.slice(0, 200));
    together += uncompressedSize;
    if (uncompressedSize > most.file || together > most.together) throw new Refused('tooLarge', filename);
    if (encrypted) throw new Refused('locked', filename);
    if (!entry.directory) files.push(entry);
  }
  const content = new Map<string, Uint8Array<ArrayBuffer>>();
  for (const file of files) content.set(file.filename, await contentOf(file));
  return content;
}

async function entriesOf(bytes: Uint8Array): Promise<Entry[]> {
  try {
    return await new ZipReader(new Uint8ArrayReader(bytes), {
      checkLocalFilename: true,
      // Looked at below, and named.
      filenameValidation: 'tolerant',
    }).getEntries();
  } catch {
    // The package has words of its own for it; the teacher reads ours.
    throw new Refused('notZip', '');
  }
}

async function contentOf(entry: FileEntry): Promise<Uint8Array<ArrayBuffer>> {
  const content = new Uint8Array(entry.uncompressedSize);
  let size = 0;
  const into = new WritableStream<Uint8Array>({
    write: (chunk) => {
      if (size + chunk.length > content.length) throw new Refused('damagedFile', entry.filename);
      content.set(chunk, size);
      size += chunk.length;
    },
  });
  try {
    await entry.getData(into, { checkSignature: true });
  } catch {
    throw new Refused('damagedFile', entry.filename);
  }
  if (size !== content.length) throw new Refused('damagedFile', entry.filename);
  return content;
}
