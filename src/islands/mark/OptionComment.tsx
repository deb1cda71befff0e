import { Button, NativeSelect } from '@mantine/core';
import { GrowingTextarea } from '@/ui/GrowingTextarea';
import { useMemo, useState } from 'react';
import type { Question } from '@/core/kinds';
import { choosersOf, withWordsAdded } from '@/core/marking/choosers';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { actWhenRoom } from '@/desk/act';
import { markAnswers } from '@/store/marks';
import { isoNow } from '@/ui/clock';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import styles from './mark.module.css';

interface OptionCommentProps {
  sittingId: string;
  question: Question;
  number: string;
  groups: readonly SameAnswers[];
}

/** A comment to everyone who chose one of several options, whatever else they chose. */
export function OptionComment({ sittingId, question, number, groups }: OptionCommentProps) {
  const all = useMemo(
    () => choosersOf(question, groups).filter(({ answers }) => answers.length > 0),
    [question, groups],
  );
  const [asked, setAsked] = useState('');
  const [words, setWords] = useState('');
  const chosen = all.find(({ category }) => category.id === asked) ?? all[0];
  if (!chosen || all.length < 2) return null;
  const ids = chosen.answers.map(({ attemptId }) => attemptId);
  const comment = () => {
    const place = { sittingId, questionId: question.id, attemptIds: ids };
    const text = words.trim();
    const said = `Question ${number}: comment to all who chose “${chosen.category.label}”`;
    void actWhenRoom(() =>
      markAnswers(place, (before) => ({ comment: withWordsAdded(before.comment, text) }), said, isoNow()),
    ).then((done) => done && setWords(''));
  };
  return (
    <MarginBlock title="Comment all who chose">
      <form
        data-own-keys
        className={styles.optionComment}
        onSubmit={(event) => {
          event.preventDefault();
          comment();
        }}
      >
        <NativeSelect
          size="xs"
          aria-label="Who chose"
          value={chosen.category.id}
          data={all.map(({ category, answers }) => ({
            value: category.id,
            label: `${category.label} (${answers.length})`,
          }))}
          onChange={(event) => setAsked(event.currentTarget.value)}
        />
        <GrowingTextarea
          size="xs"
          maxLength={2_000}
          aria-label="Comment to all who chose it"
          placeholder="Added to the comment each has"
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
        <Button type="submit" size="compact-sm" disabled={words.trim() === ''}>
          Comment {counted(ids.length, 'answer')}
        </Button>
      </form>
    </MarginBlock>
  );
}
