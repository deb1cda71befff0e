import { Button } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { reliability } from '@/core/analysis/reliability';
import { matrixOf } from '@/core/analysis/seatsMatrix';
import type { GradeScale } from '@/core/model/gradeScale';
import { registerName } from '@/core/model/names';
import { inFigures, isIn } from '@/core/seats/seats';
import { act } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { setSittingGrades } from '@/store/markBooks';
import { desk } from '@/store/tables';
import { isoNow } from '@/ui/clock';
import { useAtOnce } from '@/ui/useAtOnce';
import { EmptyState } from '@/ui/EmptyState';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted, points } from '@/words/format';
import { GradesEditor } from './GradesEditor';
import { GradeTemplates } from './GradeTemplates';
import styles from './markbook.module.css';

/** The grade lines of a sitting, over its spread. */
export function GradesPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="handBack">
      {(sitting) => <Grades sitting={sitting} />}
    </SittingPage>
  );
}

function Grades({ sitting }: { sitting: SittingData }) {
  const id = sitting.sitting.id;
  const read = useLiveQuery(async () => (await desk.grades.get(id)) ?? null, [id]);
  const [kept, show] = useAtOnce<GradeScale | null | undefined>(read);
  const seats = useMemo(() => inFigures(sitting.seats).filter(isIn), [sitting.seats]);
  const trust = useMemo(() => reliability(matrixOf(sitting.questions, seats)), [sitting.questions, seats]);
  const error = trust?.standardError ?? null;
  const results = useMemo(
    () =>
      seats.flatMap(({ student, scorecard }) =>
        scorecard?.final
          ? [
              {
                ...{ id: student.id, name: registerName(student) },
                ...{ points: scorecard.total, max: scorecard.max, error },
              },
            ]
          : [],
      ),
    [seats, error],
  );
  if (kept === undefined) return null;
  const set = (scale: GradeScale | null, joins?: string) => {
    show(scale, act(setSittingGrades(id, scale && { by: scale.by, lines: scale.lines }, isoNow(), joins)));
  };
  return (
    <TwoColumns
      marginLabel="About the grades"
      margin={
        <>
          <GradeTemplates scale={kept} use={set} />
          <MarginBlock title="Grade lines">
            <div className={styles.fields}>
              <p>
                Over {counted(results.length, 'whole result')}
                {seats.length > results.length && `; ${seats.length - results.length} not wholly marked`}. A
                line is held against the exact share: 59.6% does not reach 60%.
              </p>
              {trust !== null && (
                <p>
                  One total is good to about ± {points(trust.standardError)} points: nearer to a line, a
                  student may be on either side of it.
                </p>
              )}
              {kept && <Button onClick={() => set(null)}>Remove the grade lines</Button>}
              <p>
                <a href={`/sittings/${id}/hand-back`}>Hand back</a>
              </p>
            </div>
          </MarginBlock>
        </>
      }
    >
      {kept ? (
        <GradesEditor scale={kept} results={results} change={set} />
      ) : (
        <EmptyState title="No grade lines yet">
          Choose one of the usual scales in the margin, then drag its lines over the spread.
        </EmptyState>
      )}
    </TwoColumns>
  );
}
