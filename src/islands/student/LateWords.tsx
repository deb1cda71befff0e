import type { AttemptStatus } from '@/carriers/Carrier';
import { counted } from '@/words/format';
import styles from './student.module.css';

interface LateCounts {
  waits: number;
  counts: number;
  not: number;
}

export const lateCounts = (late: AttemptStatus['late']): LateCounts => ({
  waits: late.filter(({ counts }) => counts === null).length,
  counts: late.filter(({ counts }) => counts === true).length,
  not: late.filter(({ counts }) => counts === false).length,
});

/** What became of answers that came after the end. @param waiting how many are still on this device */
export function LateWords({ late: { waits, counts, not }, waiting }: { late: LateCounts; waiting: number }) {
  const rows = [
    waiting > 0 && `${counted(waiting, 'answer')} still on this device: not sent yet.`,
    waits > 0 &&
      `${counted(waits, 'answer')} arrived after the end and ${waits === 1 ? 'is' : 'are'} kept. Your teacher decides whether ${waits === 1 ? 'it counts' : 'they count'}.`,
    counts > 0 &&
      `${counted(counts, 'answer')} arrived after the end and ${counts === 1 ? 'counts' : 'count'}.`,
    not > 0 &&
      `${counted(not, 'answer')} arrived after the end and ${not === 1 ? 'doesn’t' : 'don’t'} count.`,
  ].filter((row) => row !== false);
  if (rows.length === 0) return null;
  return (
    <ul className={`${styles.plain} ${styles.waits}`} role="status">
      {rows.map((row) => (
        <li key={row}>{row}</li>
      ))}
    </ul>
  );
}
