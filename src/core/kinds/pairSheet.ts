import { keyParts, Unreadable, type RowCells, type SheetKind } from './sheet/SheetKind';
import { keyPlaces } from './choiceSheet';
import type { Categories } from './categories/schema';
import type { Matching } from './matching/schema';
import type { PairItem } from './pairs';

const arrow = /\s*(?:→|->|=>)\s*/;

/** The targets that options as "spring tide → new moon" name; null where one of them has no arrow. */
function namedTargets({ options, key }: RowCells): string[] | null {
  // What the key finds among the options is a choice between texts with arrows in them.
  if (options.length === 0 || keyPlaces({ options, key }).length > 0) return null;
  const pairs = options.map((option) => option.split(arrow));
  return pairs.every((pair) => pair.length === 2) ? pairs.flatMap(([, target]) => target || []) : null;
}

/**
 * Kinds whose answer puts each item to a target. An option is "spring tide → new moon", an item that belongs nowhere
 * "slack →"; the key names the targets in their order, those too that nothing belongs to.
 */
export function pairSheet<Q extends Matching | Categories>(
  turn: number,
  suits: (targets: readonly string[]) => boolean,
): SheetKind<Q> {
  return {
    turn,
    suits: (cells) => suits(namedTargets(cells) ?? []),
    read: (empty, { options, key }, newId) => {
      const targets: PairItem[] = [];
      const items: PairItem[] = [];
      const right: Record<string, string> = {};
      const targetCalled = (text: string) => {
        const known = targets.find((target) => target.text === text);
        if (known) return known;
        const made = { id: newId(), text };
        targets.push(made);
        return made;
      };
      keyParts(key).forEach(targetCalled);
      for (const option of options) {
        const [text = '', target, ...more] = option.split(arrow);
        if (target === undefined || more.length > 0 || !text) throw new Unreadable('noPartner', option);
        const item = { id: newId(), text };
        items.push(item);
        if (target) right[item.id] = targetCalled(target).id;
      }
      return { ...empty, items, targets, key: right };
    },
    cells: ({ items, targets, key }) => ({
      options: items.map(
        ({ id, text }) => `${text} → ${targets.find((target) => target.id === key[id])?.text ?? ''}`,
      ),
      key: targets.map(({ text }) => text).join('; '),
    }),
  };
}
