import { Checkbox } from '@mantine/core';
import { useState, type ReactNode } from 'react';
import type { Shows } from '@/core/model/release';
import { counted } from '@/words/format';
import { givenAwayWords } from '@/words/releases';
import styles from './plan.module.css';

/**
 * Asks for a yes before something tells what is right while some may still sit the paper: to exactly these things, for so many.
 *
 * @param shows what would tell it; null: nothing is asked
 */
export function useYes(shows: Shows | null, mayStillSit: number): { may: boolean; box: ReactNode } {
  const [saidYes, setSaidYes] = useState('');
  if (!shows) return { may: true, box: null };
  const question = `${givenAwayWords(shows)} ${mayStillSit}`;
  const box = (
    <Checkbox
      size="sm"
      className={styles.finding ?? ''}
      label={`Yes, show ${givenAwayWords(shows)} now, although ${counted(mayStillSit, 'student')} may still sit this paper and could find out`}
      checked={saidYes === question}
      onChange={(event) => setSaidYes(event.currentTarget.checked ? question : '')}
    />
  );
  return { may: saidYes === question, box };
}
