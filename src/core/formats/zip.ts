import { zipSync, type Zippable } from 'fflate';

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

/** Files as a zip. The date is fixed, so that the same paper gives the same bytes. */
export function packed(files: Zippable): Uint8Array<ArrayBuffer> {
  return zipSync(files, { level: 6, mtime: '1985-01-01T00:00:00Z' });
}
