import { useCallback, useEffect, useState } from 'react';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import { joinCodeShown } from '@/core/basics/joinCode';
import type { HeldAttempt } from '@/store/sitTables';
import { useNow } from '@/ui/clock';
import { counted, dayAndTime, duration } from '@/words/format';
import { Button } from '@/ui/plain/Button';
import { AskTeacher } from './AskTeacher';
import { SittingFromFile } from './SittingFromFile';
import { faultWords } from '@/words/serverFaults';
import { handOverLeft } from './heldAttempts';
import { HeldHere } from './HeldHere';
import { LateWords } from './LateWords';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

interface HomeProps {
  carrier: Carrier;
  who: Greeting;
  openSitting: (sitting: HomeSitting) => void;
  /** Goes on, without a connection, with what this device holds. */
  goOn: (held: HeldAttempt) => void;
  openResult: (sitting: HomeSitting) => void;
  openFile: () => void;
  leave: () => void;
}

type Section = 'open' | 'coming' | 'back' | 'done';

const headings: Record<Section, string> = {
  open: 'Open now',
  coming: 'Coming up',
  back: 'Handed back',
  done: 'Done',
};

/** Where a sitting stands for its student. */
export function sectionOf(sitting: HomeSitting): Section {
  if (sitting.may === 'start' || sitting.may === 'resume') return 'open';
  if (sitting.handedBack) return 'back';
  return sitting.may === 'notYet' && sitting.state === 'notStarted' ? 'coming' : 'done';
}

/** What is open, coming, done and handed back. */
export function Home({ carrier, who, goOn, openSitting, openResult, openFile, leave }: HomeProps) {
  const now = useNow(5_000);
  const [sittings, setSittings] = useState<HomeSitting[] | null>(null);
  const [fault, setFault] = useState('');
  const look = useCallback(async () => {
    try {
      // What did not get away when its page was closed goes first, so that the list tells of it.
      await handOverLeft(carrier, who.joinCode).catch(() => undefined);
      setSittings(await carrier.home(who.joinCode));
      setFault('');
    } catch (error) {
      setFault(faultWords(error));
    }
  }, [carrier, who]);
  useEffect(() => void look(), [look, now]);
  if (fault)
    return (
      <>
        <p role="alert">{fault} We keep trying.</p>
        <HeldHere joinCode={who.joinCode} goOn={goOn} />
      </>
    );
  if (!sittings) return null;
  return (
    <>
      <ViewHeading text="Your papers" />
      {who.guest && (
        <p>
          You are here as a guest. If you have to join again, your code is{' '}
          <strong className={styles.receiptCode}>{joinCodeShown(who.joinCode)}</strong>
        </p>
      )}
      {sittings.length === 0 && <p>Nothing is open or coming up for you right now.</p>}
      {(Object.keys(headings) as Section[]).map((section) => {
        const rows = sittings.filter((sitting) => sectionOf(sitting) === section);
        if (rows.length === 0) return null;
        return (
          <section key={section} aria-labelledby={`section-${section}`}>
            <h2 id={`section-${section}`} className={styles.sectionHead}>
              {headings[section]}
            </h2>
            <ul className={styles.papers}>
              {rows.map((sitting) => (
                <li key={sitting.sittingId} className={styles.paper}>
                  <h3>{sitting.title}</h3>
                  <p className={styles.soft}>{stateWordsOf(sitting, now)}</p>
                  {sitting.late && <LateWords late={sitting.late} waiting={0} />}
                  <div className={styles.row}>
                    {section === 'open' && (
                      <Button variant="filled" size="md" onClick={() => openSitting(sitting)}>
                        {sitting.may === 'resume' ? 'Continue' : 'Read the instructions'}
                      </Button>
                    )}
                    {sitting.handedBack && (
                      <Button size="md" onClick={() => openResult(sitting)}>
                        See my result
                      </Button>
                    )}
                  </div>
                  {sitting.inFile ? (
                    <SittingFromFile
                      carrier={carrier}
                      who={who}
                      sitting={sitting}
                      changed={() => void look()}
                      leave={leave}
                    />
                  ) : (
                    <AskTeacher
                      carrier={carrier}
                      joinCode={who.joinCode}
                      sitting={sitting}
                      asked={() => void look()}
                    />
                  )}
                </li>
              ))}
            </ul>
          </section>
        );
      })}
      <button type="button" className={styles.quiet} onClick={openFile}>
        Open a file from your teacher
      </button>
    </>
  );
}

function stateWordsOf(sitting: HomeSitting, now: number): string {
  const size = [
    counted(sitting.questions, 'question'),
    sitting.timeLimitMs ? duration(sitting.timeLimitMs) : '',
    sitting.practice ? 'practice' : '',
  ]
    .filter(Boolean)
    .join(', ');
  if (sitting.may === 'resume')
    return sitting.leftMs === undefined
      ? 'You have started. Your answers are saved and the clock is running.'
      : `You have started, and have ${duration(sitting.leftMs)} left. Your answers are saved and the clock is running.`;
  if (sitting.may === 'start')
    return `${sitting.state === 'notStarted' ? '' : 'You can make another attempt. '}Open${sitting.closesAt ? ` until ${dayAndTime(sitting.closesAt, now)}` : ''}. ${size}.`;
  if (sitting.state !== 'notStarted')
    return sitting.handedBack
      ? 'You can see how it went.'
      : sitting.inFile
        ? 'Finished. No result yet.'
        : 'Handed in. No result yet.';
  // A script came without its paper.
  if (sitting.handedBack) return 'You can see how it went.';
  if (sitting.may === 'notYet') return `Opens ${dayAndTime(sitting.opensAt, now)}. ${size}.`;
  return 'Closed. You didn’t sit it.';
}
