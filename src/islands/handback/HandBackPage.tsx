import { Button } from '@mantine/core';
import { Fragment, useMemo, useState } from 'react';
import { sumBy } from 'remeda';
import { mendedPlan } from '@/core/handback/planFindings';
import { readinessOf, waitingByQuestion } from '@/core/handback/readiness';
import { numbersOf } from '@/core/kinds/itemNumbers';
import { inView, isGuest } from '@/core/model/names';
import { hasResult } from '@/core/model/release';
import { act } from '@/desk/act';
import { SittingPage } from '@/desk/SittingPage';
import type { SittingData } from '@/desk/useSitting';
import { changePlan, holdForAll } from '@/store/releases';
import { isoNow } from '@/ui/clock';
import { EmptyState } from '@/ui/EmptyState';
import { GroupSelect } from '@/ui/GroupSelect';
import { MarginBlock, TwoColumns } from '@/ui/TwoColumns';
import { counted, dayAndTime, duration } from '@/words/format';
import { done } from '@/words/done';
import { afterSentence, planFindingWords, planSentence } from '@/words/releases';
import { InvitesBlock } from './InvitesBlock';
import { PlanMargin } from './PlanMargin';
import { PlanPicture } from './PlanPicture';
import { SeatList } from './SeatList';
import { useYes } from './useYes';
import { usePlan, type PlanAtHand } from './usePlan';
import { inForce, WhoActs } from './WhoActs';
import styles from './handback.module.css';
import planStyles from './plan.module.css';

/** Handing back: who is ready, who gets it, and what they see when. */
export function HandBackPage({ sittingId }: { sittingId: string }) {
  return (
    <SittingPage sittingId={sittingId} current="handBack">
      {(sitting) => <HandBack sitting={sitting} />}
    </SittingPage>
  );
}

function HandBack({ sitting }: { sitting: SittingData }) {
  const at = usePlan(sitting);
  const [group, setGroup] = useState('');
  const [chosen, setChosen] = useState<ReadonlySet<string> | null>(null);
  const [stage, setStage] = useState('');
  const seats = useMemo(
    () => sitting.seats.filter((seat) => inView(seat.student, group)),
    [sitting.seats, group],
  );
  const ready = seats.filter((seat) => readinessOf(seat).ready);
  const fresh = ready.filter((seat) => !seat.release);
  // Until the teacher chooses, all that are ready and do not have it yet.
  const picked = chosen ?? new Set(fresh.map((seat) => seat.student.id));
  if (sitting.progress.students === 0)
    return (
      <EmptyState title="There are no students in this sitting" action={<a href="/groups">Go to groups</a>} />
    );
  const shown =
    at.stages.some(({ id }) => id === stage) || stage === 'after' ? stage : (at.stages[0]?.id ?? '');
  const id = sitting.sitting.id;
  return (
    <TwoColumns
      marginLabel="Who sees what"
      margin={
        <>
          <MarginBlock title="Hand back">
            <WhoActs sittingId={id} at={at} seats={seats} chosen={chosen} done={() => setChosen(null)} />
          </MarginBlock>
          <PlanMargin sitting={sitting} at={at} picked={shown} pick={setStage} />
          <InvitesBlock sitting={sitting} at={at} />
          <MarginBlock title="More">
            <p>
              <a href={`/sittings/${id}/preview`}>Preview as a student</a>
            </p>
            <p>
              <a href={`/sittings/${id}/message`}>Write to students</a>
            </p>
            <p>
              <a href={`/sittings/${id}/grades`}>Grade lines</a>
            </p>
            <p>
              <a href={`/sittings/${id}/export`}>Export grades, answers and scripts</a>
            </p>
          </MarginBlock>
        </>
      }
    >
      <Plan sitting={sitting} at={at} picked={shown} pick={setStage} />
      <div className={styles.head}>
        <p>
          <strong>{ready.length}</strong> of {seats.length} ready,{' '}
          <strong>{seats.filter((seat) => hasResult(seat.release)).length}</strong> have it,{' '}
          <strong>
            {seats.filter((seat) => hasResult(seat.release) && seat.openedAt.length > 0).length}
          </strong>{' '}
          opened it{absentWords(seats)}.
          <WhatWaits sitting={sitting} seats={seats} />
        </p>
        <GroupSelect
          groups={sitting.groups}
          guests={sitting.seats.some((seat) => isGuest(seat.student))}
          value={group}
          choose={setGroup}
        />
      </div>
      <SeatList sitting={sitting} seats={seats} picked={picked} choose={setChosen} />
    </TwoColumns>
  );
}

