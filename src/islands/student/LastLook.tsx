import { useState } from 'react';
import { plainText } from '@/core/basics/richWords';
import { numbersOf } from '@/core/kinds/itemNumbers';
import type { AnswerFill } from '@/core/kinds/fillings';
import type { HeldAttempt } from '@/store/sitTables';
import { counted } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

interface LastLookProps {
  held: HeldAttempt;
  fillOf: (questionId: string) => AnswerFill;
  /** Null where there is no way back. */
  goTo: ((questionId: string) => void) | null;
  handIn: () => Promise<boolean>;
  back: (() => void) | null;
}

/** Before handing in: what is unanswered or marked, by name, each a press away. */
export function LastLook({ held, fillOf, goTo, handIn, back }: LastLookProps) {
  const [sending, setSending] = useState(false);
  const [word, setWord] = useState('');
  const numbers = numbersOf(held.packet.questions);
  const rows = held.packet.questions.map((question) => ({
    id: question.id,
    number: numbers.get(question.id) ?? '',
    stem: plainText(question.stem),
    fill: fillOf(question.id),
    marked: held.comeBack.includes(question.id),
  }));
  const open = rows.filter((row) => row.fill === 'open');
  const half = rows.filter((row) => row.fill === 'half');
  const marked = rows.filter((row) => row.marked && row.fill === 'done');
  const send = async () => {
    setSending(true);
    const done = await handIn();
    setSending(false);
    if (!done)
      setWord(
        'Not handed in yet: your teacher’s computer can’t be reached. Your answers are saved here; try again.',
      );
  };
  return (
    <section aria-labelledby="last-look" className={styles.lastLook}>
      <ViewHeading id="last-look" text="Check before handing in" />
      <p>
        {open.length === 0 && half.length === 0
          ? held.packet.questions.length === 1
            ? 'The question is answered.'
            : `All ${held.packet.questions.length} questions are answered.`
          : open.length > 0 && `${counted(open.length, 'question')} not answered:`}
      </p>
      <QuestionLinks rows={open} goTo={goTo} />
      {half.length > 0 && <p>{counted(half.length, 'question')} half answered:</p>}
      <QuestionLinks rows={half} goTo={goTo} />
      {marked.length > 0 && <p>You wanted to come back to:</p>}
      <QuestionLinks rows={marked} goTo={goTo} />
      {word && <p role="alert">{word}</p>}
      <div className={styles.row}>
        <Button variant="filled" size="md" loading={sending} onClick={() => void send()}>
          {handInWords(open.length, half.length)}
        </Button>
        {back && (
          <Button size="md" onClick={back}>
            Back to the questions
          </Button>
        )}
      </div>
    </section>
  );
}

/** What the button does, with what it hands in as it is. */
function handInWords(open: number, half: number): string {
  const parts = [
    open > 0 ? `${counted(open, 'question')} unanswered` : '',
    half > 0 ? `${open > 0 ? half : counted(half, 'question')} half answered` : '',
  ].filter(Boolean);
  return parts.length > 0 ? `Hand in with ${parts.join(' and ')}` : 'Hand in';
}

interface QuestionRow {
  id: string;
  number: string;
  stem: string;
}

function RowWords({ number, stem }: QuestionRow) {
  return (
    <>
      <strong>{number}</strong>&ensp;{stem.length > 80 ? `${stem.slice(0, 79)}…` : stem}
    </>
  );
}

function QuestionLinks({ rows, goTo }: { rows: QuestionRow[]; goTo: ((id: string) => void) | null }) {
  if (rows.length === 0) return null;
  return (
    <ul className={styles.plain}>
      {rows.map((row) => (
        <li key={row.id}>
          {goTo ? (
            <button type="button" className={styles.link} onClick={() => goTo(row.id)}>
              <RowWords {...row} />
            </button>
          ) : (
            <RowWords {...row} />
          )}
        </li>
      ))}
    </ul>
  );
}
