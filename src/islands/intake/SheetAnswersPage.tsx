import { Anchor } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useState } from 'react';
import { DeskReady } from '@/desk/DeskReady';
import { SheetSource } from '@/desk/SheetSource';
import { desk } from '@/store/tables';
import type { Brought } from '@/store/bringAnswers';
import { counted } from '@/words/format';
import { Understood } from './Understood';
import styles from './intake.module.css';

/** Answers that were given elsewhere: a sheet with one row a student. */
export function SheetAnswersPage() {
  return (
    <DeskReady>
      <SheetAnswers />
    </DeskReady>
  );
}

function SheetAnswers() {
  const [brought, setBrought] = useState<Brought | null>(null);
  const query = new URLSearchParams(window.location.search);
  const [sittingId, paperId] = [query.get('sitting'), query.get('paper')];
  const papers = useLiveQuery(() => desk.papers.orderBy('changedAt').reverse().toArray());
  const sitting = useLiveQuery(
    async () => (sittingId === null ? null : ((await desk.sittings.get(sittingId)) ?? null)),
    [sittingId],
  );
  if (!papers || sitting === undefined) return null;
  return (
    <>
      <h1 className={styles.heading}>
        {sitting ? `Import answers into ${sitting.title}` : 'Import answers from a sheet'}
      </h1>
      {brought ? (
        <Done brought={brought} again={() => setBrought(null)} />
      ) : (
        <>
          <p className={styles.about}>
            One row per student, one column per question: from a form, a spreadsheet or another program. Paste
            the rows, or choose a CSV, XLSX or ODS file. You can check everything before you import.
          </p>
          <SheetSource
            label="Rows of answers"
            placeholder={
              'Name, Number, Which light is red?, How far in 2 hours?\nAmara Okafor, 2201, port, 12 nm'
            }
          >
            {(rows, key) => (
              <Understood
                key={`${key} ${rows.length} ${rows[0]?.cells.length ?? 0}`}
                rows={rows}
                name={key}
                papers={papers}
                sitting={sitting}
                paperId={paperId}
                done={setBrought}
              />
            )}
          </SheetSource>
        </>
      )}
    </>
  );
}

function Done({ brought, again }: { brought: Brought; again: () => void }) {
  const { sittingId, attempts } = brought;
  const at = (stage: string) => `/sittings/${sittingId}/${stage}`;
  return (
    <div className={styles.done}>
      {/* The button that had the focus is gone. */}
      <p tabIndex={-1} ref={(said) => said?.focus()}>
        Answers of {counted(attempts, 'attempt')} imported.
      </p>
      <ul>
        <li>
          <a href={at('mark')}>Mark what no key can score</a>
        </li>
        <li>
          <a href={at('analyse')}>Analyse</a>
        </li>
        <li>
          <Anchor component="button" c="inherit" underline="always" onClick={again}>
            Import another sheet
          </Anchor>
        </li>
      </ul>
    </div>
  );
}
