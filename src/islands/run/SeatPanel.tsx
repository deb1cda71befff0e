import { Button, CloseButton } from '@mantine/core';
import { useEffect, useState } from 'react';
import { fullName, isGuest } from '@/core/model/names';
import { joinCodeShown } from '@/core/basics/joinCode';
import { isReported, leavingOf } from '@/core/attempts/watching';
import { receiptOf } from '@/core/attempts/receipt';
import { canBeDone, type SeatAct } from '@/core/seats/seatActs';
import type { Seat } from '@/core/seats/seats';
import { isAside } from '@/core/attempts/terms';
import type { Allowance } from '@/core/model/sitting';
import { giveLasting } from '@/store/exceptions';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { counted, dayAndTime } from '@/words/format';
import { MarginBlock } from '@/ui/TwoColumns';
import { LateOfStudent } from './LateAnswers';
import { MatchGuest } from './MatchGuest';
import { NudgeForm } from './NudgeForm';
import { SeatActForm } from './SeatActForm';
import { seatActNames, seatActs } from './seatActs';
import { eventWords, stateWords } from '@/words/attempts';
import styles from './run.module.css';

interface SeatPanelProps {
  seat: Seat;
  sitting: SittingData;
  close: () => void;
}

/** One student in the sitting: how it stands, what happened, and what can be done for that student alone. */
export function SeatPanel({ seat, sitting, close }: SeatPanelProps) {
  const [doing, setDoing] = useState<SeatAct | 'nudge' | null>(null);
  const { student, attempt } = seat;
  useEffect(() => {
    const escape = (event: KeyboardEvent) => {
      if (event.key !== 'Escape' || event.defaultPrevented) return;
      if (doing === null) close();
      else setDoing(null);
    };
    window.addEventListener('keydown', escape);
    return () => window.removeEventListener('keydown', escape);
  });
  const running = seat.state === 'notStarted' || seat.state === 'working';
  return (
    <>
      <MarginBlock
        title={fullName(student)}
        aside={<CloseButton size="sm" aria-label="Back to the sitting" onClick={close} />}
      >
        <dl className={styles.facts}>
          <dt>state</dt>
          <dd>{stateWords[seat.state]}</dd>
          <dt>time</dt>
          <dd>{timeWords(seat, sitting.now)}</dd>
          <dt>join code</dt>
          <dd>{joinCodeShown(student.joinCode)}</dd>
          {attempt && (
            <>
              <dt>answered</dt>
              <dd>{answeredWords(seat)}</dd>
              <dt>left the page</dt>
              <dd>{leavingOf(attempt).times || 'never'}</dd>
              <dt>receipt</dt>
              <dd>{receiptOf(attempt.id)}</dd>
            </>
          )}
        </dl>
        {attempt && <a href={`/sittings/${sitting.sitting.id}/scripts/${student.id}`}>Whole script</a>}
        <TimelineLinks seat={seat} sitting={sitting} />
      </MarginBlock>
      <LateOfStudent seat={seat} sitting={sitting} />
      <MarginBlock
        title={
          doing === null
            ? `For ${student.givenName || fullName(student)} alone`
            : doing === 'nudge'
              ? 'Reminder'
              : seatActs[doing].label
        }
      >
        {doing === 'nudge' ? (
          <NudgeForm seats={[seat]} sitting={sitting} done={() => setDoing(null)} />
        ) : doing ? (
          <SeatActForm
            key={doing}
            doing={doing}
            seats={[seat]}
            sitting={sitting}
            done={() => setDoing(null)}
          />
        ) : (
          <div className={styles.acts}>
            {seatActNames
              .filter((name) => canBeDone(name, seat, sitting.sitting, sitting.now))
              .map((name) => (
                <Button key={name} size="compact-md" onClick={() => setDoing(name)}>
                  {seatActs[name].label}
                </Button>
              ))}
            {running && (
              <Button size="compact-md" onClick={() => setDoing('nudge')}>
                Send a reminder
              </Button>
            )}
          </div>
        )}
      </MarginBlock>
      {isGuest(student) && <MatchGuest guest={student} sitting={sitting} done={close} />}
      {student.extraPercent !== undefined && (
        <MarginBlock title="In every sitting">
          <p>{student.extraPercent}% extra time, wherever there is a time limit.</p>
          <Button onClick={() => void act(giveLasting(student.id, null, 'no longer needed', isoNow()))}>
            Remove
          </Button>
        </MarginBlock>
      )}
      <Record seat={seat} now={sitting.now} />
    </>
  );
}

