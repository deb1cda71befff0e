import { lazy, Suspense } from 'react';
import { mostText } from '@/core/basics/mostText';
import type { TextResponse } from '@/core/kinds/textResponse';
import { Textarea } from '@/ui/plain/fields';
import type { ShowProps, SitProps } from '../KindView';
import styles from './TextAnswer.module.css';

// Few answers have marks on them: a page that has none does not wait for how they are drawn.
const MarkedText = lazy(() => import('@/ui/plain/MarkedText'));

/** Room to write an answer in. */
export function TextAnswer<S>({
  response,
  respond,
  labelledBy,
  disabled,
  rows,
}: SitProps<S, TextResponse> & { rows: number }) {
  return (
    <Textarea
      aria-labelledby={labelledBy}
      minRows={rows}
      maxLength={mostText}
      disabled={disabled}
      value={response?.text ?? ''}
      onChange={(event) => respond({ text: event.currentTarget.value })}
    />
  );
}

/** What was written. */
export function WrittenAnswer<S>({ response, work }: ShowProps<S, TextResponse>) {
  const text = response?.text.trim() ?? '';
  // Marks count the letters of what was written, blanks at its beginning too.
  if (text && work && work.length > 0)
    return (
      <Suspense fallback={<p className={`keepLines ${styles.written}`}>{text}</p>}>
        <MarkedText text={response?.text ?? ''} work={work} />
      </Suspense>
    );
  return text ? (
    <p className={`keepLines ${styles.written}`}>{text}</p>
  ) : (
    <p className={styles.blank}>not answered</p>
  );
}
