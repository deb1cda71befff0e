import { useId, useRef, useState, type PointerEvent } from 'react';
import type { Drawing } from '@/core/kinds/working/drawing';
import { fitsASheet, heightOf, sheetWidth, thinned, withoutLinesAt } from '@/core/kinds/working/strokes';
import type { PictureRef } from '@/core/basics/file';
import { counted } from '@/words/format';
import { DrawingPointer, isEraser } from '@/ui/drawingPointer';
import { Button } from '@/ui/plain/Button';
import { DrawnLines } from './DrawnLines';
import { Sheet } from './Sheet';
import styles from './working.module.css';

interface DrawingPadProps {
  drawing: Drawing;
  canvas: PictureRef | undefined;
  disabled: boolean;
  change: (drawing: Drawing) => void;
}

/** A sheet to draw on with a pen, a finger or the mouse. */
export function DrawingPad({ drawing, canvas, disabled, change }: DrawingPadProps) {
  const tools = useId();
  const [tool, setTool] = useState<'pen' | 'rubber'>('pen');
  // The line under the pen: it joins the drawing once the pen is lifted.
  const [line, setLine] = useState<[number, number][]>([]);
  const [full, setFull] = useState(false);
  // What was put away as a whole comes back as long as nothing was drawn since.
  const [putAway, setPutAway] = useState<Drawing>([]);
  const [pointer] = useState(() => new DrawingPointer());
  // The other end of a pen rubs, whichever tool is chosen.
  const using = useRef(tool);
  // The rubber passes over several lines between two drawings of the page.
  const latest = useRef(drawing);
  latest.current = drawing;

  const place = (event: PointerEvent<SVGSVGElement>): [number, number] => {
    const box = event.currentTarget.getBoundingClientRect();
    const scale = sheetWidth / (box.width || sheetWidth);
    return [(event.clientX - box.left) * scale, (event.clientY - box.top) * scale];
  };
  const keep = (next: Drawing) => {
    const fits = fitsASheet(next);
    setFull(!fits);
    if (!fits) return;
    latest.current = next;
    change(next);
  };
  const rub = (at: [number, number]) => {
    const left = withoutLinesAt(latest.current, ...at, 12);
    if (left.length < latest.current.length) keep(left);
  };
  const down = (event: PointerEvent<SVGSVGElement>) => {
    if (disabled || !pointer.begins(event)) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    using.current = isEraser(event) ? 'rubber' : tool;
    setLine(using.current === 'pen' ? [place(event)] : []);
    if (using.current === 'rubber') rub(place(event));
  };
  const move = (event: PointerEvent<SVGSVGElement>) => {
    if (!pointer.draws(event)) return;
    const at = place(event);
    if (using.current === 'pen') setLine((points) => [...points, at]);
    else rub(at);
  };
  const up = (event: PointerEvent<SVGSVGElement>) => {
    if (!pointer.ends(event)) return;
    if (line.length > 0) keep([...drawing, thinned(line)]);
    setLine([]);
  };
  return (
    <div className={styles.pad}>
      <Sheet
        drawing={drawing}
        canvas={canvas}
        label={`Your drawing, ${counted(drawing.length, 'line')}`}
        svg={{
          className: tool === 'pen' ? styles.pen : styles.rubber,
          onPointerDown: down,
          onPointerMove: move,
          onPointerUp: up,
          onPointerCancel: up,
          // The height is known from the width before anything is drawn.
          height: heightOf(canvas),
        }}
      >
        {line.length > 0 && <DrawnLines drawing={[thinned(line)]} />}
      </Sheet>
      <div className={styles.tools}>
        <div role="radiogroup" aria-label="Draw with" className={styles.tools}>
          {(['pen', 'rubber'] as const).map((each) => (
            <label key={each}>
              <input
                type="radio"
                name={tools}
                disabled={disabled}
                checked={tool === each}
                onChange={() => setTool(each)}
              />
              {each === 'pen' ? 'Pen' : 'Eraser'}
            </label>
          ))}
        </div>
        <Button
          size="compact-md"
          disabled={disabled || drawing.length === 0}
          onClick={() => keep(drawing.slice(0, -1))}
        >
          Undo line
        </Button>
        {drawing.length === 0 && putAway.length > 0 ? (
          <Button size="compact-md" disabled={disabled} onClick={() => keep(putAway)}>
            Bring {counted(putAway.length, 'line')} back
          </Button>
        ) : (
          <Button
            size="compact-md"
            disabled={disabled || drawing.length === 0}
            onClick={() => {
              setPutAway(drawing);
              keep([]);
            }}
          >
            Clear drawing
          </Button>
        )}
      </div>
      {full && <p role="alert">The page is full: erase something, or add a photo.</p>}
    </div>
  );
}
