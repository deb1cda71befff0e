import { useEffect, useRef, useState } from 'react';
import type { Carrier, HomeSitting } from '@/carriers/Carrier';
import type { Asks } from '@/core/model/sitting';
import { asksOffered } from '@/core/seats/requests';
import { asksWords } from '@/words/requests';
import { useNow } from '@/ui/clock';
import { dayAndTime } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import { NativeSelect, Textarea } from '@/ui/plain/fields';
import { faultWords } from '@/words/serverFaults';
import styles from './student.module.css';

interface AskTeacherProps {
  carrier: Carrier;
  joinCode: string;
  sitting: HomeSitting;
  asked: () => void;
}

/** Asking for an exception, and what the teacher said to it. */
export function AskTeacher({ carrier, joinCode, sitting, asked }: AskTeacherProps) {
  const now = useNow(30_000);
  const last = sitting.requests.at(-1);
  const [asking, setAsking] = useState(false);
  return (
    <>
      {last && (
        <p className={styles.asked} role="status">
          You asked for {asksWords[last.asks]} {dayAndTime(last.at, now)}: “{last.words}”{' '}
          {last.answer === null ? (
            'Your teacher hasn’t answered yet.'
          ) : (
            <strong>
              {last.answer.granted ? 'Granted' : 'Declined'}
              {last.answer.words ? `: ${last.answer.words}` : '.'}
            </strong>
          )}
        </p>
      )}
      {asking ? (
        <AskForm
          sitting={sitting}
          send={async (asks, words) => {
            const taken = await carrier.ask(joinCode, sitting.sittingId, { asks, words });
            if (taken) {
              setAsking(false);
              asked();
            }
            return taken;
          }}
          back={() => setAsking(false)}
        />
      ) : (
        // One question waits at a time.
        last?.answer !== null && (
          <button type="button" className={styles.quiet} onClick={() => setAsking(true)}>
            Ask your teacher about this paper
          </button>
        )
      )}
    </>
  );
}

interface AskFormProps {
  sitting: HomeSitting;
  send: (asks: Asks, words: string) => Promise<boolean>;
  back: () => void;
}

function AskForm({ sitting, send, back }: AskFormProps) {
  const mayStart = sitting.may === 'start' || sitting.may === 'notYet';
  const choices = asksOffered(sitting.state, mayStart);
  const [asks, setAsks] = useState<Asks>(choices[0] ?? 'other');
  const [words, setWords] = useState('');
  const [word, setWord] = useState('');
  const first = useRef<HTMLSelectElement>(null);
  useEffect(() => first.current?.focus(), []);
  const ask = async () => {
    try {
      if (!(await send(asks, words.trim()))) setWord('Your teacher hasn’t answered your last request yet.');
    } catch (error) {
      setWord(faultWords(error));
    }
  };
  return (
    <form
      className={styles.ask}
      aria-label={`Ask about ${sitting.title}`}
      onSubmit={(event) => {
        event.preventDefault();
        void ask();
      }}
    >
      <NativeSelect
        ref={first}
        label="I need"
        value={asks}
        data={choices.map((value) => ({ value, label: asksWords[value] }))}
        onChange={({ currentTarget }) => setAsks(choices[currentTarget.selectedIndex] ?? 'other')}
      />
      <Textarea
        label="Reason"
        required
        maxLength={500}
        minRows={2}
        value={words}
        onChange={(event) => setWords(event.currentTarget.value)}
      />
      {word && <p role="alert">{word}</p>}
      <div className={styles.row}>
        <Button type="submit" variant="filled" size="md" disabled={words.trim() === ''}>
          Ask
        </Button>
        <Button size="md" onClick={back}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
