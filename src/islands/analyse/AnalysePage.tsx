import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { lazy, Suspense, useCallback, useMemo, useState } from 'react';
import { gradeShares } from '@/core/scoring/gradeOf';
import { mostMissedFirst, studentsUnder, totalFigures } from '@/core/analysis/sittingFigures';
import { inView, isGuest, registerName } from '@/core/model/names';
import { inFigures, type Seat } from '@/core/seats/seats';
import { desk } from '@/store/tables';
import { shareWords } from '@/words/shares';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import type { Lines } from '@/store/deskSettings';
import { EmptyState } from '@/ui/EmptyState';
import { PointsField } from '@/ui/PointsField';
import { counted, percent } from '@/words/format';
import { GroupSelect } from '@/ui/GroupSelect';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { GroupsCompared } from './GroupsCompared';
import { QuestionTable, questionRowId } from './QuestionTable';
import { SuspectsBlock } from './SuspectsBlock';
import { Totals, Trust } from './Totals';
import { useAnalysis } from '@/desk/useAnalysis';
import { useLines } from './useLines';
import styles from './analyse.module.css';

// The chart library is large; the figures and the table do not wait for it.
const SpreadChart = lazy(() => import('@/ui/SpreadChart'));
const TimeChart = lazy(() => import('./TimeChart'));
const QuestionMap = lazy(() => import('./QuestionMap'));

/** What was missed, what was unfair, and who needs a word. */
export function AnalysePage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="analyse">
      {(sitting) => <Analyse sitting={sitting} />}
    </SittingPage>
  );
}

function Analyse({ sitting }: { sitting: SittingData }) {
  const sittingId = sitting.sitting.id;
  const [group, setGroup] = useState('');
  const [byMissed, setByMissed] = useState(true);
  const [openId, setOpenId] = useOpenQuestion();
  const { lines, set: setLines } = useLines(sitting);
  const seats = useMemo(
    () => (group ? sitting.seats.filter(({ student }) => inView(student, group)) : inFigures(sitting.seats)),
    [sitting.seats, group],
  );
  const totals = useMemo(() => totalFigures(seats), [seats]);
  const analysis = useAnalysis(sitting, seats);
  const chartLines = useMemo(() => [lines.student], [lines.student]);
  const scale = useLiveQuery(async () => (await desk.grades.get(sittingId)) ?? null, [sittingId]);
  const most = totals?.max ?? 0;
  const grades = useMemo(() => gradeShares(scale ?? null, most), [scale, most]);
  const open = useCallback(
    (id: string) => {
      setOpenId(id);
      // Once it is drawn open.
      requestAnimationFrame(() => {
        const row = document.getElementById(questionRowId(id));
        row?.scrollIntoView({ block: 'start' });
        row?.querySelector('button')?.focus({ preventScroll: true });
      });
    },
    [setOpenId],
  );
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
          action={<a href={`/sittings/${sittingId}/run`}>Watch students work</a>}
        >
          Figures appear once the first student hands in.
        </EmptyState>
      </>
    );
  const rows = byMissed ? mostMissedFirst(analysis.rows) : analysis.rows;
  return (
    <TwoColumns
      marginLabel="What to look at"
      margin={
        <>
          <SuspectsBlock suspects={analysis.suspects} sitting={sitting} rows={analysis.rows} open={open} />
          <MoreWays sittingId={sittingId} />
          <Under seats={seats} sitting={sitting} line={lines.student} />
        </>
      }
    >
      <div className={styles.head}>
        {pickGroup}
        {totals.unfinished > 0 && (
          <p className={styles.notFinal} role="note">
            Not final: {counted(totals.unfinished, 'paper')} of {totals.n}{' '}
            {totals.unfinished === 1 ? 'is' : 'are'} not fully marked.{' '}
            <a href={`/sittings/${sittingId}/mark`}>Continue marking</a>
          </p>
        )}
      </div>
      <Totals totals={totals} />
      <Suspense fallback={<div className={styles.mapRoom} />}>
        <QuestionMap rows={analysis.rows} line={lines.question} open={open} />
      </Suspense>
      <div className={styles.tableHead}>
        <h2>Questions</h2>
        <LineField
          label="Highlight questions below"
          value={lines.question}
          change={(question) => setLines({ ...lines, question })}
        />
        <Button size="compact-sm" onClick={() => setByMissed(!byMissed)}>
          {byMissed ? 'In the order of the paper' : 'Most missed first'}
        </Button>
      </div>
      <QuestionTable
        rows={rows}
        analysis={analysis}
        sittingId={sittingId}
        line={lines.question}
        openId={openId}
        toggle={(id) => setOpenId(openId === id ? null : id)}
      />
      <p className={styles.soft}>
        Figures are over marked answers of students who have handed in; guests are in none.
      </p>
      <div className={styles.tableHead}>
        <h2>Totals</h2>
        <LineField
          label="Highlight students below"
          value={lines.student}
          change={(student) => setLines({ ...lines, student })}
        />
      </div>
      <Suspense fallback={<div className={styles.chart} />}>
        <SpreadChart bars={totals.spread} meanShare={totals.meanShare} lines={chartLines} grades={grades} />
      </Suspense>
      <Trust trust={analysis.trust} mean={totals.mean} />
      <Suspense fallback={null}>
        <TimeChart seats={analysis.seats} now={sitting.now} />
      </Suspense>
      {!group && <GroupsCompared sitting={sitting} seats={analysis.seats} />}
    </TwoColumns>
  );
}

/** The question that is open, as the address says it. */
function useOpenQuestion(): [string | null, (id: string | null) => void] {
  const [openId, setOpenId] = useState(() => new URLSearchParams(location.search).get('question'));
  const set = useCallback((id: string | null) => {
    const url = new URL(location.href);
    if (id === null) url.searchParams.delete('question');
    else url.searchParams.set('question', id);
    history.replaceState(history.state, '', url);
    setOpenId(id);
  }, []);
  return [openId, set];
}

interface LineFieldProps {
  label: string;
  /** A share of the points. */
  value: number;
  change: (value: number) => void;
}

function LineField({ label, value, change }: LineFieldProps) {
  return (
    <span className={styles.line}>
      {label}
      <PointsField
        label={`${label}, percent`}
        value={Math.round(value * 100)}
        max={100}
        w={58}
        onPoints={(typed) => typed !== null && change(typed / 100)}
      />
      %
    </span>
  );
}

/** Other looks at the same figures. */
function MoreWays({ sittingId }: { sittingId: string }) {
  const at = `/sittings/${sittingId}`;
  return (
    <MarginBlock title="More looks">
      <ul className={styles.plainList}>
        <li>
          <a href={`${at}/class`}>Go through it with the class</a>
        </li>
        <li>
          <a href={`${at}/growth`}>Compare with another sitting</a>
        </li>
        <li>
          <a href={`${at}/report`}>Report and tables</a>
        </li>
      </ul>
    </MarginBlock>
  );
}

function Under({
  seats,
  sitting,
  line,
}: {
  seats: readonly Seat[];
  sitting: SittingData;
  line: Lines['student'];
}) {
  const under = studentsUnder(seats, line);
  return (
    <MarginBlock title={`${counted(under.length, 'student')} below ${percent(line)}`}>
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
