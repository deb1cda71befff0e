import { sumBy } from 'remeda';
import { homography, mapped, type Gray, type Homography, type Point } from './geometry';
import { codeRect, corners, cornerSize } from './sheet';

/** A code that was found in a picture, with its corners as the code itself has them: upper left first, clockwise. */
export interface FoundCode {
  text: string;
  corners: readonly Point[];
}

/** How a page lies in its scan. */
export interface Placed {
  /** From mm on the page to pixels. */
  map: Homography;
  /** How many of the four corner marks were found. */
  marks: number;
  /** How far the code lies from where the marks say it is, in mm: a bent page has it elsewhere. */
  bentMm: number;
  /** What it was placed by. */
  pairs: readonly Pair[];
}

/** The corners of the code on a page, in mm. */
export const codeCorners: readonly Point[] = [
  { x: codeRect.x, y: codeRect.y },
  { x: codeRect.x + codeRect.w, y: codeRect.y },
  { x: codeRect.x + codeRect.w, y: codeRect.y + codeRect.h },
  { x: codeRect.x, y: codeRect.y + codeRect.h },
];
const middles: Point[] = corners.map(({ x, y, w, h }) => ({ x: x + w / 2, y: y + h / 2 }));

/**
 * How a page lies in a picture, by its code and its corner marks: turned, upside down, askew or in perspective. The mark beside the
 * code is looked for first; each that is found says better where the next must be. Null where fewer than three are there.
 */
export function placed(gray: Gray, code: FoundCode): Placed | null {
  const pairs: Pair[] = code.corners.map((px, index) => ({ mm: codeCorners[index] ?? { x: 0, y: 0 }, px }));
  const found: Pair[] = [];
  // Upper right, lower right, upper left, lower left: from the code outwards.
  for (const [index, windowMm] of [
    [1, 6],
    [2, 18],
    [0, 16],
    [3, 14],
  ] as const) {
    const mm = middles[index];
    const guess = found.length > 2 ? mapping([...found, ...pairs]) : similarity([...pairs, ...found]);
    if (!mm || !guess) continue;
    const px = markNear(gray, guess, mm, windowMm);
    if (px) found.push({ mm, px });
  }
  if (found.length < 3) return null;
  const by = found.length === 4 ? found : [...found, ...pairs];
  const map = mapping(by);
  if (!map) return null;
  const scale = scaleOf(map, codeCorners[0] ?? { x: 0, y: 0 });
  const bent = pairs.map(({ mm, px }) => {
    const there = mapped(map, mm.x, mm.y);
    return Math.hypot(there.x - px.x, there.y - px.y) / scale;
  });
  return { map, marks: found.length, bentMm: Math.max(...bent), pairs: by };
}

/** A place on the page and in the picture. */
export interface Pair {
  mm: Point;
  px: Point;
}

/**
 * The turn, size and shift that fit pairs best, by least squares: what a few points close together say of a whole page without
 * running wild.
 */
function similarity(pairs: readonly Pair[]): Homography | null {
  const mean = (of: (pair: Pair) => number) => sumBy(pairs, (pair) => of(pair)) / pairs.length;
  const from = { x: mean(({ mm }) => mm.x), y: mean(({ mm }) => mm.y) };
  const to = { x: mean(({ px }) => px.x), y: mean(({ px }) => px.y) };
  let [along, across, size] = [0, 0, 0];
  for (const { mm, px } of pairs) {
    const [x, y, u, v] = [mm.x - from.x, mm.y - from.y, px.x - to.x, px.y - to.y];
    along += x * u + y * v;
    across += x * v - y * u;
    size += x * x + y * y;
  }
  if (size === 0) return null;
  const [a, b] = [along / size, across / size];
  return [a, -b, to.x - a * from.x + b * from.y, b, a, to.y - b * from.x - a * from.y, 0, 0];
}

const mapping = (pairs: readonly Pair[]) =>
  homography(
    pairs.map(({ mm }) => mm),
    pairs.map(({ px }) => px),
  );

