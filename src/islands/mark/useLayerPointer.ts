import { useRef, useState, type PointerEvent, type RefObject } from 'react';
import type { Place } from '@/core/marking/work/layerPoints';
import { DrawingPointer, isEraser } from '@/ui/drawingPointer';
import type { MarkableProps } from '../kinds/Surface';
import type { LayerTool } from './layerTools';

/** A line that is being drawn: its places, and by which tool. */
export interface DrawnLine {
  is: 'pen' | 'arrow';
  places: Place[];
}

export const isLine = (tool: LayerTool): tool is DrawnLine['is'] => tool === 'pen' || tool === 'arrow';

interface Surface {
  view: MarkableProps['view'];
  setCross: (at: Place) => void;
  setLine: (line: DrawnLine | null) => void;
  /** What takes the keys. */
  box: RefObject<HTMLElement | null>;
}

interface Tools {
  tool: LayerTool;
  line: DrawnLine | null;
  put: (is: DrawnLine['is'], places: readonly Place[]) => void;
  set: (is: LayerTool, at: Place) => void;
}

/** Marks by mouse, finger and pen: lines as they are drawn, the others where they are let go. */
export function useLayerPointer({ view, setCross, setLine, box }: Surface) {
  const [pointer] = useState(() => new DrawingPointer());
  // The other end of a pen takes marks away, whichever tool is chosen.
  const using = useRef<LayerTool>('pen');
  return ({ tool, line, put, set }: Tools) => ({
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      if (!pointer.begins(event)) return;
      const is = isEraser(event) ? 'remove' : tool;
      using.current = is;
      if (is !== 'note') box.current?.focus({ preventScroll: true });
      event.currentTarget.setPointerCapture(event.pointerId);
      const at = placeOf(event, view);
      setCross(at);
      setLine(isLine(is) ? { is, places: [at] } : null);
    },
    onPointerMove: (event: PointerEvent<HTMLElement>) => {
      if (!pointer.draws(event)) return;
      const at = placeOf(event, view);
      if (line) setLine({ is: line.is, places: [...line.places, at] });
      else setCross(at);
    },
    /** Let go beside the surface nothing is set (WCAG 2.5.2). */
    onPointerUp: (event: PointerEvent<HTMLElement>) => {
      if (!pointer.ends(event)) return;
      setLine(null);
      if (line) put(line.is, line.places);
      else if (isOver(event) && !isLine(using.current)) set(using.current, placeOf(event, view));
    },
    onPointerCancel: (event: PointerEvent<HTMLElement>) => {
      if (pointer.ends(event)) setLine(null);
    },
  });
}

/** Where on the surface a pointer is, however the surface is turned. */
function placeOf(
  { currentTarget, nativeEvent }: PointerEvent<HTMLElement>,
  view: MarkableProps['view'],
): Place {
  const scale = (view?.w ?? 1000) / (currentTarget.offsetWidth || 1000);
  return [(view?.x ?? 0) + nativeEvent.offsetX * scale, (view?.y ?? 0) + nativeEvent.offsetY * scale];
}

/** Whether a pointer is over the surface that it was put down on. */
function isOver({ currentTarget, clientX, clientY }: PointerEvent<HTMLElement>): boolean {
  const { left, right, top, bottom } = currentTarget.getBoundingClientRect();
  return clientX >= left && clientX <= right && clientY >= top && clientY <= bottom;
}
