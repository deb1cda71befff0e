import { useLiveQuery } from 'dexie-react-hooks';
import { earlierPapers } from '@/store/earlierPapers';
import { KeyHint } from '@/ui/KeyHint';
import { MarginBlock } from '@/ui/TwoColumns';
import { percent, points } from '@/words/format';
import styles from './mark.module.css';

export const earlierId = 'earlier-papers';

/** What else a student has sat, each a press away. */
export function EarlierPapers({ studentId, sittingId }: { studentId: string; sittingId: string }) {
  const papers = useLiveQuery(() => earlierPapers(studentId, sittingId, Date.now()), [studentId, sittingId]);
  if (!papers || papers.length === 0) return null;
  return (
    <MarginBlock title="Other papers of this student" aside={<KeyHint keys="F6" />}>
      <ul id={earlierId} className={styles.earlier}>
        {papers.map(({ sittingId: id, title, total, max, share }) => (
          <li key={id}>
            <a href={`/sittings/${id}/scripts/${studentId}`}>{title}</a>{' '}
            <span className={styles.soft}>
              {points(total)} of {points(max)}
              {share !== null && `, ${percent(share)}`}
            </span>
          </li>
        ))}
      </ul>
      <p>
        <a href={`/students/${studentId}`}>All results of this student</a>
      </p>
    </MarginBlock>
  );
}
