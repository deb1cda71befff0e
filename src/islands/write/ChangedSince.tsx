import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { itemsOf } from '@/core/kinds/items';
import type { Paper } from '@/core/model/paper';
import type { Question } from '@/core/kinds';
import type { Sitting } from '@/core/model/sitting';
import { seatsOf } from '@/core/seats/seats';
import { readyToSit } from '@/core/scoring/paperFindings';
import { previewRescore } from '@/core/repair/rescore';
import { sameContent } from '@/core/model/sameContent';
import { throwChangesAway } from '@/store/papers';
import { paperOf, sittingRecords } from '@/store/queries';
import { adoptPaper } from '@/store/sittings';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import { rescoreWords } from '@/words/rescore';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './write.module.css';

/** A sitting whose students had an earlier version: what the changes would do to its points, and the way to let them. */
export function ChangedSince({ paper, sitting }: { paper: Paper; sitting: Sitting }) {
  const effect = useLiveQuery(() => effectOn(paper, sitting), [paper, sitting]);
  if (sitting.paperVersion === null)
    return (
      <MarginBlock title={sitting.title}>
        <p className={styles.soft}>
          Nobody has started yet: students get the paper as it is when the first one starts.
        </p>
      </MarginBlock>
    );
  if (!effect) return null;
  return (
    <MarginBlock title={sitting.title}>
      <p>Students sat an earlier version of this paper. With your changes since, {rescoreWords(effect)}</p>
      <Button disabled={!readyToSit(paper)} onClick={() => void act(adoptPaper(sitting.id, isoNow()))}>
        Score with the changed paper
      </Button>
      <Button onClick={() => void undoChanges(sitting)}>Throw the changes away</Button>
      <p className={styles.soft}>
        To change one question alone, with who goes up and down and who crosses the line:{' '}
        <a href={`/sittings/${sitting.id}/repair`}>repair it in Analyse</a>.
      </p>
    </MarginBlock>
  );
}

async function undoChanges(sitting: Sitting) {
  const sat = await paperOf(sitting);
  if (sat) await act(throwChangesAway(sitting.paperId, sat, isoNow()));
}

async function effectOn(paper: Paper, sitting: Sitting) {
  const sat = await paperOf(sitting);
  if (!sat || sitting.paperVersion === null || sameContent(sat, paper)) return null;
  const records = await sittingRecords(sitting.id);
  if (!records) return null;
  const now = Date.now();
  const scored = (questions: Question[]) => seatsOf({ ...records, questions }, now);
  return previewRescore(scored(itemsOf(sat.questions)), scored(itemsOf(paper.questions)));
}
