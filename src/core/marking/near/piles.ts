import { agnes } from 'ml-hclust';
import { chunk } from 'remeda';
import { groupBy } from '../../basics/groupBy';
import { nearness, Usage } from './nearness';
import { readingOf, type Reading } from './reading';
import { usualThreshold } from './threshold';

/** Answers that can lie together are looked at together; of more at once than this, those with the same words first. */
const mostAtOnce = 600;

/**
 * Answers to one question, put together by nearness: complete linkage, so that no two in a pile are less near than the
 * threshold (Defays 1977; the clustering is ml-hclust's).
 *
 * @param answers different ones, in any order; blank ones lie alone
 * @param language of the paper, by its code in BCP 47
 * @param threshold 0 to 1: more keeps more apart
 * @param progress told how much is done, 0 to 1
 * @returns each index once; the largest piles first, in each the order of the answers
 */
export function nearPiles(
  answers: readonly string[],
  language: string,
  threshold = usualThreshold,
  progress: (done: number) => void = () => undefined,
): number[][] {
  const readings = answers.map((text) => readingOf(text, language));
  const usage = new Usage(readings, language);
  const piles: number[][] = [];
  const bundles = bundlesOf(readings, usage);
  let done = 0;
  for (const bundle of bundles) {
    piles.push(...clustered(bundle, readings, usage, threshold));
    progress((done += bundle.length) / answers.length);
  }
  return piles
    .map((pile) => pile.sort((a, b) => a - b))
    .sort((a, b) => b.length - a.length || (a[0] ?? 0) - (b[0] ?? 0));
}

/** Answers between which there can be nearness: nothing guards them from each other, and they share a word that is not in most. */
function bundlesOf(readings: readonly Reading[], usage: Usage): number[][] {
  const byGuard = groupBy([...readings.keys()], (index) => {
    const { guard, words } = readings[index] ?? { guard: '||', words: [] };
    // Nothing is read of it: blank, or signs alone.
    return words.length === 0 && guard === '||' ? `alone ${index}` : guard;
  });
  return [...byGuard.values()].flatMap((bundle) =>
    bundle.length <= mostAtOnce ? [bundle] : split(bundle, readings, usage),
  );
}

/** A bundle that is too large, by the word of each answer that carries most and others have too. */
function split(bundle: readonly number[], readings: readonly Reading[], usage: Usage): number[][] {
  const used = new Map<string, number>();
  for (const index of bundle)
    for (const word of new Set(readings[index]?.words)) used.set(word, (used.get(word) ?? 0) + 1);
  const parts = groupBy(bundle, (index) => {
    const words = [...new Set(readings[index]?.words)]
      .filter((word) => (used.get(word) ?? 0) > 1)
      .sort((a, b) => usage.weight(b) - usage.weight(a) || (a < b ? -1 : 1));
    return words.slice(0, 2).sort().join(' ');
  });
  return [...parts.values()].flatMap((part) => chunk(part, mostAtOnce));
}

function clustered(
  bundle: readonly number[],
  readings: readonly Reading[],
  usage: Usage,
  threshold: number,
): number[][] {
  if (bundle.length < 2) return bundle.map((index) => [index]);
  const of = (at: number) => readings[bundle[at] ?? 0] as Reading; // each index of the bundle has its reading
  const distances = bundle.map(() => new Array<number>(bundle.length).fill(0));
  for (let a = 0; a < bundle.length; a++)
    for (let b = a + 1; b < bundle.length; b++) {
      const distance = 1 - nearness(of(a), of(b), usage);
      (distances[a] as number[])[b] = distance;
      (distances[b] as number[])[a] = distance;
    }
  const tree = agnes(distances, { method: 'complete', isDistanceMatrix: true });
  return tree.cut(1 - threshold).map((cluster) => cluster.indices().map((at) => bundle[at] ?? 0));
}
