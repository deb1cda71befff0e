import { NativeSelect, NumberInput } from '@mantine/core';
import type { ScriptOrder } from '@/core/marking/scriptOrder';
import { registerName } from '@/core/model/names';
import type { Seat } from '@/core/seats/seats';
import type { MarkingHabits } from '@/store/markingHabits';
import { KeyHint } from '@/ui/KeyHint';
import { MarginBlock } from '@/ui/TwoColumns';
import styles from './mark.module.css';

interface ScriptsBlockProps {
  seat: Seat;
  /** In the order in which they are gone through. */
  seats: readonly Seat[];
  hrefOf: (studentId: string) => string;
  habits: MarkingHabits;
  keepHabits: (change: Partial<MarkingHabits>) => Promise<void>;
  /** Whose script stands beside; null: nobody's. */
  beside: string | null;
  setBeside: (studentId: string | null) => void;
}

const orders: { value: ScriptOrder; label: string }[] = [
  { value: 'name', label: 'by name' },
  { value: 'number', label: 'by student number' },
  { value: 'total', label: 'lowest total first' },
  { value: 'line', label: 'nearest to the pass line first' },
];

/** The way from script to script: to whom, in which order, and whose stands beside. */
export function ScriptsBlock(props: ScriptsBlockProps) {
  const { seat, seats, hrefOf, habits, keepHabits, beside, setBeside } = props;
  const at = seats.indexOf(seat);
  const [before, after] = [seats[at - 1], seats[at + 1]];
  const students = seats.map(({ student }) => ({ value: student.id, label: registerName(student) }));
  return (
    <MarginBlock title={`Script ${at + 1} of ${seats.length}`}>
      <NativeSelect
        aria-label="Go to a student"
        size="sm"
        value={seat.student.id}
        data={students}
        onChange={(event) => window.location.assign(hrefOf(event.currentTarget.value))}
      />
      <div className={styles.walk}>
        {before ? <a href={hrefOf(before.student.id)}>← Previous</a> : <span />}
        {after ? <a href={hrefOf(after.student.id)}>Next →</a> : <span />}
      </div>
      <NativeSelect
        size="xs"
        label="Order"
        value={habits.scriptOrder}
        data={orders}
        onChange={(event) => {
          const order = orders.find(({ value }) => value === event.currentTarget.value);
          if (order) void keepHabits({ scriptOrder: order.value });
        }}
      />
      {habits.scriptOrder === 'line' && (
        <NumberInput
          size="xs"
          label="Pass line, percent"
          min={0}
          max={100}
          value={Math.round(habits.passLine * 100)}
          onChange={(value) => typeof value === 'number' && void keepHabits({ passLine: value / 100 })}
        />
      )}
      <NativeSelect
        size="xs"
        label={
          <>
            Beside it <KeyHint keys="F7" />
          </>
        }
        id={besideId}
        value={beside ?? ''}
        data={[{ value: '', label: 'nothing' }, ...students.filter(({ value }) => value !== seat.student.id)]}
        onChange={(event) => setBeside(event.currentTarget.value || null)}
      />
    </MarginBlock>
  );
}

export const besideId = 'script-beside';
