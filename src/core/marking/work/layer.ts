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

/** How many of each there are, for words about a layer. */
export function layerCounts(marks: readonly LayerMark[]): Partial<Record<LayerMark['is'], number>> {
  const counts: Partial<Record<LayerMark['is'], number>> = {};
  for (const { is } of marks) counts[is] = (counts[is] ?? 0) + 1;
  return counts;
}
