import { useEffect, useRef, useState } from 'react';
import { numbersOf } from '@/core/kinds/itemNumbers';
import type { AnswerFill } from '@/core/kinds/fillings';
import { timeWarning, type TimeWarning } from '@/core/attempts/timeWarning';
import type { HeldAttempt } from '@/store/sitTables';
import { announce } from '@/ui/announce';
import { clockTime, countdown } from '@/words/format';
import type { SaveState } from './attemptSession';
import styles from './student.module.css';

interface AttemptBarProps {
  held: HeldAttempt;
  /** Null: no limit. */
  leftMs: number | null;
  /** How long the student has in all; null: no limit. */
  totalMs: number | null;
  saveState: SaveState;
  fillOf: (questionId: string) => AnswerFill;
  /** The questions that are in front of the student, where they come one by one. */
  current?: readonly string[];
  /** Null where the student cannot choose where to go. */
  goTo: ((questionId: string) => void) | null;
  /** Null while the last look is open. */
  lastLook: (() => void) | null;
}

const fillWords: Record<AnswerFill, string> = {
  open: 'not answered',
  half: 'half answered',
  done: 'answered',
};

/** Time left, whether all is kept, and a square for every question. */
export function AttemptBar({
  held,
  leftMs,
  totalMs,
  saveState,
  fillOf,
  current = [],
  goTo,
  lastLook,
}: AttemptBarProps) {
  const bar = useBarHeight();
  const here = useRef<HTMLButtonElement>(null);
  const shown = current[0];
  // Where the squares are more than the row holds, the one in front of the student is in view.
  useEffect(() => {
    // What it gives back in newer browsers is no way to end the effect.
    void here.current?.scrollIntoView({ block: 'nearest', inline: 'nearest' });
  }, [shown]);
  useSayWhereKept(saveState.state);
  const { questions } = held.packet;
  const numbers = numbersOf(questions);
  const count = questions.filter((question) => fillOf(question.id) === 'done').length;
  const half = questions.filter((question) => fillOf(question.id) === 'half').length;
  return (
    <div ref={bar} className={styles.attemptBar}>
      <div className={styles.attemptFacts}>
        <TimeLeft leftMs={leftMs} totalMs={totalMs} />
        <span>
          {count} of {questions.length} answered{half > 0 && `, ${half} half`}
        </span>
        <span className={saveState.state === 'onPage' ? styles.timeShort : styles.soft}>
          {savedWords(saveState)}
        </span>
        {lastLook && (
          <button type="button" className={styles.quiet} onClick={lastLook}>
            Check and hand in
          </button>
        )}
      </div>
      <nav aria-label="Questions" className={styles.map}>
        {questions.map((question) => {
          const fill = fillOf(question.id);
          const marked = held.comeBack.includes(question.id);
          const passed = held.packet.noBack === true && held.passed?.includes(question.id) === true;
          const words = [fillWords[fill], passed && 'done with', marked && 'come back to it'];
          const isHere = current.includes(question.id);
          return (
            <button
              key={question.id}
              type="button"
              aria-label={`Question ${numbers.get(question.id)}: ${words.filter(Boolean).join(', ')}`}
              ref={isHere ? here : undefined}
              aria-current={isHere ? 'step' : undefined}
              disabled={goTo === null && !isHere}
              className={[styles.square, styles[fill], marked && styles.marked, isHere && styles.here]
                .filter(Boolean)
                .join(' ')}
              onClick={() => goTo?.(question.id)}
            >
              {numbers.get(question.id)}
            </button>
          );
        })}
      </nav>
    </div>
  );
}

/** What is scrolled to, and what gets the focus, stands below the bar and not behind it (WCAG 2.2, 2.4.11). */
function useBarHeight() {
  const bar = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = bar.current;
    if (!element || typeof ResizeObserver === 'undefined') return;
    const page = document.documentElement;
    const seen = new ResizeObserver(() => {
      const sticks = getComputedStyle(element).position === 'sticky';
      page.style.scrollPaddingTop = sticks ? `${element.offsetHeight + 8}px` : '';
    });
    seen.observe(element);
    return () => {
      seen.disconnect();
      page.style.scrollPaddingTop = '';
    };
  }, []);
  return bar;
}

/** Says when answers stay on the device, and when they go on again; not with each key. */
function useSayWhereKept(state: SaveState['state']): void {
  const away = useRef(false);
  useEffect(() => {
    if (state === 'saving') return;
    const now = state !== 'saved';
    if (now && state === 'onPage') announce('Not saved: this device is full and there is no connection');
    else if (now && !away.current) announce('No connection: what you type is saved on this device');
    else if (!now && away.current) announce('Connected again: everything is saved');
    away.current = now;
  }, [state]);
}

const hiddenKey = 'gribbet-time-hidden';

/** The time that is left, which can be hidden; the warnings come all the same, and screen readers say them. */
function TimeLeft({ leftMs, totalMs }: { leftMs: number | null; totalMs: number | null }) {
  const [hidden, setHidden] = useState(() => sessionStorage.getItem(hiddenKey) === 'yes');
  const warning = timeWarning(leftMs, totalMs);
  const toggle = () => {
    sessionStorage.setItem(hiddenKey, hidden ? 'no' : 'yes');
    setHidden(!hidden);
  };
  if (leftMs === null) return <span className={styles.time}>no time limit</span>;
  const short = warning === 'five' || warning === 'one';
  return (
    <>
      {!hidden && <span className={short ? styles.timeShort : styles.time}>{countdown(leftMs)} left</span>}
      <span role="status" className={hidden ? styles.timeShort : 'visuallyHidden'}>
        {warning ? warningWords[warning] : ''}
      </span>
      <button type="button" className={styles.quiet} onClick={toggle}>
        {hidden ? 'Show the time' : 'Hide the time'}
      </button>
    </>
  );
}

const warningWords: Record<TimeWarning, string> = {
  half: 'Half your time is gone.',
  five: 'Less than five minutes left.',
  one: 'Less than one minute left. Your answers will be handed in then.',
};

function savedWords(saveState: SaveState): string {
  if (saveState.state === 'saved') return `saved ${clockTime(saveState.at)}`;
  if (saveState.state === 'saving') return 'saving…';
  return saveState.state === 'onDevice'
    ? 'saved on this device; no connection'
    : 'Not saved: this device is full and there is no connection. Keep this page open and free some space';
}
