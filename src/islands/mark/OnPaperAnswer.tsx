import { useState } from 'react';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { notReadWords } from '@/words/onPaper';
import { PaperPictures } from '../kinds/PaperPictures';
import styles from './mark.module.css';

/** What stands on paper of an answer, at a glance; the current one is shown below. */
export function OnPaper({ group, current }: { group: SameAnswers; current: boolean }) {
  const [first] = group.answers;
  const pictures = first?.pictures ?? [];
  return (
    <>
      {(current || pictures.length === 0) && (
        <span className={styles.hint}>Answer on paper{whyWords(group)}</span>
      )}
      {!current && <PaperPictures pictures={pictures} small />}
      {!current && pictures.length > 0 && <span className="visuallyHidden">{whyWords(group)}</span>}
    </>
  );
}

/** ": its page isn’t scanned", where it is not read for such a reason. */
function whyWords({ answers }: SameAnswers): string {
  const why = answers[0]?.notRead;
  return why === undefined || why === 'written' ? '' : `: ${notReadWords[why]}`;
}

/** The pictures of answers that have words, or none: to look at when in doubt. */
export function BehindWords({ group }: { group: SameAnswers }) {
  const [open, setOpen] = useState(false);
  const shown = group.answers.slice(0, mostPictures);
  return (
    <div className={styles.drawn}>
      <button
        type="button"
        className={styles.plainButton}
        aria-expanded={open}
        onClick={() => setOpen(!open)}
      >
        {open ? 'Hide the paper' : 'Show on paper'}
      </button>{' '}
      {open && group.answers.length > mostPictures && (
        <span className={styles.hint}>
          the first {mostPictures} of {group.answers.length}
        </span>
      )}
      {open &&
        shown.map(({ attemptId, pictures }) => <PaperPictures key={attemptId} pictures={pictures} small />)}
    </div>
  );
}
const mostPictures = 12;
