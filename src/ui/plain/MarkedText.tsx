import { textRuns } from '@/core/marking/work/textRuns';
import type { TextMark, WorkMark } from '@/core/model/workMark';
import styles from './MarkedText.module.css';

/** A student's text with a marker's marks over it. The text itself is as it was written. */
export default function MarkedText({ text, work }: { text: string; work: readonly WorkMark[] }) {
  const { runs, margin, loose } = textRuns(text, work);
  const numberOf = (mark: TextMark) => margin.indexOf(mark) + 1;
  // Words in the margin are numbered where what they are about ends.
  const ending = (at: number) => margin.filter(({ to }) => to === at);
  const ends = runs.reduce<number[]>((all, run) => [...all, (all.at(-1) ?? 0) + run.text.length], []);
  return (
    <div className={styles.marked}>
      <p className="keepLines">
        {runs.map((run, index) => (
          <span key={index}>
            {run.inserted.map((mark) => (
              <ins key={mark.id} className={styles.inserted}>
                {mark.text}
              </ins>
            ))}
            <Run run={run} />
            {run.text !== '' &&
              ending(ends[index] ?? 0).map((mark) => (
                <sup key={mark.id} className={styles.number}>
                  {numberOf(mark)}
                </sup>
              ))}
          </span>
        ))}
      </p>
      {(margin.length > 0 || loose.length > 0) && (
        <ol className={styles.margin} aria-label="Words of the marker">
          {[...margin, ...loose].map((mark) => (
            <li key={mark.id}>
              {mark.quote && <q>{mark.quote}</q>} {mark.text || isWords[mark.is]}
            </li>
          ))}
        </ol>
      )}
    </div>
  );
}

const isWords: Record<TextMark['is'], string> = {
  struck: 'struck out',
  underlined: 'underlined',
  highlighted: 'highlighted',
  inserted: 'inserted',
  words: '',
};

function Run({ run: { text, marks } }: { run: ReturnType<typeof textRuns>['runs'][number] }) {
  const has = (is: TextMark['is']) => marks.some((mark) => mark.is === is);
  const underlined = has('underlined') || has('words');
  const inner = has('highlighted') ? <mark className={styles.highlighted}>{text}</mark> : text;
  const lined = underlined ? (
    <span className={has('underlined') ? styles.underlined : styles.about}>{inner}</span>
  ) : (
    inner
  );
  return has('struck') ? <del className={styles.struck}>{lined}</del> : lined;
}
