import type { Rect } from '../../basics/rect';
import { greyAt, type Gray, type Homography } from './geometry';
import { pageSize } from './sheet';

/** So many pixels a mm: about 150 dots an inch, which reads well and takes about 150 kB a page. */
export const keptPerMm = 150 / 25.4;

/** The brightness of the paper is taken of squares of so many mm, for shadows have soft edges. */
const cellMm = 7;

/**
 * A scanned page set straight and whole, lightened where it is dark: paper is white everywhere, ink stays ink.
 *
 * @param map from mm on the page to pixels
 * @param perMm pixels a mm of what comes out
 */
export function straightened(gray: Gray, map: Homography, perMm = keptPerMm): Gray {
  const [width, height] = [Math.round(pageSize.w * perMm), Math.round(pageSize.h * perMm)];
  const data = new Uint8Array(width * height);
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, h = 0] = map;
  for (let row = 0; row < height; row++) {
    const y = (row + 0.5) / perMm;
    for (let column = 0; column < width; column++) {
      const x = (column + 0.5) / perMm;
      const w = g * x + h * y + 1;
      data[row * width + column] = greyAt(gray, (a * x + b * y + c) / w, (d * x + e * y + f) / w);
    }
  }
  return lightened({ width, height, data }, perMm);
}

/** Pages whose paper is darker than that are nearly black somewhere: nothing is made of it. */
const darkest = 60;

/** Each pixel by how bright the paper is around it. */
function lightened(page: Gray, perMm: number): Gray {
  const { width, height, data } = page;
  const cell = Math.max(1, Math.round(cellMm * perMm));
  const [across, down] = [Math.ceil(width / cell), Math.ceil(height / cell)];
  const paper = new Float32Array(across * down);
  for (let row = 0; row < down; row++)
    for (let column = 0; column < across; column++)
      paper[row * across + column] = Math.max(darkest, paperOf(page, column * cell, row * cell, cell));
  const level = (column: number, row: number) =>
    paper[Math.min(down - 1, Math.max(0, row)) * across + Math.min(across - 1, Math.max(0, column))] ?? 255;
  const out = new Uint8Array(width * height);
  for (let y = 0; y < height; y++) {
    const atY = (y + 0.5) / cell - 0.5;
    const [top, dy] = [Math.floor(atY), atY - Math.floor(atY)];
    for (let x = 0; x < width; x++) {
      const atX = (x + 0.5) / cell - 0.5;
      const [left, dx] = [Math.floor(atX), atX - Math.floor(atX)];
      const upper = level(left, top) * (1 - dx) + level(left + 1, top) * dx;
      const lower = level(left, top + 1) * (1 - dx) + level(left + 1, top + 1) * dx;
      const at = y * width + x;
      out[at] = Math.min(255, ((data[at] ?? 255) * 255) / (upper * (1 - dy) + lower * dy));
    }
  }
  return { width, height, data: out };
}

/** The brightness of most of the paper of a square: nine tenths are no brighter. */
function paperOf({ width, height, data }: Gray, left: number, top: number, cell: number): number {
  const counts = new Uint16Array(256);
  let all = 0;
  // Every second pixel each way says as much.
  for (let y = top; y < Math.min(height, top + cell); y += 2)
    for (let x = left; x < Math.min(width, left + cell); x += 2) {
      const value = data[y * width + x] ?? 255;
      counts[value] = (counts[value] ?? 0) + 1;
      all++;
    }
  let sum = 0;
  for (let value = 255; value >= 0; value--) {
    sum += counts[value] ?? 0;
    if (sum >= all * 0.1) return value;
  }
  return 255;
}

/** Paler than that are the lines that are printed to write on. */
const penFrom = 0.62;
/** So much of an area has ink where somebody wrote in it; set on the stand-in's class, common practice, no source. */
const leastInk = 0.0012;
const insetMm = 1.2;

/** The share of an area of a page that was set straight that is ink, 0 to 1. */
export function inkShare({ width, data }: Gray, { x, y, w, h }: Rect, perMm = keptPerMm): number {
  const [left, right] = [Math.ceil((x + insetMm) * perMm), Math.floor((x + w - insetMm) * perMm)];
  const [top, bottom] = [Math.ceil((y + insetMm) * perMm), Math.floor((y + h - insetMm) * perMm)];
  let ink = 0;
  for (let row = top; row < bottom; row++)
    for (let column = left; column < right; column++)
      if ((data[row * width + column] ?? 255) < 255 * penFrom) ink++;
  return ink / Math.max(1, (right - left) * (bottom - top));
}

/** Whether somebody wrote in an area of a page that was set straight. */
export const hasInk = (page: Gray, area: Rect, perMm = keptPerMm): boolean =>
  inkShare(page, area, perMm) >= leastInk;

/** A page that lies a little elsewhere than its blank has a little more of what is printed in an area. */
const printedAgain = 1.25;

/** The same where something is printed in the area already: more ink than there is on the blank. */
export const hasMoreInk = (page: Gray, blank: Gray, area: Rect, perMm = keptPerMm): boolean =>
  inkShare(page, area, perMm) >= inkShare(blank, area, perMm) * printedAgain + 2 * leastInk;
