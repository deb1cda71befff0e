import { useEffect, useRef, useState } from 'react';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import type { ScriptPacket } from '@/core/handback/script';
import { Button } from '@/ui/plain/Button';
import { faultWords } from '@/words/serverFaults';
import { ResultScript } from '../script/ResultScript';
import { Afterwards } from './Afterwards';
import { OtherResults } from './OtherResults';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

interface ResultViewProps {
  carrier: Carrier;
  who: Greeting;
  sitting: Pick<HomeSitting, 'sittingId' | 'title'>;
  back: () => void;
  /** Opens another result. */
  open: (sitting: Pick<HomeSitting, 'sittingId' | 'title'>) => void;
}

/** How often an open result is asked for again. */
const followMs = 15_000;

/** What came back, exactly as far as it was let out. */
export function ResultView({ carrier, who, sitting, back, open }: ResultViewProps) {
  /** Only the first look is one of the student's. */
  const opening = useRef(true);
  const [turn, setTurn] = useState(0);
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
  }, [carrier, who, sitting, turn]);
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
          beside={(row) => (
            <Afterwards
              carrier={carrier}
              joinCode={who.joinCode}
              sittingId={sitting.sittingId}
              row={row}
              done={() => setTurn(turn + 1)}
            />
          )}
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
      <OtherResults carrier={carrier} who={who} here={sitting.sittingId} open={open} />
    </>
  );
}
