import { createContext, lazy, Suspense, useContext, type ComponentType, type ReactNode } from 'react';
import { marksOn } from '@/core/marking/work/layer';
import type { LayerMark, WorkMark } from '@/core/model/workMark';
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
  children: ReactNode;
}

/** Given by Mark while the answers it is at are marked: then every surface in it can be. */
export const Markable = createContext<ComponentType<MarkableProps> | null>(null);

interface SurfaceProps {
  /** Which one of the answer: see `surfaces`. */
  on: string;
  label: string;
  work: readonly WorkMark[] | undefined;
  /** Shown at a glance: without marks. */
  small?: boolean;
  children: ReactNode;
}

/** Something of an answer on which a marker's marks lie: a drawing, a photo, a page. */
export function Surface({ on, label, work = [], small = false, children }: SurfaceProps) {
  const Marking = useContext(Markable);
  const marks = marksOn(work, on);
  if (small) return children;
  if (Marking)
    return (
      <Marking on={on} label={label} marks={marks}>
        {children}
      </Marking>
    );
  if (marks.length === 0) return children;
  return (
    <div>
      <div className={styles.surface}>
        {children}
        <Suspense>
          <MarkLayer marks={marks} />
        </Suspense>
      </div>
      <Suspense>
        <LayerNotes marks={marks} />
      </Suspense>
    </div>
  );
}
