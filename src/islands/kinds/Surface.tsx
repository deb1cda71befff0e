import { createContext, lazy, Suspense, useContext, type ComponentType, type ReactNode } from 'react';
import { marksOn } from '@/core/marking/work/layer';
import type { LayerMark, WorkMark } from '@/core/model/workMark';
import type { LayerView } from '@/ui/plain/MarkLayer';
import styles from './surface.module.css';

// Few answers have marks on them: a page that has none does not wait for how they are drawn.
const MarkLayer = lazy(() => import('@/ui/plain/MarkLayer'));
const LayerNotes = lazy(() =>
  import('@/ui/plain/MarkLayer').then((found) => ({ default: found.LayerNotes })),
);

/** What makes a surface one that can be marked. */
export interface MarkableProps {
  on: string;
  /** What it is, for who cannot see it: "Drawing", "Photo 2". */
  label: string;
  marks: readonly LayerMark[];
  /** Where only a part of it is seen. */
  view?: LayerView | undefined;
  children: ReactNode;
}

/** Given by Mark while the answers it is at are marked: then every surface in it can be. */
export const Markable = createContext<ComponentType<MarkableProps> | null>(null);

interface SurfaceProps {
  /** Which one of the answer: see `surfaces`. */
  on: string;
  label: string;
  work: readonly WorkMark[] | undefined;
  /** Where only a part of it is seen. */
  view?: LayerView | undefined;
  /** Shown at a glance: without marks. */
  small?: boolean;
  children: ReactNode;
}

/** Something of an answer on which a marker's marks lie: a drawing, a photo, a page. */
export function Surface({ on, label, work = [], view, small = false, children }: SurfaceProps) {
  const Marking = useContext(Markable);
  const all = marksOn(work, on);
  const marks = view ? all.filter((mark) => isWithin(view, mark)) : all;
  if (small) return children;
  if (Marking)
    return (
      <Marking on={on} label={label} marks={marks} view={view}>
        {children}
      </Marking>
    );
  if (marks.length === 0) return children;
  return (
    <div>
      <div className={styles.surface}>
        {children}
        <Suspense>
          <MarkLayer marks={marks} view={view} />
        </Suspense>
      </div>
      <Suspense>
        <LayerNotes marks={marks} />
      </Suspense>
    </div>
  );
}

/** Whether a mark begins in what is seen. */
const isWithin = ({ x, y, w, h }: LayerView, { points: [across = 0, down = 0] }: LayerMark) =>
  across >= x && across <= x + w && down >= y && down <= y + h;
