import { sumBy } from 'remeda';
import type { Drawing, Stroke } from './drawing';

/** The width of a sheet to draw on, in its own units; its height goes by its picture, or is this. */
export const sheetWidth = 1000;
export const sheetHeight = 620;
/** Nothing on a sheet lies farther out than this. */
export const highest = 4000;

/** Whether a drawing is within its bounds: 2,000 lines, 10,000 numbers in one of them, 60,000 in all. */
export const fitsASheet = (drawing: readonly (readonly number[])[]): boolean =>
  drawing.length <= 2_000 &&
  drawing.every(({ length }) => length <= 10_000) &&
  sumBy(drawing, ({ length }) => length) <= 60_000;

/** How high a sheet is whose picture has this size. */
export function heightOf(picture: { width: number; height: number } | undefined): number {
  if (!picture) return sheetHeight;
  return Math.min(highest, Math.max(100, Math.round((sheetWidth * picture.height) / picture.width)));
}

/** A line without the points that say nothing: whole units, none nearer than `apart` to the one before. */
export function thinned(points: readonly (readonly [x: number, y: number])[], apart = 3): Stroke {
  const kept: Stroke = [];
  const unit = (value: number) => Math.min(highest, Math.max(0, Math.round(value)));
  points.forEach(([x, y], index) => {
    const [lastX, lastY] = kept.slice(-2);
    const far = lastX === undefined || lastY === undefined || Math.hypot(x - lastX, y - lastY) >= apart;
    if (far || (index === points.length - 1 && kept.length === 2)) kept.push(unit(x), unit(y));
  });
  return kept;
}

/** The drawing without the lines that pass within `reach` of a place. */
export function withoutLinesAt(drawing: Drawing, x: number, y: number, reach: number): Drawing {
  return drawing.filter((stroke) => distanceTo(stroke, x, y) > reach);
}

/** How near a line passes to a place. */
export function distanceTo(stroke: readonly number[], x: number, y: number): number {
  let nearest = Infinity;
  for (let at = 0; at < stroke.length; at += 2) {
    const [ax, ay] = [stroke[at] ?? 0, stroke[at + 1] ?? 0];
    const [bx, by] = [stroke[at + 2] ?? ax, stroke[at + 3] ?? ay];
    const squared = (bx - ax) ** 2 + (by - ay) ** 2;
    const along =
      squared === 0 ? 0 : Math.min(1, Math.max(0, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / squared));
    nearest = Math.min(nearest, Math.hypot(x - ax - along * (bx - ax), y - ay - along * (by - ay)));
  }
  return nearest;
}
