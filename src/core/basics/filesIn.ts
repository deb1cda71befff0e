import type { FileRef } from './file';

/** The files that something names, wherever they stand in it. */

const isFileRef = (value: object): value is FileRef =>
  'mediaType' in value && 'name' in value && 'id' in value && 'size' in value;

/** The files that something names, however deep. */
export function filesIn(value: unknown): FileRef[] {
  if (Array.isArray(value)) return value.flatMap(filesIn);
  if (value === null || typeof value !== 'object') return [];
  return isFileRef(value) ? [value] : Object.values(value).flatMap(filesIn);
}

/** The same with other files in it; @param changed is given each, and which of them it is, from 0 */
export function withFiles<T>(value: T, changed: (file: FileRef, n: number) => FileRef): T {
  let n = 0;
  const walk = (each: unknown): unknown => {
    if (Array.isArray(each)) return each.map(walk);
    if (each === null || typeof each !== 'object') return each;
    if (isFileRef(each)) return changed(each, n++);
    return Object.fromEntries(Object.entries(each).map(([name, inside]) => [name, walk(inside)]));
  };
  return walk(value) as T; // of the same shape
}

/** The same with files called by number: their names, like what is hidden, can say whose they are. */
export const withoutFileNames = <T>(value: T): T =>
  withFiles(value, (file, n) => ({
    ...file,
    name: `file ${n + 1}${/\.[a-z0-9]{1,5}$/i.exec(file.name)?.[0] ?? ''}`,
  }));
