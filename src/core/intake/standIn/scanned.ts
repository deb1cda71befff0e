import type { Chance } from '../../basics/chance';
import { greyAt, homography, mapped, type Gray, type Point } from '../paper/geometry';

/** What a scanner or a phone does to a page. */
export interface ScanFaults {
  /** Degrees, either way. */
  turn: number;
  /** Share by which it is larger or smaller, either way. */
  scale: number;
  /** How far the corners are out of square, as a share of the width: a photo. */
  perspective: number;
  /** Standard deviation of the noise, in greys. */
  noise: number;
  /** How much darker the darkest side is, as a share. */
  shadow: number;
  /** Whether there is a fold across the page. */
  fold: number;
  upsideDown: number;
}
export const usualFaults: ScanFaults = {
  ...{ turn: 3, scale: 0.02, perspective: 0, noise: 5, shadow: 0.12, fold: 0.1, upsideDown: 0.05 },
};
export const phoneFaults: ScanFaults = {
  ...{ turn: 3, scale: 0.02, perspective: 0.03, noise: 6, shadow: 0.3, fold: 0.1, upsideDown: 0.1 },
};

/** A page as a scanner or a phone gives it. */
export function scanned(page: Gray, faults: ScanFaults, chance: Chance): Gray {
  const { width, height } = page;
  const either = (by: number) => (chance.share() - 0.5) * 2 * by;
  const turn = (either(faults.turn) * Math.PI) / 180 + (chance.happens(faults.upsideDown) ? Math.PI : 0);
  const scale = 1 + either(faults.scale);
  const middle = { x: width / 2, y: height / 2 };
  const out = faults.perspective * width;
  const turned = (x: number, y: number): Point => ({
    x: middle.x + scale * ((x - middle.x) * Math.cos(turn) - (y - middle.y) * Math.sin(turn)) + either(out),
    y: middle.y + scale * ((x - middle.x) * Math.sin(turn) + (y - middle.y) * Math.cos(turn)) + either(out),
  });
  const square: Point[] = [
    { x: 0, y: 0 },
    { x: width, y: 0 },
    { x: width, y: height },
    { x: 0, y: height },
  ];
  // From the scan back to the page.
  const back = homography(
    square.map(({ x, y }) => turned(x, y)),
    square,
  );
  const data = new Uint8Array(width * height);
  const across = chance.happens(0.5);
  const foldAt = chance.happens(faults.fold) ? (0.3 + 0.4 * chance.share()) * height : -100;
  const paper = 238 + either(8);
  const dim = faults.shadow * chance.share();
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const from = back ? mapped(back, x, y) : { x, y };
      const value = greyAt(page, from.x, from.y) / 255;
      const side = across ? x / width : y / height;
      const fold = Math.max(0, 1 - Math.abs(y - foldAt) / 6) * 0.12;
      const light = paper * (1 - dim * side) * (1 - fold);
      data[y * width + x] = Math.max(0, Math.min(255, value * light + roughly(chance) * faults.noise));
    }
  return { width, height, data };
}

/** Nearly normal with mean 0 and deviation 1: the sum of three even draws, which is quick. */
const roughly = (chance: Chance) => (chance.share() + chance.share() + chance.share() - 1.5) * 2;
