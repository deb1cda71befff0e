import { Button } from '@mantine/core';
import { useMemo } from 'react';
import type { Question } from '@/core/kinds';
import { sameAnswers } from '@/core/marking/sameAnswers';
import { blindSample, countGiven } from '@/core/marking/shares/deal';
import { ownMarker } from '@/core/model/mark';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { giveAgain } from '@/store/shares';
import { isoNow } from '@/ui/clock';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted } from '@/words/format';
import type { Shares } from './useShares';
import styles from './markers.module.css';

interface BlindSampleProps {
  sitting: SittingData;
  questions: readonly Question[];
  shares: Shares;
}

/** Agreement with oneself: some of what was marked comes again, without its marks. */
export function BlindSample({ sitting, questions, shares }: BlindSampleProps) {
  const drawn = shares.shares.filter(({ purpose }) => purpose === 'again').length;
  const sample = useMemo(
    () =>
      blindSample(
        questions.map((question) => ({
          questionId: question.id,
          groups: sameAnswers(question, sitting.seats),
        })),
        ownMarker,
        `${sitting.sitting.id} again ${drawn}`,
      ),
    [questions, sitting.seats, sitting.sitting.id, drawn],
  );
  const count = countGiven(sample);
  const draw = async () => {
    const made = await act(giveAgain(sitting.sitting.id, sample, isoNow()));
    if (made) window.location.assign(`/sittings/${made.sittingId}/mark`);
  };
  return (
    <MarginBlock title="Agreement with yourself">
      <p className={styles.soft}>
        A tenth of what you marked, ten at least, comes again without its marks. Nothing changes unless you
        say so.
      </p>
      <Button size="sm" disabled={count === 0} onClick={() => void draw()}>
        {count === 0 ? 'You have marked nothing yet' : `Mark ${counted(count, 'answer')} again`}
      </Button>
    </MarginBlock>
  );
}
