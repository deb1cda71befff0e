import { useEffect, useRef, useState } from 'react';
import type { Carrier } from '@/carriers/Carrier';
import type { Response } from '@/core/kinds';
import { fillOf } from '@/core/kinds/fillings';
import type { ScriptQuestion } from '@/core/handback/script';
import { counted, dayAndTime, percent } from '@/words/format';
import { faultWords } from '@/words/serverFaults';
import { Button } from '@/ui/plain/Button';
import { Textarea } from '@/ui/plain/fields';
import { viewOf } from '../kinds';
import styles from './student.module.css';

interface AfterwardsProps {
  carrier: Carrier;
  joinCode: string;
  sittingId: string;
  row: ScriptQuestion;
  /** What was sent has arrived. */
  done: () => void;
}

/** What may be done with a question once it is back: answer it again, and ask about its mark. */
export function Afterwards(props: AfterwardsProps) {
  const { row } = props;
  const [doing, setDoing] = useState<'correct' | 'ask' | null>(null);
  const leave = () => setDoing(null);
  return (
    <>
      {row.correction && <Corrected row={row} correction={row.correction} />}
      {row.asked?.map(({ words, at, answer }) => (
        <p key={at} className={styles.asked}>
          You asked {dayAndTime(at, Date.now())}: “{words}”{' '}
          {answer ? (
            <strong>{answer.words || 'Your teacher has looked at it.'}</strong>
          ) : (
            'Your teacher hasn’t answered yet.'
          )}
        </p>
      ))}
      {doing === 'correct' && <CorrectForm {...props} leave={leave} />}
      {doing === 'ask' && <AskForm {...props} leave={leave} />}
      {doing === null && (row.mayCorrect || row.mayAsk) && (
        <div className={`${styles.row} ${styles.print}`}>
          {row.mayCorrect && (
            <Button size="compact-md" onClick={() => setDoing('correct')}>
              Answer question {row.number} again
            </Button>
          )}
          {row.mayAsk && (
            <Button size="compact-md" onClick={() => setDoing('ask')}>
              Ask about this mark
            </Button>
          )}
        </div>
      )}
    </>
  );
}

/** The new answer, beside the old one that stands above it. */
function Corrected({
  row,
  correction,
}: {
  row: ScriptQuestion;
  correction: NonNullable<ScriptQuestion['correction']>;
}) {
  const { Show } = viewOf(row.question);
  const { gained, points, at } = correction;
  return (
    <div className={styles.choice}>
      <p>
        <strong>Your correction</strong> <span className={styles.soft}>{dayAndTime(at, Date.now())}</span>
      </p>
      <Show question={row.question} response={correction.response} />
      <p role="status">
        {points === null || points === undefined
          ? 'It is sent, and has no points yet.'
          : gained
            ? `It won back ${counted(gained, 'point')}.`
            : 'It won no points back.'}
      </p>
    </div>
  );
}

function CorrectForm({
  carrier,
  joinCode,
  sittingId,
  row,
  done,
  leave,
}: AfterwardsProps & { leave: () => void }) {
  const { Sit, fetch } = viewOf(row.question);
  const [response, setResponse] = useState<Response | null>(null);
  const [fault, setFault] = useState('');
  const [here, setHere] = useState(!fetch);
  useEffect(() => {
    void fetch?.().then(
      () => setHere(true),
      () => setFault('This question can’t be loaded right now. Try again.'),
    );
  }, [fetch]);
  const share = row.mayCorrect?.share ?? 0;
  const until = row.mayCorrect?.until ?? null;
  const send = async () => {
    if (!response) return;
    try {
      if (await carrier.correct(joinCode, sittingId, row.question.id, response)) {
        leave();
        done();
      } else setFault('It can’t be taken any more.');
    } catch (error) {
      setFault(faultWords(error));
    }
  };
  return (
    <form
      className={styles.ask}
      aria-label={`Answer question ${row.number} again`}
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <p id={`again-${row.question.id}`}>
        Your new answer to question {row.number}. It can win back {percent(share)} of the points you lost,
        once
        {until === null ? '' : `, until ${dayAndTime(until, Date.now())}`}.
      </p>
      {here && (
        <Sit
          question={row.question}
          response={response}
          respond={setResponse}
          labelledBy={`again-${row.question.id}`}
        />
      )}
      {fault && <p role="alert">{fault}</p>}
      <div className={styles.row}>
        <Button type="submit" variant="filled" size="md" disabled={fillOf(row.question, response) === 'open'}>
          Send this answer
        </Button>
        <Button size="md" onClick={leave}>
          Cancel
        </Button>
      </div>
    </form>
  );
}

function AskForm({
  carrier,
  joinCode,
  sittingId,
  row,
  done,
  leave,
}: AfterwardsProps & { leave: () => void }) {
  const [words, setWords] = useState('');
  const [fault, setFault] = useState('');
  const field = useRef<HTMLTextAreaElement>(null);
  useEffect(() => field.current?.focus(), []);
  const send = async () => {
    const request = { asks: 'mark' as const, words: words.trim(), questionId: row.question.id };
    try {
      if (await carrier.ask(joinCode, sittingId, request)) {
        leave();
        done();
      } else setFault('Your question can’t be taken right now.');
    } catch (error) {
      setFault(faultWords(error));
    }
  };
  return (
    <form
      className={styles.ask}
      aria-label={`Ask about the mark of question ${row.number}`}
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <Textarea
        ref={field}
        label="What should your teacher look at?"
        required
        maxLength={500}
        minRows={2}
        value={words}
        onChange={(event) => setWords(event.currentTarget.value)}
      />
      {fault && <p role="alert">{fault}</p>}
      <div className={styles.row}>
        <Button type="submit" variant="filled" size="md" disabled={words.trim() === ''}>
          Send question
        </Button>
        <Button size="md" onClick={leave}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
