import { Button } from '@mantine/core';
import { useCallback, useEffect, useState } from 'react';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import { useNow } from '@/ui/clock';
import { counted, dayAndTime, duration } from '@/ui/format';
import styles from './student.module.css';

interface HomeProps {
  carrier: Carrier;
  who: Greeting;
  openSitting: (sitting: HomeSitting) => void;
  openResult: (sitting: HomeSitting) => void;
}

/** What is open, coming, done and handed back. */
export function Home({ carrier, who, openSitting, openResult }: HomeProps) {
  const now = useNow(5_000);
  const [sittings, setSittings] = useState<HomeSitting[] | null>(null);
  const [fault, setFault] = useState(false);
  const look = useCallback(async () => {
    try {
      setSittings(await carrier.home(who.joinCode));
      setFault(false);
    } catch {
      setFault(true);
    }
  }, [carrier, who]);
  useEffect(() => void look(), [look, now]);
  if (fault) return <p role="alert">The desk does not answer. It is asked again by itself.</p>;
  if (!sittings) return null;
  return (
    <>
      <h1 className={styles.heading}>Your papers</h1>
      {sittings.length === 0 && <p>Nothing is open or coming for you at the moment.</p>}
      <ul className={styles.papers}>
        {sittings.map((sitting) => (
          <li key={sitting.sittingId} className={styles.paper}>
            <h2>{sitting.title}</h2>
            <p className={styles.soft}>{standingWords(sitting, now)}</p>
            <div className={styles.row}>
              {(sitting.may === 'start' || sitting.may === 'resume') && (
                <Button variant="filled" size="md" onClick={() => openSitting(sitting)}>
                  {sitting.may === 'resume' ? 'Go on with it' : 'Read the instructions'}
                </Button>
              )}
              {sitting.handedBack && (
                <Button size="md" onClick={() => openResult(sitting)}>
                  See what came back
                </Button>
              )}
            </div>
          </li>
        ))}
      </ul>
    </>
  );
}

function standingWords(sitting: HomeSitting, now: number): string {
  const size = `${counted(sitting.questions, 'question')}${sitting.timeLimitMs ? `, ${duration(sitting.timeLimitMs)}` : ''}`;
  if (sitting.may === 'resume') return 'You have started. Your answers are kept and the clock goes on.';
  if (sitting.may === 'start')
    return `${sitting.state === 'notStarted' ? '' : 'You may make another attempt. '}Open${sitting.closesAt ? ` until ${dayAndTime(sitting.closesAt, now)}` : ''}. ${size}.`;
  if (sitting.state !== 'notStarted')
    return sitting.handedBack ? 'Handed back.' : 'Handed in. Nothing has come back yet.';
  if (sitting.may === 'notYet') return `Opens ${dayAndTime(sitting.opensAt, now)}. ${size}.`;
  return 'Closed. You have not sat it.';
}
