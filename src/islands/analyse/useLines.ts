import { useLiveQuery } from 'dexie-react-hooks';
import type { SittingData } from '@/desk/useSitting';
import { linesOf, setLines, usualLines, type Lines } from '@/store/deskSettings';

/** The lines below which questions and students stand out; kept for the course. */
export function useLines({ sitting, groups }: SittingData): { lines: Lines; set: (lines: Lines) => void } {
  const course = sitting.course ?? groups.find((group) => group.course)?.course ?? '';
  const lines = useLiveQuery(() => linesOf(course), [course]) ?? usualLines;
  return { lines, set: (next) => void setLines(course, next) };
}
