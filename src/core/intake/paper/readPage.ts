import type { AnswerPaper, Region } from '../../model/answerPaper';
import { homography, mapped, type Gray, type Homography, type Point } from './geometry';
import { codeFrom, pageSize, type PageCode } from './sheet';
import { codeCorners, placed, type FoundCode, type Placed } from './straight';
import { readBox, type BoxReading } from './ticks';

/** Finds the codes in a picture: a library's work. */
export type FindCodes = (gray: Gray) => Promise<FoundCode[]>;

/** What a scanned page turned out to be. */
export type PageOutcome =
  | { is: 'read'; code: PageCode; placed: Placed; boxes: (BoxReading & { region: Region })[] }
  /** No code was found, or only others than ours. */
  | { is: 'noCode' }
  /** It is a page of a print that is not here. */
  | { is: 'otherPrint'; code: PageCode }
  /** Its corner marks were not found: cut off, or too dark. */
  | { is: 'notStraight'; code: PageCode };

/** A page bent further than that is asked about: its boxes lie elsewhere than its marks say. */
const mostBentMm = 3;

/**
 * Reads one scanned page: which it is, how it lies, and what stands in each of its boxes.
 *
 * @param prints the printed papers there are, by id
 */
export async function readPage(
  gray: Gray,
  prints: ReadonlyMap<string, AnswerPaper>,
  findCodes: FindCodes,
): Promise<PageOutcome> {
  for (const found of await codesOnPage(gray, findCodes)) {
    const code = codeFrom(found.text);
    if (!code) continue;
    const print = prints.get(code.printId);
    const regions = print?.pages[code.page - 1];
    if (!print || !regions || code.copy > print.copies.length) return { is: 'otherPrint', code };
    const boxed = regions.filter(({ box }) => box !== null);
    const lies = placed(gray, found);
    const read = lies && lies.bentMm <= mostBentMm ? readBoxes(gray, lies, boxed) : null;
    return read ? { is: 'read', code, ...read } : { is: 'notStraight', code };
  }
  return { is: 'noCode' };
}

/** Where the code stands on a page that lies upright or upside down, as shares of it. */
const codePlaces = [
  { x: 0.55, y: 0 },
  { x: 0, y: 0.78 },
];
const codePlace = { w: 0.45, h: 0.22 };

/** The codes of a page: looked for where ours stand first, which is a fifth of the work. */
async function codesOnPage(gray: Gray, findCodes: FindCodes): Promise<FoundCode[]> {
  for (const { x, y } of codePlaces) {
    const [left, top] = [Math.floor(x * gray.width), Math.floor(y * gray.height)];
    const found = await findCodes(cut(gray, left, top));
    if (found.some(({ text }) => codeFrom(text)))
      return found.map(({ text, corners }) => ({
        text,
        corners: corners.map((corner) => ({ x: corner.x + left, y: corner.y + top })),
      }));
  }
  return findCodes(gray);
}

function cut({ width, height, data }: Gray, left: number, top: number): Gray {
  const w = Math.min(width - left, Math.ceil(codePlace.w * width));
  const h = Math.min(height - top, Math.ceil(codePlace.h * height));
  const out = new Uint8Array(w * h);
  for (let row = 0; row < h; row++) {
    const from = (top + row) * width + left;
    out.set(data.subarray(from, from + w), row * w);
  }
  return { width: w, height: h, data: out };
}

/** What is read of a page that somebody said which it is. */
export type ReadBoxes = Pick<Extract<PageOutcome, { is: 'read' }>, 'placed' | 'boxes'>;

/**
 * Reads a page whose code can't be read, by what somebody said it is: it fills its picture, whichever way up. Null where its marks are
 * not found so.
 */
export function readPageAs(gray: Gray, regions: readonly Region[]): ReadBoxes | null {
  const boxed = regions.filter(({ box }) => box !== null);
  for (const turn of [0, 1, 2, 3]) {
    const corners = codeCorners.map((corner) => inPicture(corner, gray, turn));
    const lies = placed(gray, { text: '', corners });
    const read = lies && readBoxes(gray, lies, boxed);
    if (read) return read;
  }
  return null;
}

/** Where a place of a page lies that fills its picture, turned so many quarters clockwise. */
function inPicture({ x, y }: Point, { width, height }: Gray, turn: number): Point {
  const [across, down] = [x / pageSize.w, y / pageSize.h];
  const [u, v] = [
    [across, down],
    [1 - down, across],
    [1 - across, 1 - down],
    [down, 1 - across],
  ][turn] ?? [across, down];
  return { x: (u ?? 0) * width, y: (v ?? 0) * height };
}

/** How a page lies that fills its picture upright: where nothing of it was found. */
export const fillsPicture = ({ width, height }: Gray): Homography => [
  ...[width / pageSize.w, 0, 0, 0, height / pageSize.h, 0, 0, 0],
];

/** On a page that was read, this share of the frames is seen this clearly. */
const seen = { share: 0.5, frame: 0.45 };
/** A frame that is much paler than the page's others is another thing. */
const paler = 0.55;

/**
 * Reads the boxes; where their frames lie elsewhere than the marks say (a mark is missing, the page is bent), the page is placed
 * again by the frames that were found. Null where they are not found at all.
 */
function readBoxes(gray: Gray, lies: Placed, regions: readonly Region[]): ReadBoxes | null {
  let at = lies;
  for (let tries = 0; ; tries++) {
    const boxes = regions.map((region) => ({ region, ...readBox(gray, at.map, region) }));
    const frames = boxes.map(({ frame }) => frame).sort((a, b) => a - b);
    const middle = frames[Math.floor(frames.length * (1 - seen.share))] ?? 1;
    const good = middle >= seen.frame && boxes.every(({ frame }) => frame >= middle * paler);
    if (good || tries === 3)
      return middle < seen.frame
        ? null
        : {
            placed: at,
            boxes: boxes.map((box) => (box.frame < middle * paler ? { ...box, state: 'doubtful' } : box)),
          };
    const again = placedByFrames(at, boxes);
    if (!again) return null;
    at = again;
  }
}

/** The page placed again by the frames that were clearly found. */
function placedByFrames(at: Placed, boxes: readonly (BoxReading & { region: Region })[]): Placed | null {
  const clear = boxes.filter(({ frame }) => frame >= seen.frame);
  const found = clear.map(({ region: { x, y, w, h }, dx, dy }) => ({
    mm: { x: x + w / 2, y: y + h / 2 },
    px: mapped(at.map, x + w / 2 + dx, y + h / 2 + dy),
  }));
  const all = [...at.pairs, ...found];
  const map = homography(
    all.map(({ mm }) => mm),
    all.map(({ px }) => px),
  );
  return map && { ...at, map };
}
