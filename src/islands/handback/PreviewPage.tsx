import { Radio, Select, TextInput } from '@mantine/core';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { registerName } from '@/core/model/names';
import type { ReleasePlan } from '@/core/model/release';
import { isIn } from '@/core/seats/seats';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { resultPreview } from '@/store/resultPreview';
import { EmptyState } from '@/ui/EmptyState';
import { fromLocalField, toLocalField } from '@/ui/localField';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { dayAndTime } from '@/words/format';
import { seenShort } from '@/words/releases';
import { ResultScript } from '../script/ResultScript';
import { usePlan } from './usePlan';
import { inForce } from './WhoActs';
import styles from './plan.module.css';

/** A result as its student sees it: any student, any stage, any instant. */
export function PreviewPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="handBack">
      {(sitting) => <Preview sitting={sitting} />}
    </SittingPage>
  );
}

/** Straight after handing in, before anything is handed back. */
const handedIn = 'in';

function Preview({ sitting }: { sitting: SittingData }) {
  const at = usePlan(sitting);
  const seats = useMemo(() => sitting.seats.filter(isIn), [sitting.seats]);
  const asked = new URLSearchParams(window.location.search).get('student');
  const [studentId, setStudent] = useState(asked ?? seats[0]?.student.id ?? '');
  const [period, setPeriod] = useState('now');
  const [typed, setTyped] = useState<string | null>(null);
  const seat = seats.find(({ student }) => student.id === studentId) ?? seats[0];
  const now = sitting.now;
  // A moment that the stage holds; what begins with the handing back is looked at now.
  const instant = typed
    ? Date.parse(typed)
    : Number(period) >= 0
      ? Date.parse(at.periods[Number(period)]?.from ?? new Date(now).toISOString())
      : now;
  const plan: ReleasePlan | null = period === handedIn ? null : inForce(at);
  const script = useLiveQuery(
    async () => (seat ? resultPreview(sitting.sitting.id, seat.student.id, plan, instant) : null),
    [seat, JSON.stringify(plan?.stages), period, instant, sitting.seats],
  );
  if (!seat) return <EmptyState title="Nothing is handed in yet" />;
  return (
    <TwoColumns
      marginLabel="Whose result, and when"
      margin={
        <>
          <MarginBlock title="Preview as">
            <Select
              aria-label="Student"
              size="sm"
              searchable
              allowDeselect={false}
              data={seats.map(({ student }) => ({ value: student.id, label: registerName(student) }))}
              value={seat.student.id}
              onChange={(value) => value && setStudent(value)}
            />
          </MarginBlock>
          <MarginBlock title="When">
            <Radio.Group
              aria-label="When"
              value={typed === null ? period : ''}
              onChange={(value) => (setTyped(null), setPeriod(value))}
            >
              <div className={styles.fields}>
                <Radio size="sm" value="now" label="now, handed back" />
                {sitting.sitting.after && (
                  <Radio size="sm" value={handedIn} label="straight after handing in" />
                )}
                {at.periods.map(({ from, shows }, index) => (
                  <Radio
                    key={index}
                    size="sm"
                    value={String(index)}
                    label={`${from === null ? 'once handed back' : `from ${dayAndTime(from, now)}`}: ${seenShort(shows)}`}
                  />
                ))}
              </div>
            </Radio.Group>
            <TextInput
              type="datetime-local"
              label="Any other time"
              size="sm"
              value={typed === null ? '' : toLocalField(typed)}
              onChange={(event) => setTyped(fromLocalField(event.currentTarget.value))}
            />
          </MarginBlock>
          <MarginBlock title="Back">
            <p>
              <a href={`/sittings/${sitting.sitting.id}/hand-back`}>Hand back</a>
            </p>
          </MarginBlock>
        </>
      }
    >
      {script === null && <p role="status">{registerName(seat.student)} sees nothing then.</p>}
      {script && (
        <ResultScript script={script} heading={<h2 className={styles.sentence}>{script.title}</h2>} />
      )}
    </TwoColumns>
  );
}
