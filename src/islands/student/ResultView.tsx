import { useEffect, useRef, useState } from 'react';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import type { ScriptPacket } from '@/core/handback/script';
import { Button } from '@/ui/plain/Button';
import { faultWords } from '@/words/serverFaults';
import { ResultScript } from '../script/ResultScript';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

interface ResultViewProps {
  carrier: Carrier;
  who: Greeting;
  sitting: Pick<HomeSitting, 'sittingId' | 'title'>;
  back: () => void;
}

/** How often an open result is asked for again. */
const followMs = 15_000;

/** What came back, exactly as far as it was let out. */
export function ResultView({ carrier, who, sitting, back }: ResultViewProps) {
  /** Only the first look is one of the student's. */
  const opening = useRef(true);
  const [script, setScript] = useState<ScriptPacket | null | undefined>();
  const [fault, setFault] = useState('');
  useEffect(() => {
    let here = true;
    const look = () =>
      carrier.result(who.joinCode, sitting.sittingId, opening.current).then(
        (packet) => {
          opening.current = false;
          if (!here) return;
          setFault('');
          setScript(packet);
        },
        (error: unknown) => here && setFault(faultWords(error)),
      );
    void look();
    // What is changed or withdrawn while the page is open is followed.
    const again = setInterval(() => void look(), followMs);
    return () => {
      here = false;
      clearInterval(again);
    };
  }, [carrier, who, sitting]);
  if (script === undefined) return fault ? <p role="alert">{fault}</p> : null;
  return (
    <>
      <Button size="compact-md" onClick={back}>
        Go to your papers
      </Button>
      {fault && <p role="alert">{fault} What you see may be out of date.</p>}
      {script ? (
        <ResultScript
          script={script}
          heading={<ViewHeading text={script.title} />}
          actions={
            <p className={styles.print}>
              <Button size="compact-md" onClick={() => window.print()}>
                Print or save as PDF
              </Button>
            </p>
          }
        />
      ) : (
        <>
          <ViewHeading text={sitting.title} />
          <p>Nothing is handed back right now.</p>
        </>
      )}
    </>
  );
}
