import { lazy, Suspense, useState } from 'react';
import { Button } from '@/ui/plain/Button';
import styles from './working.module.css';

const MathLine = lazy(() => import('./MathLine'));

interface MathsLinesProps {
  lines: string[];
  /** Whether the first line gets the focus: it was opened just now. */
  focus: boolean;
  disabled: boolean;
  change: (lines: string[]) => void;
}

/** Maths, line under line. */
export function MathsLines({ lines, focus, disabled, change }: MathsLinesProps) {
  const [added, setAdded] = useState(0);
  const shown = lines.length === 0 ? [''] : lines;
  return (
    <div className={styles.maths}>
      <Suspense fallback={<p>Loading the maths field…</p>}>
        {shown.map((line, index) => (
          <MathLine
            key={index}
            label={`Maths, line ${index + 1}`}
            focus={index === 0 ? focus : index === added}
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
          onClick={() => {
            setAdded(shown.length);
            change([...shown, '']);
          }}
        >
          Add a line
        </Button>
        {shown.length > 1 && (
          <Button size="compact-md" disabled={disabled} onClick={() => change(shown.slice(0, -1))}>
            Remove the last line
          </Button>
        )}
      </div>
    </div>
  );
}
