import { Button, TextInput } from '@mantine/core';
import { useState } from 'react';
import { countedAnswers, lateKey, typedInTime, undecided } from '@/core/attempts/late';
import { kindOf } from '@/core/kinds';
import { numbersOf } from '@/core/kinds/itemNumbers';
import type { Attempt, LateAnswer } from '@/core/model/sitting';
import { fullName } from '@/core/model/names';
import { endOf } from '@/core/attempts/terms';
import type { Seat } from '@/core/seats/seats';
import { decideLate } from '@/store/lateAnswers';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { clockSeconds, counted } from '@/words/format';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './run.module.css';

/** "2 answers came after the end; typed before it, by the device's clock" */
export function lateSentence(late: readonly LateAnswer[], endedAt: number | null): string {
  const inTime = late.filter((each) => typedInTime(each, endedAt)).length;
  const came = `${counted(late.length, 'answer')} arrived after the end`;
  if (inTime === late.length) return `${came}; typed before it, by the device’s clock.`;
  return inTime === 0
    ? `${came}; typed after it, by the device’s clock.`
    : `${came}; ${inTime} of them typed before it, by the device’s clock.`;
}

/** Late answers of the whole sitting that wait to be decided: who has them, and deciding for all. */
export function LateInSitting({
  sitting,
  choose,
}: {
  sitting: SittingData;
  choose: (studentId: string) => void;
}) {
  const waiting = sitting.attempts.filter((attempt) => undecided(attempt).length > 0);
  if (waiting.length === 0) return null;
  const seats = sitting.seats.filter((seat) =>
    waiting.some(({ studentId }) => studentId === seat.student.id),
  );
  const inTime = waiting.flatMap((attempt) => {
    const seat = seats.find(({ student }) => student.id === attempt.studentId);
    const ended = seat ? endOf(attempt, seat.terms, sitting.now) : null;
    return undecided(attempt)
      .filter((each) => typedInTime(each, ended))
      .map((late) => ({ attempt, late }));
  });
  const all = waiting.flatMap((attempt) => undecided(attempt).map((late) => ({ attempt, late })));
  return (
    <MarginBlock title="After the end">
      <p>
        {counted(all.length, 'answer')} of {counted(seats.length, 'student')} arrived after the end,{' '}
        {inTime.length === all.length ? 'all' : inTime.length} typed before it, by the devices’ clocks. They
        don’t count so far.
      </p>
      <ul className={styles.events}>
        {seats.map(({ student }) => (
          <li key={student.id}>
            <button type="button" className={styles.pick} onClick={() => choose(student.id)}>
              {fullName(student)}
            </button>
          </li>
        ))}
      </ul>
      <Decide
        sittingId={sitting.sitting.id}
        offers={[
          ...(inTime.length > 0 && inTime.length < all.length
            ? [{ label: `Accept the ${inTime.length} typed in time`, counts: true, of: inTime }]
            : []),
          { label: `Accept ${countWord(all.length)}`, counts: true, of: all },
          { label: all.length === 1 ? 'Reject it' : 'Reject all', counts: false, of: all },
        ]}
      />
    </MarginBlock>
  );
}

const countWord = (count: number) => (count === 1 ? 'it' : `all ${count}`);

/** The late answers of one student, each beside the one that counts. */
export function LateOfStudent({ seat, sitting }: { seat: Seat; sitting: SittingData }) {
  const attempts = sitting.attempts.filter(
    ({ studentId, late = [] }) => studentId === seat.student.id && late.length > 0,
  );
  return attempts.map((attempt) => (
    <MarginBlock key={attempt.id} title="After the end">
      <LateOfAttempt attempt={attempt} seat={seat} sitting={sitting} />
    </MarginBlock>
  ));
}

