import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { Rich } from '@/ui/Rich';
import { studentQuestions } from '@/core/formats/packet/paper';
import type { Response } from '@/core/kinds';
import { itemsOf } from '@/core/kinds/items';
import { drawnQuestions } from '@/core/model/parts';
import { desk } from '@/store/tables';
import { DeskReady } from '@/ui/desk/DeskReady';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { PaperQuestions } from '../kinds/PaperQuestions';
import styles from './look.module.css';

/** The paper as students see it, made from what they would be sent. What is filled in here is not kept. */
export function LookPage({ paperId }: { paperId: string }) {
  return (
    <DeskReady>
      <Look paperId={paperId} />
    </DeskReady>
  );
}

function Look({ paperId }: { paperId: string }) {
  const paper = useLiveQuery(async () => (await desk.papers.get(paperId)) ?? null, [paperId]);
  const [tried, setTried] = useState<Record<string, Response>>({});
  const questions = useMemo(
    () => (paper ? studentQuestions(itemsOf(drawnQuestions(paper, 'look')), 'look') : []),
    [paper],
  );
  if (paper === null)
    return <EmptyState title="No such paper on this desk" action={<a href="/">To the desk</a>} />;
  if (!paper) return null;
  return (
    <TwoColumns
      marginLabel="About this look"
      margin={
        <MarginBlock title="As a student sees it">
          <p>
            Built from the very packet students get: no key, scheme or note is in it. You can fill it in;
            nothing is kept.
          </p>
          <a href={`/papers/${paperId}`}>Back to writing</a>
        </MarginBlock>
      }
    >
      <h1 className={styles.title}>{paper.title}</h1>
      <div className={styles.instructions}>
        <Rich text={paper.instructions} />
      </div>
      <PaperQuestions
        questions={questions}
        parts={paper.parts ?? []}
        responseTo={(id) => tried[id] ?? null}
        respond={(id, response) => setTried({ ...tried, [id]: response })}
      />
    </TwoColumns>
  );
}
