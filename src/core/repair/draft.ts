import type { Question } from '../kinds';
import type { RepairRule } from '../kinds/repaired';

/** A repair that is thought about. */
export interface RepairDraft {
  /** The question of the paper as the sitting has it. */
  before: Question;
  /** The same with another key or other points; null: as it is. */
  changed: Question | null;
  itemId: string;
  rule: RepairRule | null;
  nobodyLoses: boolean;
}

/** The draft that changes nothing: the question as it is scored now. */
export const asItStands = (before: Question, item: Question): RepairDraft => ({
  ...{ before, changed: null, itemId: item.id, nobodyLoses: false },
  rule: item.repaired?.rule ?? null,
});

/** Whether a draft would score the question otherwise than it stands. */
export const changesScoring = ({ changed, rule }: RepairDraft, item: Question): boolean =>
  changed !== null || !sameRule(rule, item.repaired?.rule ?? null);

export const sameRule = (a: RepairRule | null, b: RepairRule | null): boolean =>
  JSON.stringify(a) === JSON.stringify(b);
