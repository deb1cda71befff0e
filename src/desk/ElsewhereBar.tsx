import { Button } from '@mantine/core';
import { useEffect } from 'react';
import { elsewhereWords } from '@/words/computers';
import { useNow } from '../ui/clock';
import { say } from './act';
import styles from './Shell.module.css';
import { useElsewhere } from './useElsewhere';

/** Says on every page where the desk is while another computer holds it, and has nothing typed that could not be kept. */
export function ElsewhereBar() {
  const elsewhere = useElsewhere();
  const now = useNow(30_000);
  const words = elsewhere ? elsewhereWords(elsewhere, now) : '';
  useEffect(() => {
    if (words === '') return;
    const refuse = (event: Event) => {
      const field = event.target instanceof Element ? event.target : null;
      // Searching and what belongs to the computer itself go on.
      if (!field?.closest('main') || field.closest('[type=search], [data-not-desk]')) return;
      event.preventDefault();
      say(words, true);
    };
    document.addEventListener('beforeinput', refuse, true);
    return () => document.removeEventListener('beforeinput', refuse, true);
  }, [words]);
  // That page says it at length.
  if (!elsewhere || window.location.pathname === '/computers') return null;
  return (
    <p role="status" className={styles.elsewhere}>
      <span>
        {words}
        {elsewhere.unsent && ' What was changed here last never got there.'}
      </span>
      {elsewhere.why !== 'giving' && (
        <Button
          component="a"
          size="compact-sm"
          href={elsewhere.why === 'forgotten' ? '/computers' : '/computers?take=1'}
        >
          {elsewhere.why === 'forgotten' ? 'See Computers' : 'Take the desk over here'}
        </Button>
      )}
    </p>
  );
}
