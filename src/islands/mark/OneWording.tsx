import { Button } from '@mantine/core';
import { useState } from 'react';
import type { Question } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import type { Wording } from '@/core/kinds/QuestionKind';
import { previewRescore, type RescorePreview } from '@/core/repair/rescore';
import { seatsOf } from '@/core/seats/seats';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { acceptingQuestion, repairQuestion } from '@/store/repairs';
import { isoNow } from '@/ui/clock';
import { points } from '@/words/format';
import { rescoreWords } from '@/words/rescore';
import styles from './mark.module.css';

interface OneWordingProps {
  sitting: SittingData;
  question: Question;
  number: string;
  wording: Wording;
}

interface Asked {
  share: number;
  effect: RescorePreview;
}

/** One wording, and what accepting it would do. */
export function OneWording({ sitting, question, number, wording }: OneWordingProps) {
  const [asked, setAsked] = useState<Asked | null>(null);
  const look = (share: number) => {
    const questions = itemsOf(
      sitting.paper.questions.map((each) =>
        each.id === question.id ? (acceptingQuestion(each, wording, share) ?? each) : each,
      ),
    );
    const after = seatsOf({ ...sitting, questions }, sitting.now);
    setAsked({ share, effect: previewRescore(seatsOf(sitting, sitting.now), after) });
  };
  const worth = (share: number) => points(Math.round(share * question.points * 100) / 100);
  return (
    <div className={styles.forward} role="group" aria-label={`Accept “${wording.text}”`}>
      <p>“{wording.text}” isn’t accepted by the key.</p>
      {asked === null ? (
        <>
          <Button size="compact-sm" onClick={() => look(1)}>
            Accept it…
          </Button>
          <Button size="compact-sm" onClick={() => look(0.5)}>
            Accept it for half…
          </Button>
        </>
      ) : (
        <>
          <p role="status">{rescoreWords(asked.effect)} What you gave by hand stays.</p>
          <Button
            size="compact-sm"
            onClick={() => {
              const said = `Question ${number}: “${wording.text}” accepted${asked.share < 1 ? ' for half' : ''}`;
              const before = sitting.paper.questions.find(({ id }) => id === question.id);
              if (before)
                void act(
                  repairQuestion(
                    {
                      ...{ sittingId: sitting.sitting.id, before, itemId: question.id, rule: null },
                      changed: acceptingQuestion(before, wording, asked.share),
                      ...{ nobodyLoses: false, reason: said, also: [], bank: false },
                    },
                    said,
                    isoNow(),
                  ),
                );
              setAsked(null);
            }}
          >
            {wording.id === question.id ? `Accept for ${worth(asked.share)}` : 'Accept into the key'}
          </Button>
          <Button size="compact-sm" onClick={() => setAsked(null)}>
            Cancel
          </Button>
        </>
      )}
    </div>
  );
}