/** "; 3 not handed in" */
function absentWords(seats: SittingData['seats']): string {
  const why = seats.map(readinessOf).flatMap((each) => (each.ready ? [] : [each.why]));
  const absent = why.filter((each) => each === 'notStarted' || each === 'working').length;
  return absent > 0 ? `; ${absent} not handed in` : '';
}

/** How many answers wait for a mark, question by question, each the way to its place. */
function WhatWaits({ sitting, seats }: { sitting: SittingData; seats: SittingData['seats'] }) {
  const numbers = numbersOf(sitting.questions);
  const waiting = waitingByQuestion(seats, sitting.questions);
  const all = sumBy(waiting, ({ count }) => count);
  return (
    <>
      <NotRead sitting={sitting} seats={seats} />
      {all > 0 && (
        <>
          {' '}
          {counted(all, 'answer')} {all === 1 ? 'waits' : 'wait'} for a mark:{' '}
          {waiting.map(({ questionId, count }, index) => (
            <Fragment key={questionId}>
              {index > 0 && ', '}
              <a href={`/sittings/${sitting.sitting.id}/mark?question=${questionId}`}>
                question {numbers.get(questionId)} ({count})
              </a>
            </Fragment>
          ))}
          .
        </>
      )}
    </>
  );
}

/** How many answers on paper are not read yet, and where what of them is asked. */
function NotRead({ sitting, seats }: { sitting: SittingData; seats: SittingData['seats'] }) {
  const unread = sumBy(seats, ({ scorecard }) => scorecard?.notRead ?? 0);
  if (unread === 0) return null;
  return (
    <>
      {' '}
      {counted(unread, 'answer')} on paper {unread === 1 ? 'is' : 'are'} not read yet:{' '}
      <a href={`/sittings/${sitting.sitting.id}/on-paper`}>ticks to look at</a>, and{' '}
      <a href={`/sittings/${sitting.sitting.id}/mark`}>what is written</a>.
    </>
  );
}

interface PlanProps {
  sitting: SittingData;
  at: PlanAtHand;
  picked: string;
  pick: (id: string) => void;
}

/** The plan as a picture, in a sentence, and with what is wrong with it. */
function Plan({ sitting, at, picked, pick }: PlanProps) {
  const { now, sitting: record } = sitting;
  const when = (instant: string) => dayAndTime(instant, now);
  const waiting = at.stages.filter(({ starts, at: begins }) => starts !== 'handedBack' && begins === null);
  const of = at.plan.draft ? 'draft' : at.have > 0 ? 'now' : 'back';
  return (
    <section aria-label="Plan">
      <PlanPicture sitting={sitting} at={at} picked={picked} pick={pick} />
      <p className={planStyles.sentence} role="status">
        {afterSentence(record.after, record.afterMs, duration)}{' '}
        {planSentence(at.periods, waiting, of, new Date(now).toISOString(), { when, howLong: days })}
      </p>
      {at.findings.map((finding, index) => {
        const { text, mend } = planFindingWords(finding, when);
        const number = at.stages.findIndex(({ id }) => id === finding.stageId) + 1;
        return (
          <p key={index} className={planStyles.finding}>
            <span>
              {at.stages.length > 1 && `Stage ${number}: `}
              {text}
            </span>
            <Button size="compact-sm" onClick={() => at.change(mendedPlan(at.stages, finding))}>
              {mend}
            </Button>
          </p>
        );
      })}
      {at.plan.draft && <DraftBar sitting={sitting} at={at} />}
    </section>
  );
}

const days = (ms: number) => (ms % 86_400_000 === 0 ? counted(ms / 86_400_000, 'day') : duration(ms));

/** A changed plan holds only once the teacher says so. */
function DraftBar({ sitting, at }: { sitting: SittingData; at: PlanAtHand }) {
  const { draft: _draft, ...kept } = at.plan;
  const base = sitting.plan ?? undefined;
  const yes = useYes(at.spoiltBy(at.stages), at.mayStillSit);
  return (
    <div className={planStyles.finding}>
      <span>
        This plan is a draft: {counted(at.have, 'student')} still see what the plan before it lets out.
      </span>
      {yes.box}
      <Button
        size="compact-sm"
        variant="filled"
        disabled={!yes.may}
        onClick={() => void act(holdForAll(inForce(at), isoNow()))}
      >
        Use this plan for {counted(at.have, 'student')}
      </Button>
      <Button size="compact-sm" onClick={() => void act(changePlan(kept, done.planDropped, isoNow(), base))}>
        Drop the changes
      </Button>
    </div>
  );
}
