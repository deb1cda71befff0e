import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { whoGets } from '@/core/handback/whoGets';
import type { Seat } from '@/core/seats/seats';
import { act } from '@/desk/act';
import { handBack, holdBack, withdrawResults } from '@/store/releases';
import { isoNow } from '@/ui/clock';
import { counted } from '@/words/format';
import { useYes } from './useYes';
import type { PlanAtHand } from './usePlan';
import styles from './plan.module.css';

interface WhoActsProps {
  sittingId: string;
  at: PlanAtHand;
  /** Those in view. */
  seats: readonly Seat[];
  /** Null: nobody has chosen, which is all that are ready and do not have theirs yet. */
  chosen: ReadonlySet<string> | null;
  done: () => void;
}

/** Handing back, holding back and withdrawing: for whom the list has picked. */
export function WhoActs({ sittingId, at, seats, chosen, done }: WhoActsProps) {
  const { handBack: picked, holdBack: holdable, withdraw: back } = whoGets(seats, chosen);
  const yes = useYes(picked.length > 0 ? at.spoiltBy(at.plan.stages) : null, at.mayStillSit);
  const [reason, setReason] = useState<string | null>(null);
  const ids = (of: readonly Seat[]) => of.map(({ student }) => student.id);
  const go = async (work: Promise<unknown>) => {
    if (!(await act(work))) return;
    setReason(null);
    done();
  };
  return (
    <div className={styles.fields}>
      {yes.box}
      <Button
        variant="filled"
        disabled={picked.length === 0 || !yes.may}
        onClick={() => void go(handBack(at.plan, ids(picked), isoNow()))}
      >
        {picked.length === 0 ? 'Hand back' : `Hand back to ${counted(picked.length, 'student')}`}
      </Button>
      {picked.length > 0 && at.plan.draft && <p>They get the plan that holds now, not the draft.</p>}
      {holdable.length > 0 &&
        (reason === null ? (
          <Button onClick={() => setReason('')}>Hold back {counted(holdable.length, 'result')}</Button>
        ) : (
          <form
            className={styles.fields}
            onSubmit={(event) => {
              event.preventDefault();
              void go(holdBack(sittingId, ids(holdable), reason.trim(), isoNow()));
            }}
          >
            <TextInput
              label="Why (only you see it)"
              size="sm"
              maxLength={200}
              value={reason}
              onChange={(event) => setReason(event.currentTarget.value)}
              data-autofocus
            />
            <div className={styles.row}>
              <Button type="submit" disabled={!reason.trim()}>
                Hold back {counted(holdable.length, 'result')}
              </Button>
              <Button onClick={() => setReason(null)}>Cancel</Button>
            </div>
          </form>
        ))}
      {back.length > 0 && (
        <Button onClick={() => void go(withdrawResults(sittingId, ids(back), isoNow()))}>
          Withdraw from {chosen ? '' : 'all '}
          {counted(back.length, 'student')}
        </Button>
      )}
    </div>
  );
}

/** The plan with its draft in force. */
export function inForce({ plan }: PlanAtHand) {
  const { draft, ...rest } = plan;
  return { ...rest, stages: draft ?? plan.stages };
}
