import { getStroke } from 'perfect-freehand';
import { memo } from 'react';
import type { Drawing, Stroke } from '@/core/kinds/working/drawing';

/** A drawing's lines as ink, in units of its sheet. */
export const DrawnLines = memo(function DrawnLines({ drawing }: { drawing: Drawing }) {
  return drawing.map((stroke, index) => <Line key={index} stroke={stroke} />);
});

const Line = memo(function Line({ stroke }: { stroke: Stroke }) {
  return <path d={inkPath(stroke)} fill="currentcolor" />;
});

/** The outline of the ink of one line, as the data of an SVG path. */
function inkPath(stroke: Stroke): string {
  const points = Array.from({ length: stroke.length / 2 }, (_, at) => [
    stroke[2 * at] ?? 0,
    stroke[2 * at + 1] ?? 0,
  ]);
  const outline = getStroke(points, { size: 5, thinning: 0.3, smoothing: 0.5, streamline: 0.3 });
  const [first, ...rest] = outline.map(([x = 0, y = 0]) => `${x.toFixed(1)},${y.toFixed(1)}`);
  return first === undefined ? '' : `M${first}L${rest.join(' ')}Z`;
}
