import { Button, Checkbox, NativeSelect, NumberInput, TextInput } from '@mantine/core';
import { useState } from 'react';
import type { SeatAct } from '@/core/seats/seatActs';
import type { Seat } from '@/core/seats/seats';
import { isoNow } from '@/ui/clock';
import { act } from '@/desk/act';
import type { SittingData } from '@/desk/useSitting';
import { counted } from '@/words/format';
import { seatActs, type ActFields } from './seatActs';
import { WhenField } from '@/desk/WhenField';
import styles from './run.module.css';

const own = 'another reason';

interface SeatActFormProps {
  doing: SeatAct;
  /** For whom: one, or several at once. */
  seats: readonly Seat[];
  sitting: SittingData;
  /** The reason to begin with, in words. */
  reason?: string;
  /** What the act is part of: one step together with it. */
  wrap?: (doing: () => Promise<{ said: string }>) => Promise<unknown>;
  done: () => void;
}

/** What an act amounts to, what it needs, and the reason that stays on record. */
export function SeatActForm({ doing, seats, sitting, reason: given = '', wrap, done }: SeatActFormProps) {
  const kind = seatActs[doing];
  const { sitting: record, now } = sitting;
  const [fields, setFields] = useState<ActFields>({
    minutes: 10,
    percent: seats[0]?.student.extraPercent ?? 25,
    progress: false,
    opensAt: null,
    closesAt: doing === 'window' ? new Date(now + 24 * 3_600_000).toISOString() : null,
  });
  const [usual, setUsual] = useState(given ? own : (kind.reasons[0] ?? own));
  const [words, setWords] = useState(given);
  const reason = usual === own ? words.trim() : usual;
  const change = (part: Partial<ActFields>) => setFields({ ...fields, ...part });
  const run = async () => {
    const doIt = () => kind.run(seats, record.id, fields, reason, isoNow());
    if (await act<unknown>(wrap ? wrap(doIt) : doIt())) done();
  };
  const only = seats.length === 1 ? seats[0] : undefined;
  const amiss = faultIn(doing, fields, record.opensAt);
  return (
    <form
      className={styles.act}
      aria-label={kind.label}
      onSubmit={(event) => {
        event.preventDefault();
        void run();
      }}
    >
      <p>
        {only
          ? kind.consequence(only, fields, now)
          : kind.several?.(counted(seats.length, 'student'), fields, now)}
      </p>
      {doing === 'minutes' && (
        <NumberInput
          label="Minutes"
          size="xs"
          min={1}
          max={1000}
          allowDecimal={false}
          value={fields.minutes}
          onChange={(value) => change({ minutes: Number(value) || 0 })}
        />
      )}
      {doing === 'percent' && (
        <>
          <NumberInput
            label="Percent of the time limit"
            size="xs"
            min={1}
            max={300}
            allowDecimal={false}
            value={fields.percent}
            onChange={(value) => change({ percent: Number(value) || 0 })}
          />
          {only && (
            <Checkbox
              size="sm"
              label="in every sitting from now on"
              checked={fields.progress}
              onChange={(event) => change({ progress: event.currentTarget.checked })}
            />
          )}
        </>
      )}
      {doing === 'window' && (
        <>
          <WhenField
            label="Opens"
            without="same as everyone"
            value={fields.opensAt}
            start={isoNow}
            change={(opensAt) => change({ opensAt })}
          />
          <WhenField
            label="Closes"
            without="same as everyone"
            value={fields.closesAt}
            start={() => new Date(now + 24 * 3_600_000).toISOString()}
            change={(closesAt) => change({ closesAt })}
          />
        </>
      )}
      {amiss && (
        <p className={styles.fault} role="alert">
          {amiss}
        </p>
      )}
      <NativeSelect
        label="Reason, kept on record"
        size="xs"
        data={[...kind.reasons, own]}
        value={usual}
        onChange={(event) => setUsual(event.currentTarget.value)}
      />
      {usual === own && (
        <TextInput
          aria-label="Reason in your own words"
          size="xs"
          required
          value={words}
          onChange={(event) => setWords(event.currentTarget.value)}
        />
      )}
      <div className={styles.row}>
        <Button type="submit" variant="filled" disabled={reason === '' || amiss !== null}>
          {kind.does(fields)}
        </Button>
        <Button onClick={done}>Cancel</Button>
      </div>
    </form>
  );
}

/** What keeps it from being done as it is filled in. */
function faultIn(doing: SeatAct, fields: ActFields, opensForAll: string): string | null {
  if (doing === 'minutes' && fields.minutes < 1) return 'Give at least one minute.';
  if (doing === 'percent' && (fields.percent < 1 || fields.percent > 300)) return 'Give 1 to 300 percent.';
  if (doing !== 'window') return null;
  if (fields.opensAt === null && fields.closesAt === null) return 'These are the same times as everyone’s.';
  const opens = Date.parse(fields.opensAt ?? opensForAll);
  return fields.closesAt !== null && Date.parse(fields.closesAt) <= opens
    ? 'It would close before it opens.'
    : null;
}
