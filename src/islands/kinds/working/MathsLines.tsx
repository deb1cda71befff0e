import { Button } from '@mantine/core';
import { lazy, Suspense } from 'react';
import styles from './working.module.css';

const MathLine = lazy(() => import('./MathLine'));

interface MathsLinesProps {
  lines: string[];
  disabled: boolean;
  change: (lines: string[]) => void;
}

/** Maths, line under line. */
export function MathsLines({ lines, disabled, change }: MathsLinesProps) {
  const shown = lines.length === 0 ? [''] : lines;
  return (
    <div className={styles.maths}>
      <Suspense fallback={<p>The maths field is on its way…</p>}>
        {shown.map((line, index) => (
          <MathLine
            key={index}
            label={`Maths, line ${index + 1}`}
            value={line}
            disabled={disabled}
            change={(latex) => change(shown.map((each, place) => (place === index ? latex : each)))}
          />
        ))}
      </Suspense>
      <div className={styles.tools}>
        <Button
          size="compact-md"
          disabled={disabled || shown.length >= 40}
          onClick={() => change([...shown, ''])}
        >
          One more line
        </Button>
        {shown.length > 1 && (
          <Button size="compact-md" disabled={disabled} onClick={() => change(shown.slice(0, -1))}>
            Take the last line out
          </Button>
        )}
      </div>
    </div>
  );
}
