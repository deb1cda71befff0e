import type { ReactNode, SVGProps } from 'react';
import type { Drawing } from '@/core/kinds/working/drawing';
import { heightOf, sheetWidth } from '@/core/kinds/working/strokes';
import type { PictureRef } from '@/core/basics/file';
import { Picture } from '@/ui/Picture';
import { DrawnLines } from './DrawnLines';
import styles from './working.module.css';

interface SheetProps {
  drawing: Drawing;
  canvas: PictureRef | undefined;
  /** What it says to who cannot see it. */
  label: string;
  svg?: SVGProps<SVGSVGElement>;
  children?: ReactNode;
}

/** A sheet with what is drawn on it, over the picture that was there before. */
export function Sheet({ drawing, canvas, label, svg, children }: SheetProps) {
  const height = heightOf(canvas);
  return (
    <div className={styles.sheet} style={{ aspectRatio: `${sheetWidth} / ${height}` }}>
      {canvas && <Picture picture={canvas} />}
      <svg viewBox={`0 0 ${sheetWidth} ${height}`} role="img" aria-label={label} {...svg}>
        <DrawnLines drawing={drawing} />
        {children}
      </svg>
    </div>
  );
}
