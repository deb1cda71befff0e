import { getStroke } from 'perfect-freehand';
import type { Stroke } from './drawing';

/** The outline of the ink of one line, as the data of an SVG path. */
export function inkPath(stroke: Stroke): string {
  const points = Array.from({ length: stroke.length / 2 }, (_, at) => [
    stroke[2 * at] ?? 0,
    stroke[2 * at + 1] ?? 0,
  ]);
  const outline = getStroke(points, { size: 5, thinning: 0.3, smoothing: 0.5, streamline: 0.3 });
  const [first, ...rest] = outline.map(([x = 0, y = 0]) => `${x.toFixed(1)},${y.toFixed(1)}`);
  return first === undefined ? '' : `M${first}L${rest.join(' ')}Z`;
}
