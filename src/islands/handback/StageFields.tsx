import { Button, NumberInput, Select, TextInput } from '@mantine/core';
import type { ReactNode } from 'react';
import { StageStart, type PlanStage } from '@/core/model/release';
import { ShowsChoice } from '@/desk/ShowsChoice';
import { WhenField } from '@/desk/WhenField';
import { fromLocalField, toLocalField } from '@/ui/localField';
import { startChoices } from '@/words/releases';
import { nextFriday } from './usePlan';
import styles from './plan.module.css';

interface StageFieldsProps {
  stage: PlanStage;
  change: (stage: PlanStage) => void;
  /** Absent: the only stage stays. */
  remove?: (() => void) | undefined;
  /** Lets it begin now; absent where it does not wait for the teacher. */
  openNow?: (() => void) | undefined;
  /** What has to be said yes to before. */
  asked?: ReactNode;
}

/** When a stage begins and ends, and what is seen in it. */
export function StageFields({ stage, change, remove, openNow, asked = null }: StageFieldsProps) {
  const { starts, at } = stage;
  const start = (next: StageStart) =>
    change({ ...stage, starts: next, at: next === 'at' ? (at ?? nextFriday(Date.now())) : null });
  return (
    <div className={styles.fields}>
      <Select
        label="Begins"
        size="sm"
        allowDeselect={false}
        data={StageStart.options.map((value) => ({ value, label: startChoices[value] }))}
        value={starts}
        onChange={(value) => start(StageStart.parse(value))}
      />
      {starts === 'at' && (
        <TextInput
          type="datetime-local"
          size="sm"
          aria-label="Begins at"
          value={at === null ? '' : toLocalField(at)}
          onChange={(event) => {
            const instant = fromLocalField(event.currentTarget.value);
            if (instant) change({ ...stage, at: instant });
          }}
        />
      )}
      {asked}
      {openNow && <Button onClick={openNow}>Open this stage now</Button>}
      <WhenField
        label="Ends"
        without="never"
        value={stage.until}
        start={() => nextFriday(at === null ? Date.now() : Math.max(Date.now(), Date.parse(at)))}
        change={(until) => change({ ...stage, until })}
      />
      <LengthField
        label="Or after (days)"
        ms={stage.lastsMs}
        unitMs={dayMs}
        most={366}
        change={(lastsMs) => change({ ...stage, lastsMs })}
      />
      <ShowsChoice shows={stage.shows} setShows={(shows) => change({ ...stage, shows })} />
      {remove && (
        <div className={styles.row}>
          <Button size="compact-sm" onClick={remove}>
            Remove stage
          </Button>
        </div>
      )}
    </div>
  );
}

const dayMs = 86_400_000;

interface LengthFieldProps {
  label: string;
  /** Null: none. */
  ms: number | null;
  unitMs: number;
  /** In units. */
  most: number;
  change: (ms: number | null) => void;
}

/** A length that may be left empty. */
export function LengthField({ label, ms, unitMs, most, change }: LengthFieldProps) {
  return (
    <NumberInput
      label={label}
      size="sm"
      w="100%"
      maw="12rem"
      min={1}
      max={most}
      allowDecimal={false}
      placeholder="no limit"
      value={ms === null ? '' : Math.round(ms / unitMs)}
      onChange={(value) => change(Number(value) >= 1 ? Math.min(most, Number(value)) * unitMs : null)}
    />
  );
}
