import type { BackupFault } from '@/core/formats/backup/desk';
import { archiveVersion } from '@/core/formats/backup/version';
import type { CopyFault } from '@/core/formats/backup/copyDue';
import { counted, dayAndTime, fileSize } from './format';

const names = ['student', 'group', 'paper', 'sitting', 'attempt'];

/** What a desk holds: students, groups, papers, sittings and attempts, in this order. */
export function holdsWords(counts: readonly number[]): string {
  const words = names.map((name, index) => counted(counts[index] ?? 0, name));
  return `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;
}

/** How old a copy is. */
export function ageWords(at: string, now: number): string {
  const minutes = Math.floor((now - Date.parse(at)) / 60_000);
  if (minutes < 1) return 'less than a minute ago';
  return minutes < 60 ? `${counted(minutes, 'minute')} ago` : dayAndTime(at, now);
}

/** Why a copy could not be made, as the end of a sentence. */
export const copyFaultWords: Record<CopyFault, string> = {
  permission: 'the browser needs your permission again to write there',
  gone: 'the folder is gone',
  full: 'it is out of space',
  unreachable: 'the server can’t be reached',
  notPaired: 'it no longer knows this browser: end the pairing and pair again',
  unpaired: 'this browser isn’t paired with it',
  failed: 'something went wrong there',
};

/** Why a file is not put back. */
export function backupFaultWords(fault: BackupFault): string {
  switch (fault.code) {
    case 'notJson':
      return `the file is damaged or isn’t a Gribbet backup (${fault.detail}). Nothing was changed.`;
    case 'torn':
      return `the file is incomplete (${fault.detail}). Nothing was changed. Try another backup.`;
    case 'foreign':
      return 'this isn’t a Gribbet backup. Nothing was changed.';
    case 'newer':
      return `it was saved by a newer version of Gribbet (format ${fault.version}; this one reads up to ${archiveVersion}). Nothing was changed.`;
    case 'changed':
      return 'the file is damaged: its content has changed since it was saved. Nothing was changed. Try another backup.';
    case 'sealed':
      return 'it is sealed with a different teacher’s secret, or it is damaged. Nothing was changed.';
    case 'tooLarge':
      return `at ${fault.path}: it is larger than ${fileSize(fault.most)}, the most that can be read. Nothing was changed.`;
    case 'double':
      return `at ${fault.path}: “${fault.key}” is there twice. Nothing was changed.`;
    case 'damaged':
      return `at ${fault.path}: ${fault.expected}${fault.more > 0 ? `, and ${fault.more} more places` : ''}. Nothing was changed.`;
    case 'loose':
      return `at ${fault.path}: it refers to something that isn’t in the file. Nothing was changed.`;
  }
}
