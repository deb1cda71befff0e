import { useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { Rect } from '@/core/basics/rect';
import { pageSize } from '@/core/intake/paper/sheet';
import { PagePart } from '../kinds/PaperPictures';
import { DrawingPointer } from '@/ui/drawingPointer';
import styles from './onPaper.module.css';

/** A region as it is drawn: what stands in it, and where. */
export interface Drawn {
  id: string;
  of: string;
  /** From 1. */
  page: number;
  /** In mm. */
  at: Rect;
}

interface RegionPageProps {
  fileId: string;
  page: number;
  regions: readonly Drawn[];
  labelOf: (of: string) => string;
  put: (at: Rect) => void;
  change: (id: string, at: Rect) => void;
  remove: (id: string) => void;
}

/** Smaller than that was a press, and no region. */
const leastMm = 4;
const [far, near] = [5, 1];

/** A blank page on which regions are drawn. */
export function RegionPage({ fileId, page, regions, labelOf, put, change, remove }: RegionPageProps) {
  const [drawing, setDrawing] = useState<{ from: [number, number]; to: [number, number] } | null>(null);
  const [pointer] = useState(() => new DrawingPointer());
  const placeOf = (event: PointerEvent<HTMLElement>): [number, number] => {
    const { left, top, width, height } = event.currentTarget.getBoundingClientRect();
    return [((event.clientX - left) / width) * pageSize.w, ((event.clientY - top) / height) * pageSize.h];
  };
  const up = (event: PointerEvent<HTMLElement>) => {
    if (!pointer.ends(event) || !drawing) return;
    const at = rectOf(drawing.from, drawing.to);
    setDrawing(null);
    if (at.w >= leastMm && at.h >= leastMm) put(at);
  };
  const onKey = (event: KeyboardEvent, { id, at }: Drawn) => {
    const by = event.ctrlKey ? near : far;
    const [dx, dy] = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    }[event.key] ?? [0, 0];
    if (event.key === 'Delete' || event.key === 'Backspace') remove(id);
    else if (dx === 0 && dy === 0) return;
    else if (event.shiftKey)
      change(
        id,
        within({ ...at, w: Math.max(leastMm, at.w + (dx ?? 0)), h: Math.max(leastMm, at.h + (dy ?? 0)) }),
      );
    else change(id, within({ ...at, x: at.x + (dx ?? 0), y: at.y + (dy ?? 0) }));
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div className={styles.blankPage}>
      <PagePart fileId={fileId} at={{ x: 0, y: 0, ...pageSize }} label={`Blank page ${page}`} />
      <div
        className={styles.glass}
        onPointerDown={(event) => {
          if (!pointer.begins(event)) return;
          event.currentTarget.setPointerCapture(event.pointerId);
          const from = placeOf(event);
          setDrawing({ from, to: from });
        }}
        onPointerMove={(event) =>
          pointer.draws(event) && drawing && setDrawing({ ...drawing, to: placeOf(event) })
        }
        onPointerUp={up}
        onPointerCancel={(event) => pointer.ends(event) && setDrawing(null)}
      />
      {regions
        .filter((each) => each.page === page)
        .map((each) => (
          <button
            key={each.id}
            type="button"
            className={styles.region}
            style={styleOf(each.at)}
            aria-label={`Region for ${labelOf(each.of)}: ${mm(each.at)}`}
            aria-describedby="region-keys"
            onKeyDown={(event) => onKey(event, each)}
          >
            {labelOf(each.of)}
          </button>
        ))}
      {drawing && <span className={styles.region} style={styleOf(rectOf(drawing.from, drawing.to))} />}
    </div>
  );
}

const rectOf = ([x1, y1]: readonly [number, number], [x2, y2]: readonly [number, number]): Rect =>
  within({ x: Math.min(x1, x2), y: Math.min(y1, y2), w: Math.abs(x1 - x2), h: Math.abs(y1 - y2) });

/** No part of a region lies beside the page. */
function within({ x, y, w, h }: Rect): Rect {
  const [width, height] = [Math.min(w, pageSize.w), Math.min(h, pageSize.h)];
  return {
    x: Math.min(pageSize.w - width, Math.max(0, x)),
    y: Math.min(pageSize.h - height, Math.max(0, y)),
    w: width,
    h: height,
  };
}

const styleOf = ({ x, y, w, h }: Rect) => ({
  left: `${(x / pageSize.w) * 100}%`,
  top: `${(y / pageSize.h) * 100}%`,
  width: `${(w / pageSize.w) * 100}%`,
  height: `${(h / pageSize.h) * 100}%`,
});

const mm = ({ x, y, w, h }: Rect) =>
  `${Math.round(w)} by ${Math.round(h)} mm, ${Math.round(x)} from the left, ${Math.round(y)} from the top`;
