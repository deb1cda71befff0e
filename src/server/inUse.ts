import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/** Two servers must not write into one folder: the one that has it says so in a file. One that was killed has it no longer. */

const nameIn = (folder: string) => join(folder, 'in-use');

/** @throws where a process that still runs has the folder */
export function takeFolder(folder: string): void {
  const name = nameIn(folder);
  const [pid = '', began = ''] = existsSync(name) ? readFileSync(name, 'utf8').trim().split(' ') : [];
  const holder = Number(pid);
  if (holder && holder !== process.pid && runs(holder, began))
    throw new Error(
      `${folder} is in use by another Gribbet (process ${holder}). End it, or set GRIBBET_DATA.`,
    );
  writeFileSync(name, `${process.pid} ${beganAt(process.pid)}`);
}

export const leaveFolder = (folder: string) => rmSync(nameIn(folder), { force: true });

function runs(pid: number, began: string): boolean {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false;
  }
  // After a restart of the computer the number may be another program's, which began at another time.
  return began === beganAt(pid);
}

/**
 * When a process began, in the system's own count (proc(5), field 22 of stat); empty where it does not say, or where the
 * process has ended and nobody has taken note of it yet.
 */
function beganAt(pid: number): string {
  const stat = `/proc/${pid}/stat`;
  if (!existsSync(stat)) return '';
  // The name of the program stands in brackets and may hold anything: fields are counted after it.
  const fields = readFileSync(stat, 'utf8')
    .replace(/^.*\)\s/s, '')
    .split(' ');
  return fields[0] === 'Z' ? '' : (fields[19] ?? '');
}
