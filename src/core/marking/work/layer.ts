import { distanceTo, thinned } from '../../kinds/working/strokes';
import type { LayerMark, TextMark, WorkMark } from '../../model/workMark';

/** What of an answer marks can lie on. */
export const surfaces = {
  drawing: 'drawing',
  maths: 'maths',
  /** A picture, or the n-th page of a file. */
  file: (fileId: string, page = 1) => `${fileId}#${page}`,
};

export const isLayerMark = (mark: WorkMark): mark is LayerMark => 'on' in mark;

/** The marks on letters of a text. */
export const textMarks = (work: readonly WorkMark[]): TextMark[] =>
  work.flatMap((mark) => (isLayerMark(mark) ? [] : [mark]));

/** The marks that lie on one surface, in the order in which they were made. */
export const marksOn = (work: readonly WorkMark[], on: string): LayerMark[] =>
  work.filter(isLayerMark).filter((mark) => mark.on === on);

/** The pages of a file that have marks, in order. */
export function markedPages(work: readonly WorkMark[], fileId: string): number[] {
  const pages = work
    .filter(isLayerMark)
    .flatMap(({ on }) => (on.startsWith(`${fileId}#`) ? [Number(on.slice(fileId.length + 1))] : []));
  return [...new Set(pages)].filter((page) => Number.isInteger(page) && page > 0).sort((a, b) => a - b);
}

/** A place on a surface, in thousandths of its width. */
export type Place = readonly [x: number, y: number];

const whole = ([x, y]: Place): number[] => [Math.round(x), Math.round(y)];

/** What a mark is made of the places the pen or the keys went over; null for an arrow that goes nowhere. */
export function layerPoints(is: LayerMark['is'], places: readonly Place[]): number[] | null {
  const [first] = places;
  const last = places.at(-1);
  if (!first || !last) return null;
  if (is === 'pen') return thinned(places);
  if (is !== 'arrow') return whole(first);
  return Math.hypot(last[0] - first[0], last[1] - first[1]) < shortest
    ? null
    : [...whole(first), ...whole(last)];
}

/** An arrow that is shorter has no direction. */
const shortest = 10;

/** The mark that was made last of those that pass within `reach` of a place. */
export const markAt = (marks: readonly LayerMark[], [x, y]: Place, reach = 25): LayerMark | undefined =>
  marks.findLast(({ points }) => distanceTo(points, x, y) <= reach);

/** How many of each there are, for words about a layer. */
export function layerCounts(marks: readonly LayerMark[]): Partial<Record<LayerMark['is'], number>> {
  const counts: Partial<Record<LayerMark['is'], number>> = {};
  for (const { is } of marks) counts[is] = (counts[is] ?? 0) + 1;
  return counts;
}
