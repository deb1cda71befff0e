import type { Gray } from '@/core/intake/paper/geometry';
import type { ReadBoxes } from '@/core/intake/paper/readPage';
import { hasInk, hasMoreInk, straightened } from '@/core/intake/paper/straightened';
import type { Region } from '@/core/model/answerPaper';
import type { Scan } from '@/core/model/scan';
import { keepAsset } from '@/store/assets';
import { jpegOf } from './scanPages';

/** What is kept of a scanned page. */

/** A page set straight, with what stands in its boxes and areas. */
export async function keptPage(
  gray: Gray,
  map: ReadBoxes['placed']['map'],
  regions: readonly Region[],
  read: ReadBoxes | null,
  number: number,
  /** Of a paper that was printed elsewhere. */
  blank: Gray | null = null,
): Promise<Pick<Scan, 'boxes' | 'areas' | 'picture'>> {
  const straight = straightened(gray, map);
  const boxed = regions.filter(({ box }) => box !== null);
  return {
    boxes: boxed.map((_, at) => {
      const { state = 'doubtful', ink = 0 } = read?.boxes[at] ?? {};
      return { state, ink: Math.round(ink * 1000) / 1000 };
    }),
    areas: inked(straight, regions, blank),
    picture: await keptPicture(straight, number),
  };
}

/** Whether somebody wrote in each area of a page: held against the blank page where something is printed there. */
export const inked = (page: Gray, regions: readonly Region[], blank: Gray | null): boolean[] =>
  regions
    .filter(({ box }) => box === null)
    .map((area) => (blank ? hasMoreInk(page, blank, area) : hasInk(page, area)));

/** Called by its number: the name of a file can say whose it is. */
export const keptPicture = async (gray: Gray, number: number) =>
  keepAsset({ name: `scan ${number}.jpg`, mediaType: 'image/jpeg', bytes: await jpegOf(gray) });

/** A page turned by half a turn. */
export const upsideDown = ({ width, height, data }: Gray): Gray => ({
  ...{ width, height },
  data: Uint8Array.from(data).reverse(),
});
