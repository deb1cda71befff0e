import type { PaperKind } from '../paper/PaperKind';
import type { OrderResponse, StudentOrdering } from './schema';

/** A row for each item, with a box under each place. */
export const orderingPaper: PaperKind<StudentOrdering, OrderResponse> = {
  rows: ({ items }) =>
    items.map(({ id, text }) => ({
      ...{ id, label: text, as: 'line' },
      boxes: items.map((_, index) => ({ id: String(index + 1), label: String(index + 1) })),
    })),
  areas: () => [],
  fromTicks: ({ items }, ticks) => {
    const placed = items.flatMap(({ id }) =>
      (ticks[id] ?? []).map((place) => ({ id, place: Number(place) })),
    );
    const once = (of: readonly unknown[]) => new Set(of).size === of.length;
    if (!once(placed.map(({ id }) => id)) || !once(placed.map(({ place }) => place))) return null;
    return { order: placed.sort((a, b) => a.place - b.place).map(({ id }) => id) };
  },
};
