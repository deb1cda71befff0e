import { useState } from 'react';
import type { Carrier, Greeting, HomeSitting } from '@/carriers/Carrier';
import { fileNameOf } from '@/core/formats/fileName';
import { saveFile } from '@/ui/saveFile';
import { Button } from '@/ui/plain/Button';
import styles from './student.module.css';

interface SaveAnswersProps {
  carrier: Carrier;
  joinCode: string;
  sittingId: string;
  /** Whether it is what comes next. */
  next: boolean;
  saved?: () => void;
}

/** Saves the answers as a file, to be taken to the teacher. */
export function SaveAnswers({ carrier, joinCode, sittingId, next, saved }: SaveAnswersProps) {
  const [word, setWord] = useState('');
  const save = async () => {
    const file = await carrier.toHand(joinCode, sittingId);
    if (!file) return setWord('There are no answers on this computer.');
    const name = `${fileNameOf(file.words)}.json`;
    saveFile(name, 'application/json', file.text);
    setWord(`Saved as ${name}. Give this file to your teacher.`);
    saved?.();
  };
  return (
    <>
      <Button variant={next ? 'filled' : 'default'} size="md" onClick={() => void save()}>
        {next ? 'Save your answers as a file' : 'Save your answers again'}
      </Button>
      {word && <p role="status">{word}</p>}
    </>
  );
}

interface SittingFromFileProps {
  carrier: Carrier;
  who: Greeting;
  sitting: HomeSitting;
  changed: () => void;
  /** Nobody knows this code any more: there is nothing left to see. */
  leave: () => void;
}

/** A paper that came as a file: its answers are taken to the teacher, and it can be taken off this computer. */
export function SittingFromFile({ carrier, who, sitting, changed, leave }: SittingFromFileProps) {
  const [leaving, setLeaving] = useState(false);
  const { sittingId, inFile, state } = sitting;
  const ended = state !== 'working' && inFile !== 'nothing';
  const forget = async () => {
    const { takenOff } = await import('@/carriers/carriedFiles');
    await takenOff(who.joinCode, sittingId);
    const known = await carrier.greet(who.joinCode).catch(() => null);
    if (known) changed();
    else leave();
  };
  return (
    <>
      {ended && inFile === 'toSave' && (
        <p className={styles.waits}>Your teacher doesn’t have your answers yet: save them as a file.</p>
      )}
      <div className={styles.row}>
        {ended && (
          <SaveAnswers
            carrier={carrier}
            joinCode={who.joinCode}
            sittingId={sittingId}
            next={inFile === 'toSave'}
            saved={changed}
          />
        )}
        {!leaving && (
          <button type="button" className={styles.quiet} onClick={() => setLeaving(true)}>
            Remove from this computer
          </button>
        )}
      </div>
      {leaving && (
        <div role="group" aria-label={`Remove ${sitting.title} from this computer`}>
          <p>
            {inFile === 'nothing'
              ? 'The paper is removed from this computer. You can open the file again.'
              : inFile === 'saved'
                ? 'The paper and your answers are removed from this computer. The file you saved stays.'
                : 'The paper and your answers are removed from this computer, and nobody else has them.'}
          </p>
          <div className={styles.row}>
            <Button size="md" onClick={() => void forget()}>
              Remove
            </Button>
            <Button size="md" onClick={() => setLeaving(false)}>
              Cancel
            </Button>
          </div>
        </div>
      )}
    </>
  );
}
