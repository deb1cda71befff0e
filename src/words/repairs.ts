import { kindOf, type Question } from '@/core/kinds';
import type { RepairRule } from '@/core/kinds/repaired';
import { changesScoring, type RepairDraft } from '@/core/repair/draft';
import type { RepairEffect } from '@/core/repair/effect';
import { counted, percent, points } from './format';

/** What a repair is, in a few words; null where nothing is changed. @param item as it is scored now */
export function draftWords(draft: RepairDraft, item: Question): string | null {
  if (!changesScoring(draft, item)) return null;
  const { before, changed, rule, nobodyLoses } = draft;
  const parts: string[] = [];
  if (changed) {
    const [old, next] = [kindOf(before).keyText(before), kindOf(changed).keyText(changed)];
    if (old !== next) parts.push(`key ${shortened(next) || 'removed'}`);
    if (before.points !== changed.points) parts.push(counted(changed.points, 'point'));
    if (parts.length === 0) parts.push('other wording or another rule');
  }
  if (rule) parts.push(ruleWords(rule));
  else if (!changed) parts.push('scored by its key again');
  if (nobodyLoses) parts.push('nobody loses');
  const words = parts.join('; ');
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** "points for everyone", "doesn’t count, smaller maximum" */
export function ruleWords(rule: RepairRule): string {
  if (rule.kind === 'everyone') return 'points for everyone';
  if (rule.kind === 'answered') return 'points for everyone who answered';
  return rule.maximum === 'smaller' ? 'doesn’t count, smaller maximum' : 'doesn’t count, same maximum';
}

/** What students who have their results back are written about a repair. */
export const repairMessage = (title: string, number: string, reason: string) => ({
  subject: `${title}: your result has changed`,
  text: `Question ${number} was rescored: ${reason}\n\nYour result shows what changed.`,
});

const shortened = (text: string) => (text.length > 60 ? `${text.slice(0, 60).trimEnd()}…` : text);

/** "12 go up, 3 go down, 77 stay." */
export const upDownWords = ({ students, studentsUp, studentsDown }: RepairEffect): string =>
  `${studentsUp} up, ${studentsDown} down, ${students - studentsUp - studentsDown} as before`;

/** "12.4 of 20 (62%)" */
export const meanWords = ({ points: mean, max, share }: RepairEffect['before']): string =>
  `${points(mean)} of ${points(max)} (${percent(share)})`;
