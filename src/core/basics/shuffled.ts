import { uniformInt } from 'pure-rand/distribution/uniformInt';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/**
 * The items in an order drawn by chance from a seed (Fisher and Yates 1938, as Durstenfeld 1964 does it): the same
 * seed gives the same order everywhere. Pinned items keep their places.
 */
export function shuffled<T>(
  items: readonly T[],
  seed: string,
  pinned: (item: T) => boolean = () => false,
): T[] {
  const generator = xoroshiro128plus(seedNumber(seed));
  const loose = items.filter((item) => !pinned(item));
  for (let last = loose.length - 1; last > 0; last--) {
    const other = uniformInt(generator, 0, last);
    [loose[last], loose[other]] = [loose[other] as T, loose[last] as T]; // both places are within the list
  }
  let next = 0;
  return items.map((item) => (pinned(item) ? item : (loose[next++] as T))); // as many as are not pinned
}

/**
 * The items in an order that says nothing of the one they come in: the same from any order of them.
 *
 * @param salt what else the order hangs on, so that ids that count up do not keep their order
 */
export function unordered<T extends { id: string }>(items: readonly T[], salt: string): T[] {
  const place = new Map(items.map(({ id }) => [id, seedNumber(`${salt} ${id}`)]));
  return [...items].sort(
    (a, b) => (place.get(a.id) ?? 0) - (place.get(b.id) ?? 0) || (a.id < b.id ? -1 : Number(a.id > b.id)),
  );
}

/** A whole number from a text (FNV-1a, 32 bits; from memory), so that texts that are near give seeds that are not. */
export function seedNumber(text: string): number {
  let hash = 0x811c9dc5;
  for (const byte of new TextEncoder().encode(text)) hash = Math.imul(hash ^ byte, 0x01000193);
  return hash;
}
