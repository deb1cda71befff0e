import { Button } from '@mantine/core';
import { useState } from 'react';
import { plainText } from '@/core/model/richText';
import { numbersOf } from '@/core/kinds/items';
import type { HeldAttempt } from '@/store/sitTables';
import { counted } from '@/ui/format';
import styles from './student.module.css';

interface LastLookProps {
  held: HeldAttempt;
  answered: (questionId: string) => boolean;
  goTo: (questionId: string) => void;
  handIn: () => Promise<boolean>;
  back: () => void;
}

/** Before handing in: what is unanswered or marked, by name, each a press away. */
export function LastLook({ held, answered, goTo, handIn, back }: LastLookProps) {
  const [sending, setSending] = useState(false);
  const [word, setWord] = useState('');
  const numbers = numbersOf(held.packet.questions);
  const rows = held.packet.questions.map((question) => ({
    id: question.id,
    number: numbers.get(question.id) ?? '',
    stem: plainText(question.stem),
    open: !answered(question.id),
    marked: held.comeBack.includes(question.id),
  }));
  const open = rows.filter((row) => row.open);
  const marked = rows.filter((row) => row.marked && !row.open);
  const send = async () => {
    setSending(true);
    const done = await handIn();
    setSending(false);
    if (!done)
      setWord('It could not be handed in: the desk does not answer. Your answers are kept here; try again.');
  };
  return (
    <section aria-labelledby="last-look" className={styles.lastLook}>
      <h1 id="last-look" className={styles.heading}>
        Last look
      </h1>
      <p>
        {open.length === 0
          ? `All ${held.packet.questions.length} questions are answered.`
          : `${counted(open.length, 'question')} not answered:`}
      </p>
      <QuestionLinks rows={open} goTo={goTo} />
      {marked.length > 0 && <p>You wanted to come back to:</p>}
      <QuestionLinks rows={marked} goTo={goTo} />
      {word && <p role="alert">{word}</p>}
      <div className={styles.row}>
        <Button variant="filled" size="md" loading={sending} onClick={() => void send()}>
          {open.length > 0 ? `Hand in with ${counted(open.length, 'question')} unanswered` : 'Hand in'}
        </Button>
        <Button size="md" onClick={back}>
          Back to the questions
        </Button>
      </div>
    </section>
  );
}

interface QuestionRow {
  id: string;
  number: string;
  stem: string;
}

function QuestionLinks({ rows, goTo }: { rows: QuestionRow[]; goTo: (id: string) => void }) {
  if (rows.length === 0) return null;
  return (
    <ul className={styles.plain}>
      {rows.map((row) => (
        <li key={row.id}>
          <button type="button" className={styles.link} onClick={() => goTo(row.id)}>
            <strong>{row.number}</strong>&ensp;{row.stem.length > 80 ? `${row.stem.slice(0, 79)}…` : row.stem}
          </button>
        </li>
      ))}
    </ul>
  );
}
