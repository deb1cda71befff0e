import { useEffect, useRef } from 'react';
import styles from './PickBox.module.css';

interface PickBoxProps {
  label: string;
  checked: boolean;
  /** Some of those it stands for are picked, and some are not. */
  some?: boolean;
  change: (checked: boolean) => void;
}

/** A box to pick a row of a long table: the browser's own, for there are hundreds of them. */
export function PickBox({ label, checked, some = false, change }: PickBoxProps) {
  const box = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (box.current) box.current.indeterminate = some && !checked;
  }, [some, checked]);
  return (
    <label className={styles.target}>
      <input
        ref={box}
        type="checkbox"
        className={styles.box}
        aria-label={label}
        checked={checked}
        onChange={(event) => change(event.currentTarget.checked)}
      />
    </label>
  );
}
