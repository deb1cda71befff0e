import { useEffect, useRef, useState } from 'react';
import { Rich } from '@/ui/Rich';
import type { Carrier, Greeting, HomeSitting, StartReply } from '@/carriers/Carrier';
import type { HeldAttempt } from '@/store/sitTables';
import { useNow } from '@/ui/clock';
import { counted, dayAndTime, duration } from '@/ui/format';
import { Button } from '@/ui/plain/Button';
import { TextInput } from '@/ui/plain/fields';
import { faultWords } from './faultWords';
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
  unknown: 'This paper is not for you, or it is gone.',
  wrongCode: 'That is not the access code. Ask your teacher.',
  notReady: 'The paper is not ready yet. Tell your teacher.',
  notYet: 'It is not open yet.',
  over: 'It is closed.',
  closedToStarts: 'It is closed to new starts. Ask your teacher.',
  noAttemptLeft: 'You have handed it in already.',
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
        'A part of this page could not be fetched, so nothing was started. Look at the connection and try again.',
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
              ? 'The clock has been going since you started.'
              : `You have ${duration(sitting.timeLimitMs)} from when you start.`
            : 'There is no time limit.'}
        </li>
        {sitting.closesAt && (
          <li>It closes {dayAndTime(sitting.closesAt, now)}. What is there then is handed in.</li>
        )}
        {sitting.oneByOne && (
          <li>
            Questions come one at a time.{' '}
            {sitting.noBack ? 'Once you go on, there is no way back.' : 'You can go back to each.'}
          </li>
        )}
        {sitting.practice && (
          <li>
            It is practice: each question tells you at once how you answered it, and can be tried again.
          </li>
        )}
        {sitting.byHand && (
          <li>
            It came as a file. At the end you save your answers as a file, too, and give that to your teacher.
            The clock of this computer counts.
          </li>
        )}
        <li>What you type is kept as you type. If the page closes, come back with your code and go on.</li>
      </ul>
      {sitting.codeAsked && !resuming && (
        <TextInput
          label="Access code"
          description="Your teacher says it in the room"
          autoComplete="off"
          required
          value={code}
          onChange={(event) => setCode(event.currentTarget.value)}
        />
      )}
      {word && <p role="alert">{word}</p>}
      <div className={styles.row}>
        <Button type="submit" variant="filled" size="md">
          {resuming ? 'Go on' : 'Start'}
        </Button>
        <Button size="md" onClick={back}>
          Not now
        </Button>
      </div>
    </form>
  );
}