/** "8 of 10, 1 of them half" */
function answeredWords({ scorecard }: Seat): string {
  const awards = scorecard?.awards ?? [];
  const half = awards.filter((award) => award.half).length;
  const answered = awards.filter((award) => award.answered).length;
  return `${answered} of ${awards.length}${half > 0 ? `, ${half} of them half` : ''}`;
}

/** The way to the course of each attempt, those set aside too. */
function TimelineLinks({ seat, sitting }: { seat: Seat; sitting: SittingData }) {
  const attempts = sitting.attempts
    .filter((attempt) => attempt.studentId === seat.student.id)
    .sort((a, b) => a.number - b.number);
  return attempts.map((attempt) => (
    <a key={attempt.id} href={`/sittings/${sitting.sitting.id}/attempts/${attempt.id}`}>
      {attempts.length === 1 ? 'Timeline of the attempt' : `Timeline of attempt ${attempt.number}`}
      {isAside(attempt) && ', set aside'}
    </a>
  ));
}

function timeWords(seat: Seat, now: number): string {
  const extra = seat.terms.extraMs > 0 ? `, ${Math.round(seat.terms.extraMs / 60_000)} min of it extra` : '';
  if (!seat.attempt)
    return extra ? `${Math.round(seat.terms.extraMs / 60_000)} min extra` : 'same as everyone';
  if (seat.deadline === null) return 'no limit';
  return `${seat.state === 'working' ? 'until' : 'was until'} ${dayAndTime(seat.deadline, now)}${extra}`;
}

function Record({ seat, now }: { seat: Seat; now: number }) {
  const rows = [
    ...[...seat.aside, ...(seat.attempt ? [seat.attempt] : [])].flatMap(({ events, number }) =>
      events
        .filter(({ kind }) => !isReported(kind))
        .map((event) => ({
          at: event.at,
          words: `${eventWords[event.kind]}${event.reason ? ` (${event.reason})` : ''}${number > 1 ? `, attempt ${number}` : ''}`,
        })),
    ),
    ...seat.allowances.map((allowance) => ({
      at: allowance.at,
      words: `${allowanceWords(allowance, now)} (${allowance.reason})`,
    })),
  ].sort((a, b) => a.at.localeCompare(b.at));
  if (rows.length === 0) return null;
  return (
    <MarginBlock title="On record">
      <ul className={styles.events}>
        {rows.map((row, index) => (
          <li key={index}>
            {dayAndTime(row.at, now)}: {row.words}
          </li>
        ))}
      </ul>
    </MarginBlock>
  );
}

/** What was given, in words. */
export function allowanceWords(allowance: Allowance, now: number): string {
  switch (allowance.kind) {
    case 'minutes':
      return `${counted(allowance.minutes, 'more minute')} given`;
    case 'percent':
      return `${allowance.percent}% extra time given`;
    case 'attempt':
      return 'another attempt given';
    case 'lateStart':
      return 'allowed to start late';
    case 'window': {
      const from = allowance.opensAt && ` from ${dayAndTime(allowance.opensAt, now)}`;
      const until = allowance.closesAt && ` until ${dayAndTime(allowance.closesAt, now)}`;
      return `other times given:${from ?? ''}${until ?? ''}`;
    }
  }
}
