import { findCodes } from '@/core/intake/paper/codes';
import type { Gray } from '@/core/intake/paper/geometry';
import {
  inkMapOf,
  isBlankSheet,
  liesUpsideDown,
  looksFirst,
  pileMark,
  placesInPile,
  type InkMap,
  type PileCut,
} from '@/core/intake/paper/piles';
import { fillsPicture } from '@/core/intake/paper/readPage';
import { stickerFrom } from '@/core/intake/paper/sheet';
import { straightened } from '@/core/intake/paper/straightened';
import type { AnswerPaper } from '@/core/model/answerPaper';
import type { Scan } from '@/core/model/scan';
import { desk } from '@/store/tables';
import { inked, keptPicture, upsideDown } from './keptPages';
import { keptGray, type FilePage } from './scanPages';

/** Pages of papers that were printed elsewhere. */

/** A paper that was printed elsewhere, with its blank pages. */
export interface Foreign {
  print: AnswerPaper;
  blanks: (Gray | null)[];
  /** Where their ink is; null where a blank page is no longer here. */
  inks: (InkMap | null)[];
}

export async function foreignOf(printId: string): Promise<Foreign | null> {
  const print = await desk.prints.get(printId);
  if (!print?.foreign) return null;
  const assets = await desk.assets.bulkGet(print.foreign.blanks.map(({ id }) => id));
  const blanks = await Promise.all(
    assets.map((asset) => (asset ? keptGray(Uint8Array.from(asset.bytes)) : null)),
  );
  return { print, blanks, inks: blanks.map((blank) => blank && inkMapOf(blank)) };
}

export const inOrder = (scans: readonly Scan[]) => [...scans].sort((a, b) => a.from.page - b.from.page);

/** The pages of a pile by where its papers begin, as far as it is read. */
export const placedInPile = (scans: readonly Scan[], print: AnswerPaper, now: string): Scan[] => {
  const places = placesInPile(
    scans.map(({ pile }) => pile),
    print,
  );
  return scans.map((scan, at) => ({
    ...scan,
    place: places[at] ?? null,
    ...(scan.pile === 'between' ? { thrownOutAt: now } : places[at] ? {} : { is: 'extraPage' }),
  }));
};

/** A page of a paper without codes: its copy and page are told by its place in the file and what it shows of itself. */
export async function readForeign(
  page: FilePage,
  index: number,
  { print, blanks, inks }: Foreign,
  cut: PileCut,
  before: readonly Scan[],
): Promise<Pick<Scan, 'is' | 'place' | 'boxes' | 'areas' | 'picture' | 'pile' | 'sticker'>> {
  const gray = await page.gray();
  let straight = straightened(gray, fillsPicture(gray));
  const ink = inkMapOf(straight);
  const sticker = (await findCodes(gray)).map(({ text }) => stickerFrom(text)).find((id) => id !== null);
  const pile = pileMark(
    cut,
    {
      blank: cut === 'blankSheets' && isBlankSheet(straight),
      first: cut === 'firstPages' && looksFirst(ink, inks),
      sticker: sticker !== undefined,
    },
    index,
    print.pages.length,
  );
  const place = placesInPile([...before.map((each) => each.pile), pile], print).at(-1) ?? null;
  const at = (place?.page ?? 0) - 1;
  const blank = inks[at];
  if (blank && liesUpsideDown(ink, blank)) straight = upsideDown(straight);
  return {
    ...{ is: 'read', place, boxes: [] },
    ...(pile && { pile }),
    ...(sticker !== undefined && { sticker }),
    areas: inked(straight, print.pages[at] ?? [], blanks[at] ?? null),
    picture: await keptPicture(straight, index + 1),
  };
}
