import type { HandMark } from '../model/mark';

/**
 * Marks of equal answers, taken as one. They may differ: a late answer joins marked ones, or one of them was marked alone.
 * What a group shows is what most of them have; of equally many, what was done last.
 */

type Marked = Pick<HandMark, 'at'>;

function commonest<M extends Marked, V>(marks: readonly M[], of: (mark: M) => V): V | undefined {
  const counts = new Map<string, { value: V; count: number; at: string }>();
  for (const mark of marks) {
    const value = of(mark);
    const key = JSON.stringify(value);
    const known = counts.get(key) ?? { value, count: 0, at: '' };
    counts.set(key, {
      value,
      count: known.count + 1,
      at: mark.at > known.at ? mark.at : known.at,
    });
  }
  return [...counts.values()].reduce<{ value: V; count: number; at: string } | undefined>(
    (best, next) =>
      best && (best.count > next.count || (best.count === next.count && best.at >= next.at)) ? best : next,
    undefined,
  )?.value;
}

/** The scheme lines that equal answers met: those of the ones that have points, where any have. */
export function groupLines(marks: readonly Pick<HandMark, 'at' | 'lines' | 'points'>[]): string[] {
  const pointed = marks.filter(({ points }) => points !== null);
  return commonest(pointed.length > 0 ? pointed : marks, ({ lines }) => lines) ?? [];
}

/** The comment that equal answers have in common; one that a single student has stays that student's. */
export function groupComment(marks: readonly Pick<HandMark, 'at' | 'comment'>[]): string {
  return commonest(marks, ({ comment }) => comment) ?? '';
}

/** The private note that equal answers have in common. */
export function groupNote(marks: readonly Pick<HandMark, 'at' | 'note'>[]): string {
  return commonest(marks, ({ note = '' }) => note) ?? '';
}
