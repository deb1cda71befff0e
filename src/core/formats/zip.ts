import { configure, Uint8ArrayReader, ZipReader, type Entry, type FileEntry } from '@zip.js/zip.js';
import { strFromU8, zipSync, type Zippable } from 'fflate';
import { Refused } from './refused';

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

/** A path that stays within the package, on every system. */
export function safePath(path: string): boolean {
  return (
    path !== '' &&
    !/^[/\\]|^[a-z]:|[\\\u0000]/i.test(path) && // eslint-disable-line no-control-regex -- a null ends a path on some systems
    path.split('/').every((step) => step !== '..' && step !== '.')
  );
}

/** A path as a file of the package names another: relative to its own folder, with what is escaped in an address. */
export function resolved(from: string, path: string): string {
  const steps = from.split('/').slice(0, -1);
  let plain = path;
  try {
    plain = decodeURIComponent(path);
  } catch {
    // Not escaped: a per cent sign that means itself.
  }
  for (const step of plain.split('/'))
    if (step === '..') steps.pop();
    else if (step !== '.' && step !== '') steps.push(step);
  return steps.join('/');
}

/** The text of a file: UTF-8, or UTF-16 by its mark. */
export function textOf(bytes: Uint8Array): string {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  return strFromU8(bytes).replace(/^\ufeff/, '');
}

/** Files as a zip. The date is fixed, so that the same paper gives the same bytes. */
export function packed(files: Zippable): Uint8Array<ArrayBuffer> {
  return zipSync(files, { level: 6, mtime: '1985-01-01T00:00:00Z' });
}
