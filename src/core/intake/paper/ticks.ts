import { sum } from 'remeda';
import type { Rect } from '../../basics/rect';
import type { TickState } from '../../model/scan';
import { greyAt, mapped, type Gray, type Homography } from './geometry';

/** One box as it was read. */
export interface BoxReading {
  state: TickState;
  /** Share of its inside that is ink, 0 to 1. */
  ink: number;
  /** How clearly its own frame was found, 0 to 1: without it nothing said of it is sure. */
  frame: number;
  /** Where it was found, from where it should be, in mm. */
  dx: number;
  dy: number;
}

/**
 * Below the first nothing was ticked, above the second something was; from the third on the box was filled to take the tick back.
 * What lies between is asked. Set on the stand-in's class, so that none of 30,000 boxes is read wrongly; common practice, no
 * source.
 */
const limits = { empty: 0.022, ticked: 0.075, marked: 0.8, filled: 0.9 };
/** A pixel is ink that is so much darker than the paper around it. */
const inkFrom = 0.17;
const frameFrom = 0.2;
/** So far from where it should be a frame is looked for, in mm: paper bends. */
const reachMm = 1.2;
const stepMm = 0.2;
const insetMm = 0.75;

/** Reads one box of a page. */
export function readBox(gray: Gray, map: Homography, rect: Rect): BoxReading {
  const paper = paperAround(gray, map, rect);
  if (paper < 40) return { state: 'doubtful', ink: 0, frame: 0, dx: 0, dy: 0 };
  const { dx, dy, frame } = frameNear(gray, map, rect, paper);
  const ink = inkIn(gray, map, { ...rect, x: rect.x + dx, y: rect.y + dy }, paper);
  return { state: frame < frameFrom ? 'doubtful' : stateOf(ink), ink, frame, dx, dy };
}

export function stateOf(ink: number): TickState {
  if (ink < limits.empty) return 'empty';
  if (ink < limits.ticked) return 'doubtful';
  if (ink < limits.marked) return 'ticked';
  return ink < limits.filled ? 'doubtful' : 'filled';
}

/** How bright the paper is around a box: most of what lies just outside it. */
function paperAround(gray: Gray, map: Homography, { x, y, w, h }: Rect): number {
  const values: number[] = [];
  for (const out of [1.1, 1.7, 2.3])
    for (let step = 0; step < 10; step++) {
      const along = step / 9;
      for (const [px, py] of [
        [x - out, y + h * along],
        [x + w * along, y - out],
        [x + w * along, y + h + out],
      ] as const) {
        const at = mapped(map, px, py);
        values.push(greyAt(gray, at.x, at.y));
      }
    }
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length * 0.7)] ?? 255;
}

/** Where the frame of a box really lies, near to where it should. */
function frameNear(
  gray: Gray,
  map: Homography,
  rect: Rect,
  paper: number,
): { dx: number; dy: number; frame: number } {
  let best = { dx: 0, dy: 0, frame: frameAt(gray, map, rect, 0, 0, paper) };
  // First in coarse steps, then around the best of them.
  for (const [reach, step] of [
    [reachMm, stepMm * 2],
    [stepMm * 1.5, stepMm / 2],
  ] as const) {
    const { dx: fromX, dy: fromY } = best;
    for (let dx = fromX - reach; dx <= fromX + reach + 1e-9; dx += step)
      for (let dy = fromY - reach; dy <= fromY + reach + 1e-9; dy += step) {
        // A frame where it should be wins over one a little darker elsewhere.
        const frame = frameAt(gray, map, rect, dx, dy, paper) - Math.hypot(dx, dy) * 0.02;
        if (frame > best.frame) best = { dx, dy, frame };
      }
  }
  return best;
}

const samples = 9;

/** How dark the four sides of a frame are on the whole; the palest side counts twice, for letters have no four. */
function frameAt(gray: Gray, map: Homography, rect: Rect, dx: number, dy: number, paper: number): number {
  const [x, y, w, h] = [rect.x + dx, rect.y + dy, rect.w, rect.h];
  const sides = [0, 0, 0, 0];
  for (let step = 0; step < samples; step++) {
    const along = (step + 0.5) / samples;
    const places = [
      [x + w * along, y],
      [x + w, y + h * along],
      [x + w * along, y + h],
      [x, y + h * along],
    ] as const;
    places.forEach(([px, py], side) => {
      const at = mapped(map, px, py);
      sides[side] = (sides[side] ?? 0) + Math.max(0, 1 - greyAt(gray, at.x, at.y) / paper) / samples;
    });
  }
  return (sum(sides) + Math.min(...sides)) / 5;
}

const grid = 22;

/** The share of the inside of a box that is ink. */
function inkIn(gray: Gray, map: Homography, { x, y, w, h }: Rect, paper: number): number {
  let ink = 0;
  for (let row = 0; row < grid; row++)
    for (let column = 0; column < grid; column++) {
      const at = mapped(
        map,
        x + insetMm + ((w - 2 * insetMm) * (column + 0.5)) / grid,
        y + insetMm + ((h - 2 * insetMm) * (row + 0.5)) / grid,
      );
      if (greyAt(gray, at.x, at.y) < paper * (1 - inkFrom)) ink++;
    }
  return ink / (grid * grid);
}
