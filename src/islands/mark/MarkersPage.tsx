import { useMemo, useState } from 'react';
import { kindOf } from '@/core/kinds';
import type { AnswersGiven } from '@/core/model/share';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { BlindSample } from './BlindSample';
import { MarkersCompared } from './MarkersCompared';
import { MarksIn } from './MarksIn';
import { markersFieldId, ShareForm } from './ShareForm';
import { ShareTable } from './ShareTable';
import { useShares } from './useShares';
import styles from './markers.module.css';

/** Who marks what of a sitting: shares given to colleagues, what came back, and how far markers agree. */
export function MarkersPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="mark">
      {(sitting) => <Markers sitting={sitting} />}
    </SittingPage>
  );
}

function Markers({ sitting }: { sitting: SittingData }) {
  const shares = useShares(sitting);
  const [preset, setPreset] = useState<AnswersGiven[] | null>(null);
  const byHand = useMemo(
    () => sitting.questions.filter((question) => kindOf(question).scoredBy === 'hand'),
    [sitting.questions],
  );
  const back = <a href={`/sittings/${sitting.sitting.id}/mark`}>Back to marking</a>;
  if (!shares) return null;
  if (sitting.progress.in === 0)
    return (
      <EmptyState title="Nothing handed in yet" action={back}>
        Once students have handed in, you can give their answers to colleagues to mark.
      </EmptyState>
    );
  if (byHand.length === 0)
    return (
      <EmptyState title="No question here is marked by hand" action={back}>
        There is nothing to give to another marker.
      </EmptyState>
    );
  return (
    <TwoColumns
      marginLabel="Give answers to markers"
      margin={
        <>
          <ShareForm sitting={sitting} questions={byHand} preset={preset} setPreset={setPreset} />
          <BlindSample sitting={sitting} questions={byHand} shares={shares} />
          <MarginBlock title="Good to know">
            <p className={styles.soft}>
              Markers see no names, numbers or times, only the answers and your paper with its key. What they
              give counts where you gave no points yourself.
            </p>
            <p>{back}</p>
          </MarginBlock>
        </>
      }
    >
      <h2 className={styles.heading}>Who marks what</h2>
      <ShareTable sitting={sitting} questions={byHand} shares={shares} />
      <MarksIn sitting={sitting} />
      <MarkersCompared
        sitting={sitting}
        shares={shares}
        giveToThird={(answers) => {
          setPreset(answers);
          document.getElementById(markersFieldId)?.focus();
        }}
      />
    </TwoColumns>
  );
}
