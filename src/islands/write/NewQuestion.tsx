import { Button } from '@mantine/core';
import { kindNamed, kindNames, type KindName } from '@/core/kinds';
import { KeyHint } from '@/ui/KeyHint';
import styles from './write.module.css';

/** The kinds a new question can be of, each one press away. */
export function NewQuestion({
  add,
  addPart,
  pasteAt,
}: {
  add: (kind: KindName) => void;
  addPart: () => void;
  /** Of an empty paper: where all its questions can be typed as text. */
  pasteAt: string | null;
}) {
  const first = pasteAt !== null;
  return (
    <div className={styles.newQuestion} role="group" aria-label="New question">
      <span className={styles.soft}>{first ? 'First question:' : 'Next question:'}</span>
      {kindNames.map((name) => (
        <Button
          key={name}
          size="compact-sm"
          variant={first && name === 'oneChoice' ? 'filled' : 'default'}
          onClick={() => add(name)}
        >
          {kindNamed(name).label}
        </Button>
      ))}
      <Button size="compact-sm" onClick={addPart}>
        Add a part
      </Button>
      {first && (
        <span className={styles.alone}>
          or <a href={pasteAt}>type or paste all questions as text</a>
        </span>
      )}
      {!first && (
        <span className={styles.alone}>
          <KeyHint keys="Ctrl Enter" /> another of the same kind
        </span>
      )}
    </div>
  );
}
