import type { KeyboardEvent } from 'react';
import type { ScriptQuestion } from '@/core/handback/script';
import { FillGlyph } from '@/ui/FillGlyph';
import { points } from '@/words/format';
import { questionAt, verdictWords } from './returned';
import styles from './script.module.css';

/** A square for every question, and the way to it: by touch, and by arrow keys and Enter. */
export function ScriptMap({ questions }: { questions: readonly ScriptQuestion[] }) {
  const lost = questions.filter(lostPoints);
  const move = (event: KeyboardEvent<HTMLButtonElement>) => {
    const step = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
    if (step === 0) return;
    const all = [...(event.currentTarget.parentElement?.querySelectorAll('button') ?? [])];
    const at = all.indexOf(event.currentTarget);
    all[(at + step + all.length) % all.length]?.focus();
    event.preventDefault();
  };
  return (
    <>
      <nav aria-label="Questions" className={styles.map}>
        {questions.map((row) => (
          <button
            key={row.question.id}
            type="button"
            aria-label={squareWords(row)}
            onClick={() => goTo(row)}
            onKeyDown={move}
          >
            {(row.points !== undefined || row.verdict) && (
              <FillGlyph
                share={shareOf(row)}
                answered={row.verdict !== 'blank'}
                waiting={row.verdict === 'noKey'}
                size={13}
                label=""
              />
            )}
            {row.number}
          </button>
        ))}
      </nav>
      {lost.length > 0 && lost.length < questions.length && (
        <p className={styles.lost}>
          Points were lost in
          {lost.map((row) => (
            <button key={row.question.id} type="button" className={styles.link} onClick={() => goTo(row)}>
              {row.number}
            </button>
          ))}
        </p>
      )}
    </>
  );
}

const shareOf = ({ points: had, question, verdict }: ScriptQuestion): number | null => {
  if (had !== undefined) return question.points > 0 ? had / question.points : null;
  return verdict === 'right' ? 1 : verdict === 'part' ? 0.5 : verdict === 'noKey' ? null : 0;
};

const lostPoints = (row: ScriptQuestion): boolean =>
  row.points === undefined
    ? row.verdict === 'part' || row.verdict === 'wrong' || row.verdict === 'blank'
    : row.points < row.question.points;

/** "Question 3: 1 of 2 points, partly right" */
function squareWords(row: ScriptQuestion): string {
  const said = [
    row.points !== undefined && `${points(row.points)} of ${points(row.question.points)} points`,
    row.verdict && verdictWords[row.verdict],
  ].filter(Boolean);
  return `Question ${row.number}${said.length > 0 ? `: ${said.join(', ')}` : ''}`;
}

function goTo(row: ScriptQuestion): void {
  const section = document.getElementById(questionAt(row));
  section?.focus({ preventScroll: true });
  section?.scrollIntoView({ block: 'start' });
}
