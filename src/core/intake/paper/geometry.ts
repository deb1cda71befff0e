import { sumBy } from 'remeda';

/** A place in a picture, in pixels, or on a page, in mm. */
export interface Point {
  x: number;
  y: number;
}

/** A picture in greys: 0 black, 255 white, row by row. */
export interface Gray {
  width: number;
  height: number;
  data: Uint8Array | Uint8ClampedArray;
}

/** How a page lies in a picture: eight numbers of a projective map, from mm to pixels. */
export type Homography = readonly number[];

/**
 * The projective map that takes each point of one plane to its partner in another: with four pairs exactly, with more by least
 * squares over the linear equations (Hartley and Zisserman, Multiple View Geometry, 2nd ed., 4.1, with h33 = 1). Null where the
 * points lie so that there is none.
 */
export function homography(from: readonly Point[], to: readonly Point[]): Homography | null {
  const equations = from.flatMap(({ x, y }, index) => {
    const { x: u, y: v } = to[index] ?? { x: 0, y: 0 };
    return [
      [x, y, 1, 0, 0, 0, -u * x, -u * y, u],
      [0, 0, 0, x, y, 1, -v * x, -v * y, v],
    ];
  });
  const normal = Array.from({ length: 8 }, (_, i) =>
    Float64Array.from({ length: 9 }, (__, j) => sumBy(equations, (row) => (row[i] ?? 0) * (row[j] ?? 0))),
  );
  return solved(normal);
}

/** Gaussian elimination with pivots on a system of eight equations. */
function solved(rows: Float64Array[]): number[] | null {
  const n = rows.length;
  const at = (i: number, j: number) => rows[i]?.[j] ?? 0;
  for (let column = 0; column < n; column++) {
    let pivot = column;
    for (let row = column + 1; row < n; row++)
      if (Math.abs(at(row, column)) > Math.abs(at(pivot, column))) pivot = row;
    if (Math.abs(at(pivot, column)) < 1e-12) return null;
    const [a, b] = [rows[column], rows[pivot]];
    if (!a || !b) return null;
    [rows[column], rows[pivot]] = [b, a];
    for (let row = 0; row < n; row++) {
      if (row === column) continue;
      const factor = at(row, column) / at(column, column);
      if (factor === 0) continue;
      const target = rows[row];
      if (target) for (let j = column; j <= n; j++) target[j] = at(row, j) - factor * at(column, j);
    }
  }
  return rows.map((_, i) => at(i, n) / at(i, i));
}

/** Where a point lies by a projective map. */
export function mapped(h: Homography, x: number, y: number): Point {
  const [a = 0, b = 0, c = 0, d = 0, e = 0, f = 0, g = 0, i = 0] = h;
  const w = g * x + i * y + 1;
  return { x: (a * x + b * y + c) / w, y: (d * x + e * y + f) / w };
}

/** The grey at a place between pixels; outside it is white. */
export function greyAt({ width, height, data }: Gray, x: number, y: number): number {
  const [left, top] = [Math.floor(x), Math.floor(y)];
  if (left < 0 || top < 0 || left >= width - 1 || top >= height - 1) return 255;
  const [dx, dy] = [x - left, y - top];
  const at = top * width + left;
  const upper = (data[at] ?? 255) * (1 - dx) + (data[at + 1] ?? 255) * dx;
  const lower = (data[at + width] ?? 255) * (1 - dx) + (data[at + width + 1] ?? 255) * dx;
  return upper * (1 - dy) + lower * dy;
}
