import { Button, CloseButton, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import { fullName, joinCodeShown } from '@/core/model/people';
import type { Seat } from '@/core/running/standing';
import { collectAttempt, giveAttempt, giveMinutes } from '@/store/sittings';
import { isoNow } from '@/ui/clock';
import { act } from '@/ui/desk/act';
import type { SittingData } from '@/ui/desk/useSitting';
import { clockTime, dayAndTime } from '@/ui/format';
import { MarginBlock } from '@/ui/TwoColumns';
import { eventWords, stateWords } from './stateWords';
import styles from './run.module.css';

type SeatAct = 'minutes' | 'attempt' | 'collect';

interface SeatPanelProps {
  seat: Seat;
  sitting: SittingData;
  close: () => void;
}

/** One student in the sitting: how it stands, what happened, and what can be done for that student alone. */
export function SeatPanel({ seat, sitting, close }: SeatPanelProps) {
  const [doing, setDoing] = useState<SeatAct | null>(null);
  const { student, attempt } = seat;
  const timed = seat.terms.closesAt !== null || seat.terms.timeLimitMs !== null;
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
              <dd>
                {seat.scorecard?.awards.filter((award) => award.answered).length} of{' '}
                {attempt.questionIds.length}
              </dd>
            </>
          )}
        </dl>
        {attempt && <a href={`/sittings/${sitting.sitting.id}/scripts/${student.id}`}>The whole script</a>}
      </MarginBlock>
      <MarginBlock title={`For ${student.givenName || fullName(student)} alone`}>
        <div className={styles.actions}>
          {timed && <Button onClick={() => setDoing('minutes')}>More minutes</Button>}
          {attempt && <Button onClick={() => setDoing('attempt')}>Another attempt</Button>}
          {seat.state === 'working' && <Button onClick={() => setDoing('collect')}>Collect now</Button>}
          {!attempt && !timed && (
            <p className={styles.soft}>Nothing is needed: there is no limit, and nothing has been started.</p>
          )}
        </div>
        {doing && (
          <SeatActForm key={doing} doing={doing} seat={seat} sitting={sitting} done={() => setDoing(null)} />
        )}
      </MarginBlock>
      <Record seat={seat} now={sitting.now} />
    </>
  );
}

function timeWords(seat: Seat, now: number): string {
  const extra = seat.terms.extraMs > 0 ? `, ${Math.round(seat.terms.extraMs / 60_000)} min of it extra` : '';
  if (!seat.attempt) return extra ? `${Math.round(seat.terms.extraMs / 60_000)} min extra` : 'as everyone';
  if (seat.deadline === null) return 'no limit';
  return `${seat.state === 'working' ? 'until' : 'was until'} ${dayAndTime(seat.deadline, now)}${extra}`;
}

const usualReasons: Record<SeatAct, string[]> = {
  minutes: ['Extra time', 'Technical trouble', 'Started late'],
  attempt: ['Technical trouble', 'Opened by mistake', 'Illness', 'Second chance'],
  collect: ['The attempt hangs', 'Left without handing in', 'Time is over'],
};

const own = 'another reason';

interface SeatActFormProps {
  doing: SeatAct;
  seat: Seat;
  sitting: SittingData;
  done: () => void;
}

function SeatActForm({ doing, seat, sitting, done }: SeatActFormProps) {
  const [minutes, setMinutes] = useState(10);
  const [usual, setUsual] = useState(usualReasons[doing][0] ?? own);
  const [words, setWords] = useState('');
  const reason = usual === own ? words.trim() : usual;
  const { id: sittingId } = sitting.sitting;
  const { id: studentId } = seat.student;
  const run = async () => {
    const now = isoNow();
    const work =
      doing === 'minutes'
        ? giveMinutes(sittingId, studentId, minutes, reason, now)
        : doing === 'attempt'
          ? giveAttempt(sittingId, studentId, reason, now)
          : collectAttempt(seat.attempt?.id ?? '', reason, now);
    if (await act<unknown>(work)) done();
  };
  return (
    <form
      className={styles.act}
      aria-label={
        doing === 'minutes' ? 'More minutes' : doing === 'attempt' ? 'Another attempt' : 'Collect now'
      }
      onSubmit={(event) => {
        event.preventDefault();
        void run();
      }}
    >
      <p>{consequence(doing, seat, minutes)}</p>
      {doing === 'minutes' && (
        <NumberInput
          label="Minutes"
          size="xs"
          min={1}
          max={1000}
          allowDecimal={false}
          value={minutes}
          onChange={(value) => setMinutes(Number(value) || 0)}
        />
      )}
      <NativeSelect
        label="Reason, kept on record"
        size="xs"
        data={[...usualReasons[doing], own]}
        value={usual}
        onChange={(event) => setUsual(event.currentTarget.value)}
      />
      {usual === own && (
        <TextInput
          aria-label="The reason in words"
          size="xs"
          required
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
      )}
      <div className={styles.row}>
        <Button
          type="submit"
          variant="filled"
          disabled={reason === '' || (doing === 'minutes' && minutes < 1)}
        >
          {doing === 'minutes'
            ? `Give ${minutes} minutes`
            : doing === 'attempt'
              ? 'Give another attempt'
              : 'Collect'}
        </Button>
        <Button onClick={done}>Leave it</Button>
      </div>
    </form>
  );
}

/** What will happen, and to whom, before it does. */
function consequence(doing: SeatAct, seat: Seat, minutes: number): string {
  const name = fullName(seat.student);
  if (doing === 'collect') return `${name}’s answers are taken in as they stand. Nobody else is touched.`;
  if (doing === 'attempt')
    return seat.state === 'working'
      ? `${name}’s running attempt is collected first; then ${name} can start afresh. The last attempt counts.`
      : `${name} can start afresh. The attempt there is stays, and the last one counts.`;
  if (seat.state === 'collectedByTime')
    return `${name} can go on with the same answers if the new time is not over yet.`;
  if (seat.deadline === null) return `${name} will have ${minutes} minutes more than the others.`;
  return `${name} will have until ${clockTime(seat.deadline + minutes * 60_000)}. Nobody else is touched.`;
}

function Record({ seat, now }: { seat: Seat; now: number }) {
  const rows = [
    ...(seat.attempt?.events ?? []).map((event) => ({
      at: event.at,
      words: `${eventWords[event.kind]}${event.reason ? ` (${event.reason})` : ''}`,
    })),
    ...seat.allowances.map((allowance) => ({
      at: allowance.at,
      words: `${allowance.kind === 'minutes' ? `${allowance.minutes} more minutes` : 'another attempt'} given (${allowance.reason})`,
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
