import { useState } from 'react';
import type { Response, StudentQuestion } from '@/core/kinds';
import { fillOf } from '@/core/kinds/fillings';
import type { PracticeAct, PracticeView } from '@/core/attempts/practice';
import { counted, percent } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import styles from './student.module.css';

interface PracticePanelProps {
  question: StudentQuestion;
  view: PracticeView;
  response: Response | null;
  practise: (doing: PracticeAct) => Promise<boolean>;
}

/** Under a question in practice: try it, take a hint, give up; and what each of them said. */
export function PracticePanel({ question, view, response, practise }: PracticePanelProps) {
  const [busy, setBusy] = useState(false);
  const [away, setAway] = useState(false);
  const act = async (doing: PracticeAct) => {
    setBusy(true);
    setAway(!(await practise(doing)));
    setBusy(false);
  };
  const blank = fillOf(question, response) === 'open';
  return (
    <div className={styles.practice}>
      <div role="status" className={styles.practiceSaid}>
        {view.verdict && <p className={styles.practiceVerdict}>{verdictWords(view)}</p>}
        {view.comments.map((comment) => (
          <p key={comment} className={`${styles.comment} keepLines`}>
            {comment}
          </p>
        ))}
        {view.accepted !== null && (
          <p>
            Accepted: <strong className="keepLines">{view.accepted || 'whatever your teacher says'}</strong>
          </p>
        )}
      </div>
      {view.hints.length > 0 && (
        <ol className={styles.hints} aria-label="Hints you used">
          {view.hints.map((hint) => (
            <li key={hint}>{hint}</li>
          ))}
        </ol>
      )}
      {away && <p role="alert">Your teacher’s computer can’t be reached right now. Try again.</p>}
      <div className={styles.row}>
        {view.canTry && !view.done && (
          <Button
            variant="filled"
            size="md"
            disabled={blank || busy}
            onClick={() => response && void act({ act: 'try', response })}
          >
            {view.tries === 0 ? 'Check answer' : 'Try again'}
          </Button>
        )}
        {view.hintsLeft > 0 && (
          <Button size="md" disabled={busy} onClick={() => void act({ act: 'hint' })}>
            {view.nextHintCost ? `Get a hint for ${percent(view.nextHintCost)} of the points` : 'Get a hint'}
          </Button>
        )}
        {view.mayShow && (
          <Button size="md" disabled={busy} onClick={() => void act({ act: 'show' })}>
            {view.done || !view.canTry ? 'Show the answer' : 'Give up and show the answer'}
          </Button>
        )}
      </div>
      {!view.done && view.canTry && <p className={styles.soft}>{leftWords(view)}</p>}
      {!view.canTry && view.accepted === null && (
        <p className={styles.soft}>Your teacher marks this one; it isn’t scored now.</p>
      )}
    </div>
  );
}

function verdictWords({ verdict, triesLeft, done, accepted }: PracticeView): string {
  if (verdict === 'right') return 'Right.';
  const said = verdict === 'part' ? 'Partly right.' : 'Not right.';
  if (done) return accepted === null ? `${said} No tries left.` : said;
  return triesLeft === null ? said : `${said} ${counted(triesLeft, 'try', 'tries')} left.`;
}

function leftWords({ pointsLeft, triesLeft, tries }: PracticeView): string {
  const often =
    triesLeft === null ? 'as often as you like' : tries === 0 ? counted(triesLeft, 'try', 'tries') : '';
  return `${counted(pointsLeft, 'point')} still available${often ? `; ${often}` : ''}.`;
}
