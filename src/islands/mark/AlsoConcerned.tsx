import { Button } from '@mantine/core';
import { useMemo } from 'react';
import { sumBy } from 'remeda';
import type { OfferedComment } from '@/core/marking/commentBank';
import { alsoConcerned } from '@/core/marking/concerned';
import type { AnswerEntry } from '@/core/marking/piles/arrange';
import type { SameAnswers } from '@/core/marking/sameAnswers';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted, points } from '@/words/format';
import type { MarkActs } from './useMarkActs';
import styles from './mark.module.css';

interface AlsoConcernedProps {
  entries: readonly AnswerEntry[];
  current: SameAnswers;
  offered: () => readonly OfferedComment[];
  acts: MarkActs;
}

/** A look at whom else a comment with points may concern, and giving them the same. */
export function AlsoConcerned({ entries, current, offered, acts }: AlsoConcernedProps) {
  const found = useMemo(() => alsoConcerned(entries, current, offered()), [entries, current, offered]);
  if (!found) return null;
  const { text, points: by, said, near } = found;
  const sign = by > 0 ? '+' : '−';
  return (
    <MarginBlock title="May concern others">
      <p className={styles.soft}>
        “{text}” gave {sign}
        {points(Math.abs(by))} here.
      </p>
      {[
        { groups: said, words: 'with the same comment, without its points' },
        { groups: near, words: 'close to this answer' },
      ].map(({ groups, words }) => {
        const count = sumBy(groups, ({ answers }) => answers.length);
        return (
          count > 0 && (
            <div key={words} className={styles.forward} role="group" aria-label={words}>
              <p>
                {counted(count, 'answer')} {words}: “{groups[0]?.text.slice(0, 60)}”
                {groups.length > 1 && ' and others'}
              </p>
              <Button size="compact-sm" onClick={() => acts.commentAlso(groups, { text, points: by })}>
                Give {counted(count, 'answer')} the same
              </Button>
            </div>
          )
        );
      })}
    </MarginBlock>
  );
}
