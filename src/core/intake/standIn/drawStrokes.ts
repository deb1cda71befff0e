import type { Stroke } from './madeUpCopy';

/** What of a canvas is drawn on. */
export interface DrawnOn {
  lineCap: string;
  lineJoin: string;
  strokeStyle: unknown;
  lineWidth: number;
  beginPath: () => void;
  moveTo: (x: number, y: number) => void;
  lineTo: (x: number, y: number) => void;
  stroke: () => void;
}

/** Draws strokes on the picture of a page. @param perMm pixels a mm */
export function drawStrokes(context: DrawnOn, strokes: readonly Stroke[], perMm: number): void {
  context.lineCap = context.lineJoin = 'round';
  for (const { points, width, grey } of strokes) {
    const level = Math.round(grey * 255);
    context.strokeStyle = `rgb(${level}, ${level}, ${level})`;
    context.lineWidth = width * perMm;
    context.beginPath();
    points.forEach(({ x, y }, index) =>
      index === 0 ? context.moveTo(x * perMm, y * perMm) : context.lineTo(x * perMm, y * perMm),
    );
    context.stroke();
  }
}
