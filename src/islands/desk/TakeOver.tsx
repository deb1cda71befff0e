import { Button, Modal } from '@mantine/core';
import { useEffect, useRef, useState } from 'react';
import { isAsked, type Side, type Topic } from '@/core/formats/backup/twoDesks';
import { deskCounts } from '@/store/deskCounts';
import { act, say } from '@/desk/act';
import { Working } from '@/desk/PutBack';
import { useNow } from '@/ui/clock';
import { holdsWords } from '@/words/backups';
import { takenWords, takeOverFaultWords, unansweredWords } from '@/words/computers';
import { dayAndTime } from '@/words/format';
import { openTakeOver, prepareTakeOver, type DeskFound, type OpenTakeOver } from '@/workers/takeOver';
import styles from './BackupPage.module.css';
import { TwoDesks } from './TwoDesks';

interface TakeOverProps {
  deskId: string;
  label: string;
  /** Tells this button from others like it. */
  about?: string;
  /** Begins by itself. */
  begin?: boolean;
  done: () => void;
}

type Found = Exclude<DeskFound, { fault: object }>;

/** Takes a desk over from another computer: what can get lost is shown first, and chosen. */
export function TakeOver({ deskId, label, about, begin = false, done }: TakeOverProps) {
  const now = useNow(30_000);
  const [working, setWorking] = useState<{ what: string; share: number } | null>(null);
  const [fault, setFault] = useState('');
  const [found, setFound] = useState<Found | null>(null);
  const [here, setHere] = useState('');
  const open = useRef<OpenTakeOver | null>(null);
  const taking = useRef(false);
  const button = useRef<HTMLButtonElement>(null);
  /** The way back to the button, once it stands again. */
  const [back, setBack] = useState(false);
  useEffect(() => {
    if (!back || working || found) return;
    button.current?.focus();
    setBack(false);
  }, [back, working, found]);
  const leave = () => {
    open.current?.close();
    open.current = null;
    setWorking(null);
    setFound(null);
  };
  const cancel = () => {
    leave();
    setBack(true);
  };
  const take = async (from: Found, choices: [Topic, Side][]) => {
    setFound(null);
    taking.current = true;
    setWorking({ what: 'Putting it in place', share: 0 });
    const work = open.current?.take(choices, (share) => setWorking({ what: 'Putting it in place', share }));
    const outcome = work && (await act(work.then((fault) => fault ?? 'taken')));
    taking.current = false;
    leave();
    if (outcome !== 'taken') setBack(true);
    if (!outcome) return;
    if (outcome !== 'taken') return setFault(takeOverFaultWords(outcome.fault));
    say(takenWords(from.from, from.answer === 'all'));
    done();
  };
  const find = async () => {
    leave();
    setFault('');
    setWorking({ what: 'Fetching the desk', share: 0 });
    open.current = openTakeOver(deskId, (share) => setWorking({ what: 'Fetching the desk', share }));
    const next = await act(open.current.found);
    setWorking(null);
    if (!next) return cancel();
    if ('fault' in next) {
      cancel();
      return setFault(takeOverFaultWords(next.fault));
    }
    if (next.same && next.answer !== 'silent' && !next.differences.some(isAsked)) return take(next, []);
    setHere(holdsWords(await deskCounts()));
    setFound(next);
  };
  useEffect(prepareTakeOver, []);
  const begun = useRef(false);
  useEffect(() => {
    if (begin && !begun.current) {
      begun.current = true;
      // Once: opening the page again does not take it again.
      window.history.replaceState(null, '', window.location.pathname);
      void find();
    }
    // It begins with the page.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, []);
  // What is being put in place goes on: with the desk that comes, the button for it goes.
  useEffect(
    () => () => {
      if (!taking.current) open.current?.close();
    },
    [],
  );
  const since = found ? dayAndTime(found.sentAt, now) : '';
  const unanswered = found && found.answer !== 'all' ? unansweredWords(found.from, since) : '';
  return (
    <>
      {!working && !found?.same && (
        <Button
          ref={button}
          variant={about === undefined ? 'filled' : 'default'}
          aria-label={about === undefined ? label : `${label}: ${about}`}
          onClick={() => void find()}
        >
          {label}
        </Button>
      )}
      {working && <Working {...working} stop={working.what.startsWith('Fetching') ? cancel : null} />}
      {fault && (
        <p role="alert" className={styles.fault}>
          {fault}
        </p>
      )}
      {found?.same && !found.differences.some(isAsked) && (
        <Unanswered
          {...{ words: unanswered, since, cancel }}
          again={() => void find()}
          take={() => void take(found, [])}
        />
      )}
      {found?.same && found.differences.some(isAsked) && (
        <TwoDesks
          unanswered={unanswered}
          forgotten={found.forgotten}
          differences={found.differences}
          there={found.from}
          take={(choices) => void take(found, choices)}
          cancel={cancel}
        />
      )}
      <Modal
        opened={found !== null && !found.same}
        onClose={cancel}
        title="Replace your desk with this one"
        closeButtonProps={{ 'aria-label': 'Cancel' }}
      >
        {found && (
          <p className={styles.sure}>
            It is as it was {since}
            {found.from !== '' && ` on ${found.from}`}, and holds {holdsWords(found.counts)}. {unanswered}{' '}
            What is on this desk now will be deleted permanently: {here}.
          </p>
        )}
        <div className={styles.row}>
          <Button variant="filled" onClick={() => found && void take(found, [])}>
            Replace permanently
          </Button>
          <Button onClick={cancel}>Cancel</Button>
        </div>
      </Modal>
    </>
  );
}

interface UnansweredProps {
  words: string;
  since: string;
  again: () => void;
  take: () => void;
  cancel: () => void;
}

/** The other computer is there and did not send what was done last: the teacher says whether to wait for it. */
function Unanswered({ words, since, again, take, cancel }: UnansweredProps) {
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => first.current?.focus(), []);
  return (
    <section className={styles.part} aria-label="The other computer didn’t answer">
      <p role="alert">{words}</p>
      <div className={styles.row}>
        <Button ref={first} variant="filled" onClick={again}>
          Ask it again
        </Button>
        <Button onClick={take}>Take the desk over as it was {since}</Button>
        <Button onClick={cancel}>Cancel</Button>
      </div>
    </section>
  );
}
