import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { itemsOf } from '@/core/kinds/items';
import type { Paper } from '@/core/model/paper';
import type { HandMark, Sitting } from '@/core/model/sitting';
import { readyToSit } from '@/core/scoring/paperFindings';
import { previewRescore } from '@/core/scoring/rescore';
import { sameContent } from '@/store/papers';
import { paperOf } from '@/store/queries';
import { adoptPaper } from '@/store/sittings';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { act } from '@/ui/desk/act';
import { counted, points } from '@/ui/format';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './write.module.css';

/** A sitting whose students had an earlier version: what the changes would do to its points, and the way to let them. */
export function ChangedSince({ paper, sitting }: { paper: Paper; sitting: Sitting }) {
  const effect = useLiveQuery(() => effectOn(paper, sitting), [paper, sitting]);
  if (sitting.paperVersion === null)
    return (
      <MarginBlock title={sitting.title}>
        <p className={styles.soft}>Nobody has started: students will get the paper as it stands then.</p>
      </MarginBlock>
    );
  if (!effect) return null;
  return (
    <MarginBlock title={sitting.title}>
      <p>
        Students sat an earlier version of this paper. With what has changed since,{' '}
        {counted(effect.answersChanged, 'answer')} would have other points: {effect.studentsUp} up,{' '}
        {effect.studentsDown} down, the mean from {points(effect.meanBefore)} to {points(effect.meanAfter)}.
      </p>
      <Button disabled={!readyToSit(paper)} onClick={() => void act(adoptPaper(sitting.id, isoNow()))}>
        Score it with the changed paper
      </Button>
    </MarginBlock>
  );
}

async function effectOn(paper: Paper, sitting: Sitting) {
  const sat = await paperOf(sitting);
  if (!sat || sitting.paperVersion === null || sameContent(sat, paper)) return null;
  const attempts = await desk.attempts.where({ sittingId: sitting.id }).toArray();
  const marksOf = new Map<string, HandMark[]>();
  for (const mark of await desk.marks.where({ sittingId: sitting.id }).toArray())
    marksOf.set(mark.attemptId, [...(marksOf.get(mark.attemptId) ?? []), mark]);
  return previewRescore(itemsOf(sat.questions), itemsOf(paper.questions), attempts, marksOf);
}
