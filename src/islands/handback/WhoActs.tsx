import { Button, Checkbox, TextInput } from '@mantine/core';
import { useState } from 'react';
import { readinessOf } from '@/core/handback/readiness';
import { hasResult } from '@/core/model/release';
import type { Seat } from '@/core/seats/seats';
import { act } from '@/desk/act';
import { handBack, holdBack, withdrawResults } from '@/store/releases';
import { isoNow } from '@/ui/clock';
import { counted } from '@/words/format';
import { givenAwayWords } from '@/words/releases';
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
  const isChosen = ({ student }: Seat) => chosen?.has(student.id) ?? true;
  const picked = seats.filter(
    (seat) =>
      isChosen(seat) &&
      readinessOf(seat).ready &&
      (chosen ? !hasResult(seat.release) || seat.release?.shows : !seat.release),
  );
  const back = seats.filter((seat) => isChosen(seat) && hasResult(seat.release));
  const holdable = chosen
    ? seats.filter((seat) => isChosen(seat) && seat.attempt && !seat.release?.heldBack)
    : [];
  // The yes is to exactly this: to these answers, for so many who may still sit.
  const question = at.spoilt ? `${givenAwayWords(at.spoilt)} ${at.mayStillSit}` : '';
  const [saidYes, setSaidYes] = useState('');
  const [reason, setReason] = useState<string | null>(null);
  const ids = (of: readonly Seat[]) => of.map(({ student }) => student.id);
  const go = async (work: Promise<unknown>) => {
    if (!(await act(work))) return;
    setReason(null);
    done();
  };
  const asks = question !== '' && (picked.length > 0 || at.plan.draft !== undefined);
  const may = !asks || saidYes === question;
  return (
    <div className={styles.fields}>
      {asks && at.spoilt && (
        <Checkbox
          size="sm"
          className={styles.finding ?? ''}
          label={`Yes, show ${givenAwayWords(at.spoilt)} now, although ${counted(at.mayStillSit, 'student')} may still sit this paper and could find out`}
          checked={saidYes === question}
          onChange={(event) => setSaidYes(event.currentTarget.checked ? question : '')}
        />
      )}
      <Button
        variant="filled"
        disabled={picked.length === 0 || !may}
        onClick={() => void go(handBack(inForce(at), ids(picked), isoNow()))}
      >
        {picked.length === 0 ? 'Hand back' : `Hand back to ${counted(picked.length, 'student')}`}
      </Button>
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

/** The plan as it holds for everyone who gets a result now: what was changed before counts with it. */
export function inForce({ plan }: PlanAtHand) {
  const { draft, ...rest } = plan;
  return { ...rest, stages: draft ?? plan.stages };
}
