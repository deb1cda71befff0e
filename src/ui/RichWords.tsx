import type { RichText } from '@/core/basics/richText';
import { plainText } from '@/core/basics/richWords';
import styles from './RichWords.module.css';

/** The words of a text in the place of its editor, until that is there. */
export function RichWords({ value, low }: { value: RichText; low?: boolean | undefined }) {
  return (
    <div className={`keepLines ${styles.words}`} data-low={low}>
      {plainText(value)}
    </div>
  );
}
