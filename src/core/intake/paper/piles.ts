import type { AnswerPaper } from '../../model/answerPaper';
import type { Scan } from '../../model/scan';
import { pageSize } from './sheet';
import type { Gray } from './geometry';
import { inkShare, keptPerMm } from './straightened';

/** Piles of scans of papers without codes: where one paper ends and the next begins. */

/** How a pile is cut into papers: so many pages each, or by a sheet between, a page like the first one, or a code on a first page. */
export const pileCuts = ['count', 'blankSheets', 'firstPages', 'stickers'] as const;
export type PileCut = (typeof pileCuts)[number];

/** What a page of a pile shows of itself. */
export interface PileLook {
  /** Nothing is written or printed on it. */
  blank: boolean;
  /** It looks like the first page of the blank paper. */
  first: boolean;
  /** A student's code sticks on it. */
  sticker: boolean;
}

/** What the n-th page of a pile is in it; undefined: another page of its paper. @param index from 0 */
export function pileMark(cut: PileCut, look: PileLook, index: number, pagesEach: number): Scan['pile'] {
  if (cut === 'blankSheets' && look.blank) return 'between';
  const begins = {
    count: index % pagesEach === 0,
    blankSheets: false,
    firstPages: look.first,
    stickers: look.sticker,
  }[cut];
  return begins ? 'begins' : undefined;
}

/**
 * Which page of which copy each page of a pile is, behind the copies that are here. Null: a sheet between papers, or more pages than
 * the paper has.
 */
export function placesInPile(
  marks: readonly Scan['pile'][],
  { id, pages, copies }: Pick<AnswerPaper, 'id' | 'pages' | 'copies'>,
): Scan['place'][] {
  let copy = copies.length;
  let page = 0;
  let begins = true;
  return marks.map((mark) => {
    if (mark === 'between') {
      begins = true;
      return null;
    }
    if (begins || mark === 'begins') {
      copy++;
      page = 1;
    } else page++;
    begins = false;
    return page > pages.length ? null : { printId: id, copy, page };
  });
}

/** The edges of sheets throw shadows in scans, and are punched. */
const edgeMm = 15;
/** 14 mm² of ink: a word is more. Common practice, no source. */
const blankShare = 0.0003;

/** Whether nothing is on a page that was set straight. */
export const isBlankSheet = (page: Gray): boolean =>
  inkShare(page, {
    ...{ x: edgeMm, y: edgeMm },
    ...{ w: pageSize.w - 2 * edgeMm, h: pageSize.h - 2 * edgeMm },
  }) < blankShare;

const cellMm = 3;
const [across, down] = [Math.round(pageSize.w / cellMm), Math.round(pageSize.h / cellMm)];
/** A sheet is fed a little elsewhere each time. */
const mostCells = 2;

/** How much ink is in each cell of a page that was set straight. */
export type InkMap = Float32Array;

export function inkMapOf(page: Gray, perMm = keptPerMm): InkMap {
  const map = new Float32Array(across * down);
  for (let y = 0; y < page.height; y++)
    for (let x = 0; x < page.width; x++) {
      const at =
        Math.min(down - 1, Math.floor(y / perMm / cellMm)) * across +
        Math.min(across - 1, Math.floor(x / perMm / cellMm));
      map[at] = (map[at] ?? 0) + (255 - (page.data[y * page.width + x] ?? 255));
    }
  return map;
}

/** How alike two pages are, -1 to 1: the correlation of their ink (Pearson), at the shift of at most 6 mm at which it is greatest. */
export function likeness(a: InkMap, b: InkMap): number {
  let best = -1;
  for (let dy = -mostCells; dy <= mostCells; dy++)
    for (let dx = -mostCells; dx <= mostCells; dx++) best = Math.max(best, correlationAt(a, b, dx, dy));
  return best;
}

function correlationAt(a: InkMap, b: InkMap, dx: number, dy: number): number {
  let [n, sa, sb, aa, bb, ab] = [0, 0, 0, 0, 0, 0];
  for (let y = mostCells; y < down - mostCells; y++)
    for (let x = mostCells; x < across - mostCells; x++) {
      const u = a[y * across + x] ?? 0;
      const v = b[(y + dy) * across + x + dx] ?? 0;
      n++;
      sa += u;
      sb += v;
      aa += u * u;
      bb += v * v;
      ab += u * v;
    }
  const spread = (aa - (sa * sa) / n) * (bb - (sb * sb) / n);
  return spread > 0 ? (ab - (sa * sb) / n) / Math.sqrt(spread) : 0;
}

/** Less alike than that is another page; set on pages that are full of writing. Common practice, no source. */
const alike = 0.3;
/** A page is turned only where that is clear. */
const clearly = 0.15;

/** Whether a page is more like the first of the blank pages than like any other. */
export function looksFirst(page: InkMap, blanks: readonly (InkMap | null)[]): boolean {
  const [first = -1, ...others] = blanks.map((blank) =>
    blank ? Math.max(likeness(page, blank), likeness(turned(page), blank)) : -1,
  );
  return first >= alike && others.every((other) => other < first);
}

/** Whether a page lies upside down: turned, it is clearly more like its blank page. */
export const liesUpsideDown = (page: InkMap, blank: InkMap): boolean =>
  likeness(turned(page), blank) > likeness(page, blank) + clearly;

/** Turned by half a turn. */
const turned = (map: InkMap): InkMap => Float32Array.from(map).reverse();
