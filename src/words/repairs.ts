import { kindOf, type Question } from '@/core/kinds';
import type { RepairDraft } from '@/core/repair/effect';
import type { RepairEffect } from '@/core/repair/effect';
import { counted, percent, points } from './format';

/** What a repair is, in a few words; null where nothing is changed. @param item as it is scored now */
export function draftWords(
  { before, changed, rule, nobodyLoses }: RepairDraft,
  item: Question,
): string | null {
  const parts: string[] = [];
  if (changed) {
    const [old, next] = [kindOf(before).keyText(before), kindOf(changed).keyText(changed)];
    if (old !== next) parts.push(`key ${shortened(next) || 'removed'}`);
    if (before.points !== changed.points) parts.push(counted(changed.points, 'point'));
    if (parts.length === 0) parts.push('other wording or another rule');
  }
  if (rule?.kind === 'everyone') parts.push('points for everyone');
  if (rule?.kind === 'answered') parts.push('points for everyone who answered');
  if (rule?.kind === 'dropped')
    parts.push(rule.maximum === 'smaller' ? 'doesn’t count, smaller maximum' : 'doesn’t count, same maximum');
  if (rule === null && item.repaired?.rule && parts.length === 0) parts.push('scored by its key again');
  if (parts.length === 0) return null;
  if (nobodyLoses) parts.push('nobody loses');
  const words = parts.join('; ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}

const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 60).trimEnd()}…` : text);

/** "12 go up, 3 go down, 77 stay." */
export const upDownWords = ({ students, studentsUp, studentsDown }: RepairEffect): string =>
  `${studentsUp} up, ${studentsDown} down, ${students - studentsUp - studentsDown} as before`;

/** "12.4 of 20 (62%)" */
export const meanWords = ({ points: mean, max, share }: RepairEffect['before']): string =>
  `${points(mean)} of ${points(max)} (${percent(share)})`;
