import { Button } from '@mantine/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import {
  mostMissedFirst,
  questionFigures,
  questionLine,
  studentLine,
  studentsUnder,
  totalFigures,
  type TotalFigures,
} from '@/core/analysis/sittingFigures';
import { inView, isGuest, registerName } from '@/core/model/names';
import { inFigures, type Seat } from '@/core/seats/seats';
import { shareWords } from '@/words/shares';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { EmptyState } from '@/ui/EmptyState';
import { counted, percent, points } from '@/words/format';
import { GroupSelect } from '@/ui/GroupSelect';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { QuestionTable } from './QuestionTable';
import styles from './analyse.module.css';

// The chart library is large; the figures and the table do not wait for it.
const SpreadChart = lazy(() => import('@/ui/SpreadChart'));

/** What was missed, by how many, and who needs a word. */
export function AnalysePage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="analyse">
      {(sitting) => <Analyse sitting={sitting} />}
    </SittingPage>
  );
}

function Analyse({ sitting }: { sitting: SittingData }) {
  const [group, setGroup] = useState('');
  const [byMissed, setByMissed] = useState(true);
  const seats = useMemo(
    () => (group ? sitting.seats.filter(({ student }) => inView(student, group)) : inFigures(sitting.seats)),
    [sitting.seats, group],
  );
  const totals = useMemo(() => totalFigures(seats), [seats]);
  const figures = useMemo(() => questionFigures(sitting.questions, seats), [sitting.questions, seats]);
  const pickGroup = (
    <GroupSelect
      groups={sitting.groups}
      guests={sitting.seats.some((seat) => isGuest(seat.student))}
      guestsApart
      value={group}
      choose={setGroup}
    />
  );
  if (!totals)
    return (
      <>
        {pickGroup}
        <EmptyState
          title={group ? 'Nobody in this group has handed in yet' : 'Nothing handed in yet'}
          action={<a href={`/sittings/${sitting.sitting.id}/run`}>Watch students work</a>}
        >
          Figures appear once the first student hands in.
        </EmptyState>
      </>
    );
  return (
    <TwoColumns marginLabel="Students below the line" margin={<Under seats={seats} sitting={sitting} />}>
      <div className={styles.head}>
        {pickGroup}
        {totals.unfinished > 0 && (
          <p className={styles.notFinal} role="note">
            Not final: {counted(totals.unfinished, 'paper')} of {totals.n}{' '}
            {totals.unfinished === 1 ? 'is' : 'are'} not fully marked.{' '}
            <a href={`/sittings/${sitting.sitting.id}/mark`}>Continue marking</a>
          </p>
        )}
      </div>
      <Totals totals={totals} />
      <Suspense fallback={<div className={styles.chart} />}>
        <SpreadChart bars={totals.spread} meanShare={totals.meanShare} />
      </Suspense>
      <div className={styles.tableHead}>
        <h2>Questions</h2>
        <Button size="compact-sm" onClick={() => setByMissed(!byMissed)}>
          {byMissed ? 'In the order of the paper' : 'Most missed first'}
        </Button>
      </div>
      <QuestionTable figures={byMissed ? mostMissedFirst(figures) : figures} sittingId={sitting.sitting.id} />
      <p className={styles.soft}>
        Questions below {percent(questionLine)} are highlighted. Figures use marked answers only.
      </p>
    </TwoColumns>
  );
}

function Totals({ totals }: { totals: TotalFigures }) {
  const rows: [string, string][] = [
    ['handed in', String(totals.n)],
    ['mean', points(totals.mean)],
    ['median', points(totals.median)],
    ['lowest', points(totals.lowest)],
    ['highest', points(totals.highest)],
    ['standard deviation', totals.standardDeviation === null ? '–' : points(totals.standardDeviation)],
    ['maximum points', points(totals.max)],
  ];
  return (
    <dl className={styles.totals}>
      {rows.map(([word, value]) => (
        <div key={word}>
          <dd>{value}</dd>
          <dt>{word}</dt>
        </div>
      ))}
    </dl>
  );
}

function Under({ seats, sitting }: { seats: Seat[]; sitting: SittingData }) {
  const under = studentsUnder(seats, studentLine);
  return (
    <MarginBlock title={`${counted(under.length, 'student')} below ${percent(studentLine)}`}>
      {under.length === 0 && <p>Nobody is below the line.</p>}
      <ol className={styles.under}>
        {under.map((seat) => (
          <li key={seat.student.id}>
            <a href={`/sittings/${sitting.sitting.id}/scripts/${seat.student.id}`}>
              {registerName(seat.student)}
            </a>
            <span>
              {seat.scorecard && shareWords(seat.scorecard)}
              {seat.scorecard?.final ? '' : ' so far'}
            </span>
          </li>
        ))}
      </ol>
    </MarginBlock>
  );
}
