import { strFromU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { Refused } from './refused';

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
 * The files of a zip, by their path. Bounded before anything is unpacked: a small file that would grow to gigabytes
 * is refused by the sizes it declares, and one that lies about them does not fit where it is unpacked to.
 *
 * @throws {Refused} no zip, too many or too large files, or paths that lead out of the package
 */
export function unpacked(bytes: Uint8Array, most: MostBytes = mostOfPackage): PackageFiles {
  if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) throw new Refused('notZip', '');
  let files = 0;
  let together = 0;
  const check = (name: string, size: number) => {
    if (!safePath(name)) throw new Refused('badPath', name.slice(0, 200));
    files += 1;
    together += size;
    if (files > mostFiles) throw new Refused('tooManyFiles', '', String(mostFiles));
    if (size > most.file || together > most.together) throw new Refused('tooLarge', name);
  };
  let content: Record<string, Uint8Array<ArrayBuffer>>;
  try {
    content = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        check(name, originalSize);
        return !name.endsWith('/');
      },
    }) as Record<string, Uint8Array<ArrayBuffer>>;
  } catch (error) {
    if (error instanceof Refused) throw error;
    throw new Refused('notZip', '', error instanceof Error ? error.message : '');
  }
  return new Map(Object.entries(content));
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
