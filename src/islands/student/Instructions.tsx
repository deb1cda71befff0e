import { useEffect, useRef, useState } from 'react';
import { Rich } from '@/ui/Rich';
import type { Carrier, Greeting, HomeSitting, StartReply } from '@/carriers/Carrier';
import type { HeldAttempt } from '@/store/sitTables';
import { useNow } from '@/ui/clock';
import { counted, dayAndTime, duration } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import { TextInput } from '@/ui/plain/fields';
import { faultWords } from '@/words/serverFaults';
import { holdAttempt, tabId } from './heldAttempts';
import { alsoFor, paperIsHere } from './sitParts';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

interface InstructionsProps {
  carrier: Carrier;
  who: Greeting;
  sitting: HomeSitting;
  started: (held: HeldAttempt) => void;
  back: () => void;
}

type Refusal = Extract<StartReply, { outcome: 'refused' }>['why'];

const refusalWords: Record<Refusal, string> = {
  unknown: 'This paper isn’t for you, or it has been removed.',
  wrongCode: 'That isn’t the access code. Ask your teacher.',
  notReady: 'The paper isn’t ready yet. Tell your teacher.',
  notYet: 'It isn’t open yet.',
  over: 'It is closed.',
  closedToStarts: 'It is closed to new starts. Ask your teacher.',
  noAttemptLeft: 'You have already handed it in.',
};

/** What to know before the clock starts. */
export function Instructions({ carrier, who, sitting, started, back }: InstructionsProps) {
  const now = useNow(30_000);
  const [code, setCode] = useState('');
  const [word, setWord] = useState('');
  const resuming = sitting.may === 'resume';
  const start = async () => {
    try {
      await paperIsHere();
    } catch {
      return setWord(
        'Part of this page couldn’t be loaded, so you haven’t started. Check your connection and try again.',
      );
    }
    try {
      const reply = await carrier.start(who.joinCode, sitting.sittingId, code, tabId);
      if (reply.outcome === 'started') {
        await alsoFor(reply.packet);
        started(await holdAttempt(who, reply.packet));
      } else setWord(refusalWords[reply.why]);
    } catch (error) {
      setWord(faultWords(error));
    }
  };
  // Who goes on has read them: back in is two presses after the code.
  const tried = useRef(false);
  useEffect(() => {
    if (!resuming || tried.current) return;
    tried.current = true;
    void start();
  });
  if (resuming && !word)
    return (
      <>
        <ViewHeading text={sitting.title} />
        <p role="status">Going on…</p>
      </>
    );
  return (
    <form
      className={styles.instructions}
      onSubmit={(event) => {
        event.preventDefault();
        void start();
      }}
    >
      <ViewHeading text={sitting.title} />
      <div>
        <Rich text={sitting.instructions} />
      </div>
      <ul className={styles.plain}>
        <li>{counted(sitting.questions, 'question')}.</li>
        <li>
          {sitting.timeLimitMs
            ? resuming
              ? 'The clock has been running since you started.'
              : `You have ${duration(sitting.timeLimitMs)} from when you start.`
            : 'There is no time limit.'}
        </li>
        {sitting.closesAt && (
          <li>It closes {dayAndTime(sitting.closesAt, now)}. Your answers are handed in then.</li>
        )}
        {sitting.oneByOne && (
          <li>
            Questions come one at a time.{' '}
            {sitting.noBack ? 'Once you go on, you can’t go back.' : 'You can go back to any of them.'}
          </li>
        )}
        {sitting.practice && (
          <li>This is practice: you see at once how you did on each question, and can try again.</li>
        )}
        {sitting.inFile && (
          <li>
            It came as a file. At the end you save your answers as a file too, and give it to your teacher.
            This computer’s clock counts.
          </li>
        )}
        <li>
          Your answers are saved as you type. If the page closes, come back with your code and carry on.
        </li>
      </ul>
      {sitting.codeAsked && !resuming && (
        <TextInput
          label="Access code"
          description="Your teacher says it in the room"
          autoComplete="off"
          required
          maxLength={40}
          value={code}
          onChange={(event) => setCode(event.currentTarget.value)}
        />
      )}
      {word && <p role="alert">{word}</p>}
      <div className={styles.row}>
        <Button type="submit" variant="filled" size="md">
          {resuming ? 'Continue' : 'Start'}
        </Button>
        <Button size="md" onClick={back}>
          Not now
        </Button>
      </div>
    </form>
  );
}
