import type { ClashChoice, PartClash } from '@/core/formats/backup/joinPart';
import { counted } from './format';

/** What is said where a part of another desk is taken in. */

const one: Record<PartClash['what'], string> = {
  groups: 'group',
  students: 'student',
  papers: 'paper',
  sittings: 'sitting',
  markBooks: 'mark book',
};

/** "1 sitting, 1 paper and 28 students"; "nothing". */
export function partCountWords(counts: Record<PartClash['what'], number>): string {
  const order = ['sittings', 'papers', 'groups', 'students', 'markBooks'] as const;
  const parts = order.flatMap((what) => (counts[what] > 0 ? [counted(counts[what], one[what])] : []));
  return parts.length === 0 ? 'nothing' : new Intl.ListFormat('en', { type: 'conjunction' }).format(parts);
}

/** What clashes, of several that clash alike. */
export function clashTitle({ what, is }: Pick<PartClash, 'what' | 'is'>, count: number): string {
  const things = counted(count, one[what]);
  return is === 'namesake'
    ? `${things} in the file ${count === 1 ? 'seems' : 'seem'} to be on this desk already`
    : `${things} ${count === 1 ? 'is' : 'are'} not the same here as in the file`;
}

/** One clash among others. */
export function clashWords({ is, here, theirs, differing, choices }: PartClash): string {
  const names = here === theirs ? theirs : `${theirs} (here: ${here})`;
  if (choices.length === 1)
    return `${names}: both have a version that is not the same, so the file’s comes as a copy`;
  return is === 'changed' && differing > 0
    ? `${names}: ${counted(differing, 'difference')} in settings, answers and marks`
    : names;
}

/** What can be chosen. */
export function choiceWords({ what, is }: Pick<PartClash, 'what' | 'is'>, choice: ClashChoice): string {
  if (is === 'namesake')
    return choice === 'mine' ? `The same ${one[what]}` : `Another ${one[what]}: keep both`;
  return {
    mine: 'Keep how it is here',
    theirs: 'Take how it is in the file',
    both: 'Keep both: the file’s comes as a copy',
  }[choice];
}
