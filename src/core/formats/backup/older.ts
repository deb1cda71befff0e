import { z } from 'zod';
import { base64From } from '../../basics/base64';
import { sha256 } from '../../basics/crypto';
import { checkedDesk, contentOf, DeskTables, type BackupRead } from './desk';

/** Backups of before they were zips: one JSON with the bytes in Base64. Version 2 has a digest over its content. */

export const backupFormat = 'gribbet-desk';
const newest = 2;

const Head = z.object({ format: z.literal(backupFormat), version: z.number() });

/** What stands at the beginning of a backup of any version: the version, or why it is none of ours. */
export function versionOf(
  head: unknown,
  most: number,
): { version: number } | { fault: { code: 'foreign' } | { code: 'newer'; version: number } } {
  const read = Head.safeParse(head);
  if (!read.success) return { fault: { code: 'foreign' } };
  const { version } = read.data;
  return version > most ? { fault: { code: 'newer', version } } : { version };
}

/** The SHA-256 (FIPS 180-4) of when it was saved and of what it holds, in Base64. */
export const olderDigest = async (savedAt: unknown, tables: unknown): Promise<string> =>
  base64From(await sha256(new TextEncoder().encode(JSON.stringify([savedAt, tables]))));

/** Reads one. Either all of it is good, or the fault says where it is not; nothing is read in part. */
export async function readOlder(text: string): Promise<BackupRead> {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch (error) {
    return { fault: { code: 'notJson', detail: error instanceof Error ? error.message : '' } };
  }
  const head = versionOf(raw, newest);
  if ('fault' in head) return head;
  // Before anything else: what was changed on its way is not looked at any further.
  const { savedAt, digest, tables } = raw as { savedAt?: unknown; digest?: unknown; tables?: unknown };
  if (head.version >= 2 && digest !== (await olderDigest(savedAt, tables)))
    return { fault: { code: 'changed' } };
  const checked = checkedDesk({ savedAt, tables }, DeskTables, head.version < 2);
  if ('fault' in checked) return checked;
  return { backup: { savedAt: checked.savedAt, ...contentOf(checked.tables) } };
}
