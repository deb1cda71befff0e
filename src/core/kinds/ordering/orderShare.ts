import { assertNever } from '../../basics/assertNever';
import type { OrderRule } from './schema';

/**
 * The share of the points for an order, 0 to 1. Exact: all or nothing. Places: share in the right place.
 * Neighbours: share of the neighbours that stand in the right order. Pairs: 1 − (pairs out of order)/(all pairs).
 * Formulas: measures.md, "Part points".
 *
 * @param places the right place, from 0, of each item in the order given; an item left out is not in it
 * @param count how many items there are in all, two or more
 */
export function orderShare(rule: OrderRule, places: readonly number[], count: number): number {
  switch (rule) {
    case 'exact':
      return places.length === count && inPlace(places) === count ? 1 : 0;
    case 'places':
      return inPlace(places) / count;
    case 'neighbours':
      return (
        places.filter((place, index) => index > 0 && (places[index - 1] ?? 0) < place).length / (count - 1)
      );
    case 'pairs': {
      let inOrder = 0;
      places.forEach((place, index) => {
        for (const before of places.slice(0, index)) if (before < place) inOrder++;
      });
      return inOrder / ((count * (count - 1)) / 2);
    }
    default:
      return assertNever(rule);
  }
}

function inPlace(places: readonly number[]): number {
  return places.filter((place, index) => place === index).length;
}
