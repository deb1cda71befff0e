import { useCallback, useEffect, useState } from 'react';
import type { Carrier, HomeSitting } from '@/carriers/Carrier';
import { announce } from '@/ui/announce';
import { AskTeacher } from './AskTeacher';
import { faultWords } from './faultWords';
import styles from './student.module.css';

interface AskInsideProps {
  carrier: Carrier;
  joinCode: string;
  sittingId: string;
}

/** How often an answer is looked for while one is waited for. */
const lookMs = 15_000;

/** Asking the teacher without leaving the paper; an answer comes in here, and is said. */
export function AskInside({ carrier, joinCode, sittingId }: AskInsideProps) {
  const [sitting, setSitting] = useState<HomeSitting | null>(null);
  const [word, setWord] = useState('');
  const look = useCallback(async () => {
    try {
      const found = (await carrier.home(joinCode)).find((each) => each.sittingId === sittingId) ?? null;
      setSitting((before) => {
        const answer = found?.requests.at(-1)?.answer;
        const waited = before?.requests.at(-1)?.answer === null;
        if (waited && answer)
          announce(`Your teacher has answered: ${answer.granted ? 'granted' : 'declined'}`);
        return found;
      });
      setWord('');
    } catch (error) {
      setWord(faultWords(error));
    }
  }, [carrier, joinCode, sittingId]);
  const waiting = sitting?.requests.at(-1)?.answer === null;
  useEffect(() => {
    if (!waiting) return;
    const timer = setInterval(() => void look(), lookMs);
    return () => clearInterval(timer);
  }, [waiting, look]);
  return (
    <>
      {sitting ? (
        <AskTeacher
          carrier={carrier}
          joinCode={joinCode}
          sitting={sitting}
          asked={() => void look()}
          atOnce
        />
      ) : (
        <button type="button" className={styles.quiet} onClick={() => void look()}>
          Ask your teacher about this paper
        </button>
      )}
      {word && <p role="alert">{word}</p>}
    </>
  );
}