function LateOfAttempt({ attempt, seat, sitting }: { attempt: Attempt; seat: Seat; sitting: SittingData }) {
  const late = attempt.late ?? [];
  const numbers = numbersOf(sitting.questions);
  const counting = countedAnswers(attempt);
  const waits = undecided(attempt).map((each) => ({ attempt, late: each }));
  const textOf = (questionId: string, answer: Pick<LateAnswer, 'response'> | undefined) => {
    const question = sitting.questions.find(({ id }) => id === questionId);
    return question && answer ? kindOf(question).asText(question, answer.response) : '';
  };
  return (
    <>
      <p>{lateSentence(late, endOf(attempt, seat.terms, sitting.now))}</p>
      <ul className={styles.events}>
        {late.map((each) => {
          const other = counting[each.questionId];
          const state = each.decision;
          return (
            <li key={lateKey(each)} className={styles.lateAnswer}>
              <strong>Question {numbers.get(each.questionId) ?? '?'}</strong>, typed{' '}
              {clockSeconds(each.typedAt)}, arrived {clockSeconds(each.at)}:{' '}
              <span className="keepLines">{textOf(each.questionId, each) || 'not answered'}</span>
              {state?.counts !== true && (
                <span className={styles.soft}>
                  {' '}
                  {otherWords(textOf(each.questionId, each), textOf(each.questionId, other))}
                </span>
              )}
              {state && (
                <span className={styles.soft}>
                  {' '}
                  {state.counts ? 'Counts' : 'Doesn’t count'}
                  {state.by === 'rule'
                    ? ', by the rule of the sitting'
                    : state.reason && ` (${state.reason})`}
                  .
                </span>
              )}
              <Decide
                sittingId={sitting.sitting.id}
                label={`Question ${numbers.get(each.questionId) ?? '?'}`}
                offers={[
                  ...(state?.counts === true
                    ? []
                    : [{ label: 'Accept', counts: true, of: [{ attempt, late: each }] }]),
                  ...(state?.counts === false
                    ? []
                    : [{ label: 'Reject it', counts: false, of: [{ attempt, late: each }] }]),
                ]}
              />
            </li>
          );
        })}
      </ul>
      {waits.length > 1 && (
        <Decide
          sittingId={sitting.sitting.id}
          offers={[
            { label: `Accept all ${waits.length}`, counts: true, of: waits },
            { label: 'Reject all', counts: false, of: waits },
          ]}
        />
      )}
    </>
  );
}

/** What counts now instead. */
function otherWords(late: string, counts: string): string {
  if (counts === late) return '(the same as what counts now)';
  return counts ? `(counts now: “${counts}”)` : '(counts now: not answered)';
}

interface Offer {
  label: string;
  counts: boolean;
  of: { attempt: Attempt; late: LateAnswer }[];
}

/** Buttons that decide, and then the reason that stays on record. */
function Decide({ sittingId, offers, label }: { sittingId: string; offers: Offer[]; label?: string }) {
  const [chosen, setChosen] = useState<Offer | null>(null);
  const [reason, setReason] = useState('The connection broke');
  if (!chosen)
    return (
      <div className={styles.acts} role="group" {...(label !== undefined && { 'aria-label': label })}>
        {offers.map((offer) => (
          <Button key={offer.label} size="compact-sm" onClick={() => setChosen(offer)}>
            {offer.label}
          </Button>
        ))}
      </div>
    );
  const decide = async () => {
    const ids = [...new Set(chosen.of.map(({ attempt }) => attempt.id))];
    const which = ids.map((attemptId) => ({
      attemptId,
      keys: chosen.of.filter(({ attempt }) => attempt.id === attemptId).map(({ late }) => lateKey(late)),
    }));
    if (await act(decideLate(sittingId, which, chosen.counts, reason.trim(), isoNow()))) setChosen(null);
  };
  return (
    <form
      className={styles.act}
      aria-label={chosen.label}
      onSubmit={(event) => {
        event.preventDefault();
        void decide();
      }}
    >
      <TextInput
        label="Reason, kept on record"
        size="xs"
        required
        autoFocus
        maxLength={400}
        value={reason}
        onChange={(event) => setReason(event.currentTarget.value)}
      />
      <div className={styles.row}>
        <Button type="submit" variant="filled" disabled={reason.trim() === ''}>
          {chosen.label}
        </Button>
        <Button onClick={() => setChosen(null)}>Cancel</Button>
      </div>
    </form>
  );
}
