import { backupVersion, type BackupFault } from '@/core/formats/backup';
import type { CopyFault } from '@/sync/copyPlaces';
import { counted, dayAndTime, fileSize } from '../ui/format';

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
  permission: 'the browser wants to be told again that Gribbet may write there',
  gone: 'the folder is not there any more',
  full: 'there is no room left there',
  unreachable: 'the server cannot be reached',
  notPaired: 'it does not know this browser any more: end the pairing and pair it again',
  unpaired: 'this browser is not paired with it',
  failed: 'something went wrong there',
};

/** Why a file is not put back. */
export function backupFaultWords(fault: BackupFault): string {
  switch (fault.code) {
    case 'notJson':
      return `the file is damaged or not a desk file (${fault.detail}). Nothing was changed.`;
    case 'torn':
      return `the file is not whole (${fault.detail}). Nothing was changed. Take another copy.`;
    case 'foreign':
      return 'this is not a desk file. Nothing was changed.';
    case 'newer':
      return `it was saved by a newer Gribbet (version ${fault.version}); this one reads up to version ${backupVersion}. Nothing was changed.`;
    case 'changed':
      return 'the file is damaged: what is in it is not what was saved. Nothing was changed. Take another copy.';
    case 'sealed':
      return 'it is sealed with another secret than this browser is paired with, or damaged. Nothing was changed.';
    case 'tooLarge':
      return `at ${fault.path}: it is larger than the ${fileSize(fault.most)} that are read. Nothing was changed.`;
    case 'double':
      return `at ${fault.path}: “${fault.key}” is there twice. Nothing was changed.`;
    case 'damaged':
      return `at ${fault.path}: ${fault.expected}${fault.more > 0 ? `, and ${fault.more} more places` : ''}. Nothing was changed.`;
    case 'loose':
      return `at ${fault.path}: it points to something the file does not hold. Nothing was changed.`;
  }
}
