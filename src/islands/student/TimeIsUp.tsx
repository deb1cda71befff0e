import type { HeldAttempt } from '@/store/sitTables';
import { counted } from '@/words/format';
import type { SaveState } from './attemptSession';
import { ViewHeading } from './ViewHeading';
import styles from './student.module.css';

/** Time has run out, and the other side has not said yet that all arrived: nothing more is typed, and nothing is lost. */
export function TimeIsUp({ held, saveState }: { held: HeldAttempt; saveState: SaveState }) {
  const waiting = held.unsent.length + held.apart.length;
  const away = saveState.state === 'onDevice' || saveState.state === 'onPage';
  return (
    <section className={styles.narrow} aria-labelledby="time-up" role="status">
      <ViewHeading id="time-up" text="Time is up" />
      {away && waiting > 0 ? (
        <>
          <p className={styles.waits}>
            {counted(waiting, 'answer')} {saveState.state === 'onPage' ? 'on this page' : 'on this device'}{' '}
            couldn’t be sent yet: your teacher’s computer can’t be reached.
          </p>
          <p>
            {saveState.state === 'onPage'
              ? 'Keep this page open. They are sent as soon as there is a connection, with the time you typed them.'
              : 'They are sent as soon as there is a connection, with the time you typed them. Keep this page open, or come back with your code.'}
          </p>
          <p>
            Tell your teacher. Answers that arrive after the end are kept separately; your teacher decides
            whether they count.
          </p>
        </>
      ) : away ? (
        <p>Everything you answered has arrived. The receipt comes as soon as there is a connection.</p>
      ) : (
        <p>Your answers are being handed in.</p>
      )}
    </section>
  );
}
