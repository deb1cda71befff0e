import { Checkbox, TextInput } from '@mantine/core';
import { fromLocalField, toLocalField } from '@/ui/localField';
import styles from './WhenField.module.css';

interface WhenFieldProps {
  label: string;
  /** What holds when no time is set. */
  without: string;
  value: string | null;
  /** The time the field starts at when it is switched on. */
  start: () => string;
  change: (instant: string | null) => void;
  disabled?: boolean;
}

/** A time that may be left unset. */
export function WhenField({ label, without, value, start, change, disabled = false }: WhenFieldProps) {
  return (
    <div className={styles.when}>
      <Checkbox
        label={value === null ? `${label}: ${without}` : `${label} at`}
        checked={value !== null}
        disabled={disabled}
        onChange={(event) => change(event.currentTarget.checked ? start() : null)}
      />
      {value !== null && (
        <TextInput
          type="datetime-local"
          size="sm"
          aria-label={`${label} at`}
          disabled={disabled}
          value={toLocalField(value)}
          onChange={(event) => {
            const instant = fromLocalField(event.currentTarget.value);
            if (instant) change(instant);
          }}
        />
      )}
    </div>
  );
}
