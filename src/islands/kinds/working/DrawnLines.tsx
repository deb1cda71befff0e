import { memo } from 'react';
import type { Drawing, Stroke } from '@/core/kinds/working/drawing';
import { inkPath } from '@/core/kinds/working/inkPath';

/** A drawing's lines as ink, in units of its sheet. */
export const DrawnLines = memo(function DrawnLines({ drawing }: { drawing: Drawing }) {
  return drawing.map((stroke, index) => <Line key={index} stroke={stroke} />);
});

const Line = memo(function Line({ stroke }: { stroke: Stroke }) {
  return <path d={inkPath(stroke)} fill="currentcolor" />;
});