/** Pixels per mm near a place. */
export function scaleOf(map: Homography, { x, y }: Point): number {
  const [a, b] = [mapped(map, x, y), mapped(map, x + 1, y)];
  return Math.hypot(a.x - b.x, a.y - b.y);
}

/** The middle of the solid square nearest to where a mark should be, in pixels; null where none is. */
function markNear(gray: Gray, map: Homography, mm: Point, windowMm: number): Point | null {
  const at = mapped(map, mm.x, mm.y);
  const scale = scaleOf(map, mm);
  if (!Number.isFinite(at.x + at.y + scale) || scale < 1 || scale > 60) return null;
  const reach = Math.ceil(windowMm * scale);
  const [left, top] = [Math.max(0, Math.floor(at.x) - reach), Math.max(0, Math.floor(at.y) - reach)];
  const [right, bottom] = [
    Math.min(gray.width, Math.ceil(at.x) + reach),
    Math.min(gray.height, Math.ceil(at.y) + reach),
  ];
  const [w, h] = [right - left, bottom - top];
  if (w < 3 || h < 3) return null;
  const dark = darkIn(gray, left, top, w, h);
  const side = cornerSize * scale;
  let best: { point: Point; far: number } | null = null;
  for (const blob of blobs(dark, w, h)) {
    const [bw, bh] = [blob.right - blob.left + 1, blob.bottom - blob.top + 1];
    const share = blob.area / (side * side);
    if (share < 0.55 || share > 1.7 || bw / bh < 0.6 || bw / bh > 1.7) continue;
    // A square turned by a little fills most of the box around it; letters and codes don't.
    if (blob.area / (bw * bh) < 0.66) continue;
    const point = { x: left + blob.sumX / blob.area, y: top + blob.sumY / blob.area };
    const far = Math.hypot(point.x - at.x, point.y - at.y);
    if (!best || far < best.far) best = { point, far };
  }
  return best?.point ?? null;
}

/** Which pixels of a window are ink: darker than half way between its paper and its darkest. */
function darkIn(gray: Gray, left: number, top: number, w: number, h: number): Uint8Array {
  const counts = new Uint32Array(256);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const value = gray.data[(top + y) * gray.width + left + x] ?? 255;
      counts[value] = (counts[value] ?? 0) + 1;
    }
  const level = (share: number) => {
    let sum = 0;
    for (let value = 0; value < 256; value++) {
      sum += counts[value] ?? 0;
      if (sum >= share * w * h) return value;
    }
    return 255;
  };
  const limit = (level(0.005) + level(0.7)) / 2;
  const dark = new Uint8Array(w * h);
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++)
      dark[y * w + x] = (gray.data[(top + y) * gray.width + left + x] ?? 255) < limit ? 1 : 0;
  return dark;
}

interface Blob {
  area: number;
  sumX: number;
  sumY: number;
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Runs of ink that hang together, by their edges. */
function blobs(dark: Uint8Array, w: number, h: number): Blob[] {
  const all: Blob[] = [];
  const stack: number[] = [];
  for (let start = 0; start < dark.length; start++) {
    if (dark[start] !== 1) continue;
    const blob: Blob = { area: 0, sumX: 0, sumY: 0, left: w, top: h, right: 0, bottom: 0 };
    dark[start] = 2;
    stack.push(start);
    for (let at = stack.pop(); at !== undefined; at = stack.pop()) {
      const [x, y] = [at % w, Math.floor(at / w)];
      blob.area++;
      blob.sumX += x;
      blob.sumY += y;
      blob.left = Math.min(blob.left, x);
      blob.right = Math.max(blob.right, x);
      blob.top = Math.min(blob.top, y);
      blob.bottom = Math.max(blob.bottom, y);
      for (const next of [x > 0 ? at - 1 : -1, x < w - 1 ? at + 1 : -1, at - w, at + w])
        if (next >= 0 && next < dark.length && dark[next] === 1) {
          dark[next] = 2;
          stack.push(next);
        }
    }
    all.push(blob);
  }
  return all;
}
