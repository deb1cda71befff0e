import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { kindOf, type Question } from '@/core/kinds';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { act } from '@/desk/act';
import { typeAnswers } from '@/store/scans';
import { isoNow } from '@/ui/clock';
import styles from './mark.module.css';

/** What stands on paper in words, typed by the teacher: the key scores it from then on, and equal words come together. */
export function TypeAnswer({ question, group }: { question: Question; group: SameAnswers }) {
  const [text, setText] = useState(group.onPaper ? '' : group.text);
  const [refused, setRefused] = useState(false);
  const byKey = kindOf(question).scoredBy === 'key';
  const type = async () => {
    const ids = group.answers.map(({ attemptId }) => attemptId);
    const taken = await act(typeAnswers(question, ids, text, isoNow()));
    setRefused(taken === false);
  };
  return (
    <form
      className={styles.typed}
      data-own-keys
      onSubmit={(event) => {
        event.preventDefault();
        void type();
      }}
    >
      <TextInput
        size="xs"
        aria-label="Type what stands on paper"
        placeholder={byKey ? 'Type what it says: the key scores it' : 'Type what it says, if you like'}
        maxLength={2_000}
        value={text}
        error={refused && 'This can’t be an answer to the question'}
        onChange={(event) => setText(event.currentTarget.value)}
      />
      <Button size="compact-sm" type="submit" disabled={text.trim() === '' && group.onPaper}>
        {text.trim() === '' && !group.onPaper ? 'Take the words back' : 'Keep the words'}
        {group.answers.length > 1 && ` of all ${group.answers.length}`}
      </Button>
    </form>
  );
}
