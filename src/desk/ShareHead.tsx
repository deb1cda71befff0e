import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useRef, useState } from 'react';
import { fileNameOf } from '@/core/formats/fileName';
import type { TakenShare } from '@/core/model/share';
import { noteTakenShare, removeTakenShare } from '@/store/takenShares';
import { desk } from '@/store/tables';
import { sealedMarks, sendMarks } from '@/sync/sharedMarks';
import { shareConnection } from '@/sync/shareConnection';
import { isoNow } from '@/ui/clock';
import { saveFile } from '@/ui/saveFile';
import { clockTime, counted } from '@/words/format';
import { overServer, shareFaultWords } from '@/words/shareFaults';
import { act, say } from './act';
import styles from './SittingPage.module.css';
import type { SittingData } from './useSitting';

/** A share of marking that was given to this desk: how far it is, and how its marks go back. */
export function ShareHead({ sitting }: { sitting: SittingData }) {
  const sittingId = sitting.sitting.id;
  const taken = useLiveQuery(() => desk.takenShares.get(sittingId), [sittingId]);
  const original = useLiveQuery(() => desk.shares.get(sittingId), [sittingId]);
  if (!taken) return null;
  const { byHand, waiting } = sitting.progress;
  const marked = `${byHand - waiting} of ${counted(byHand, 'answer')} marked`;
  return (
    <div className={styles.share} role="region" aria-label="This share of marking">
      <span>{marked}.</span>
      {taken.way === 'file' && <BackAsFile taken={taken} title={sitting.sitting.title} left={waiting} />}
      {taken.way === 'server' && <BackOverServer taken={taken} sitting={sitting} />}
      {taken.way === 'here' && original && (
        <a href={`/sittings/${original.sittingId}/markers`}>Compare with what you gave before</a>
      )}
      <Button
        size="compact-sm"
        onClick={() =>
          void act(removeTakenShare(sittingId, isoNow())).then((done) => done && window.location.assign('/'))
        }
      >
        Remove this share
      </Button>
    </div>
  );
}

function BackAsFile({ taken, title, left }: { taken: TakenShare; title: string; left: number }) {
  const save = async () => {
    const now = isoNow();
    const text = await act(sealedMarks(taken.sittingId, now));
    if (!text) return;
    saveFile(`${fileNameOf(`${title} marks by ${taken.marker}`)}.json`, 'application/json', text);
    await act(noteTakenShare(taken.sittingId, { sentAt: now }));
    say(
      `Marks saved as a file: send it to whom you mark for${left > 0 ? '; you can save it again later' : ''}`,
    );
  };
  return (
    <Button size="compact-sm" variant={left === 0 ? 'filled' : 'default'} onClick={() => void save()}>
      Save the marks to send back
    </Button>
  );
}

const server = shareConnection();
/** After a mark, so that several go together. */
const gatherMs = 1_500;
/** After it failed. */
const againMs = 10_000;

/** Sends the marks whenever they change; what could not be sent goes with the next try. */
function BackOverServer({ taken, sitting }: { taken: TakenShare; sitting: SittingData }) {
  const { sittingId, sentAt, pulledBackAt } = taken;
  const { marks } = sitting;
  /** Why the last try failed; null: it did not. */
  const [failed, setFailed] = useState<string | null>(null);
  const [sent, setSent] = useState<unknown>(null);
  const sending = useRef(false);
  const [tick, setTick] = useState(0);
  useEffect(() => {
    if (pulledBackAt !== undefined || sent === marks) return;
    const timer = setTimeout(
      () => {
        if (sending.current) return;
        sending.current = true;
        void sendMarks(server, sittingId, isoNow())
          .then(
            () => {
              setFailed(null);
              setSent(marks);
            },
            (error: unknown) => setFailed(shareFaultWords(error)),
          )
          .finally(() => {
            sending.current = false;
            setTick((n) => n + 1);
          });
      },
      failed === null ? gatherMs : againMs,
    );
    return () => clearTimeout(timer);
  }, [marks, sent, failed, tick, pulledBackAt, sittingId]);
  if (pulledBackAt !== undefined)
    return (
      <>
        <span role="status">It was pulled back: what you mark from now on is not sent.</span>
        <Button
          size="compact-sm"
          onClick={() => {
            const again = overServer(sendMarks(server, sittingId, isoNow()));
            void act(again).then((taken) => taken === false && say('It is still pulled back', true));
          }}
        >
          Try to send again
        </Button>
      </>
    );
  if (failed !== null)
    return (
      <span role="status">
        Not sent: {failed}. Your marks are saved here and are sent as soon as that is possible.
      </span>
    );
  return (
    <span role="status">
      {sent === marks && sentAt ? `All sent at ${clockTime(sentAt)}.` : 'Sending your marks…'}
    </span>
  );
}
