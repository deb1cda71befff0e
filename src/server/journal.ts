import { readFile } from 'node:fs/promises';
import { crc32 } from 'node:zlib';
import jsonPatch, { type Operation } from 'fast-json-patch';
import type { KeptChange, KeptRow } from './exchangeStore';

/** The lines of a journal or a snapshot. */

/** One line: the checksum of what follows (CRC-32, as in zip), then what was changed. */
export interface Line {
  rev: number;
  changes: (KeptChange | { key: string; patch: Operation[] })[];
}

export function lineText(line: Line): string {
  const text = JSON.stringify(line);
  return `${crc32(text).toString(16).padStart(8, '0')} ${text}\n`;
}

/**
 * Reads the lines of a file into the rows.
 *
 * @param after of a journal, the revision that the rows have already: its last line may be torn. Null for a snapshot.
 * @returns the last revision, and how many bytes are whole
 */
export async function replay(path: string, rows: Map<string, KeptRow>, after: number | null) {
  const all = await readFile(path);
  let rev = 0;
  let from = 0;
  for (let number = 1; from < all.length; number++) {
    const end = all.indexOf(10, from);
    const text = all.toString('utf8', from, end < 0 ? all.length : end);
    const line = end < 0 ? null : lineFrom(text);
    if (!line) {
      // Only the end can be torn: a line that is damaged with whole ones after it is no accident of stopping.
      if (after !== null && (end < 0 || !all.includes(10, end + 1))) break;
      throw new Error(`${path}, line ${number}: damaged. Put back a copy of the folder, or remove the line.`);
    }
    if (after === null || line.rev > after) for (const change of line.changes) hold(rows, change, line.rev);
    rev = Math.max(rev, line.rev);
    from = end + 1;
  }
  return { rev, bytes: from };
}

function lineFrom(text: string): Line | null {
  const json = text.slice(9);
  if (text.slice(0, 8) !== crc32(json).toString(16).padStart(8, '0')) return null;
  return JSON.parse(json) as Line; // whole by its checksum: it is as it was written
}

function hold(rows: Map<string, KeptRow>, change: Line['changes'][0], rev: number): void {
  const { key } = change;
  if ('patch' in change) {
    const before = rows.get(key)?.value;
    rows.set(key, { key, rev, value: jsonPatch.applyPatch(before, change.patch).newDocument });
  } else if (change.value === null) rows.delete(key);
  else rows.set(key, { key, rev, value: change.value });
}
