import { Button, TextInput } from '@mantine/core';
import { memo, useState, type KeyboardEvent } from 'react';
import { isDeepEqual } from 'remeda';
import { adjusted, type Adjustment } from '@/core/model/mark';
import { pointStepOf, type PointRule } from '@/core/marking/typedPoints';
import { points } from '@/words/format';
import { KeyHint } from '@/ui/KeyHint';
import { useAnew } from '@/ui/useAnew';
import { PointsField } from '@/ui/PointsField';
import { toAnswers } from './toAnswers';
import styles from './mark.module.css';

export const adjustId = 'adjust-points';

interface AdjustBlockProps {
  /** What is typed stays when points are stored meanwhile; for other answers, or another adjustment, it begins anew. */
  about: string;
  /** The adjustment that is kept. */
  kept: Adjustment | undefined;
  /** What the answers it is for have without it. */
  bases: readonly number[];
  question: PointRule;
  adjust: (adjustment: Adjustment | null) => void;
}

/** Points given or taken beside the scheme, and more than the maximum: only with a reason, which only markers see. */
export const AdjustBlock = memo(function AdjustBlock({
  about,
  kept,
  bases,
  question,
  adjust,
}: AdjustBlockProps) {
  const [by, setBy] = useState<number | null>(kept?.points ?? null);
  const [reason, setReason] = useState(kept?.reason ?? '');
  const [asked, setAsked] = useState(false);
  useAnew(about, () => {
    setBy(kept?.points ?? null);
    setReason(kept?.reason ?? '');
    setAsked(false);
  });
  const fault =
    by === null || by === 0
      ? 'Type how many points more or fewer'
      : reason.trim() === ''
        ? 'Give a reason'
        : null;
  const leave = (event: KeyboardEvent) => event.key === 'Escape' && toAnswers();
  const keep = () => {
    setAsked(true);
    if (fault !== null || by === null) return;
    adjust({ points: by, reason: reason.trim() });
    toAnswers();
  };
  return (
    <form
      className={styles.adjust}
      aria-label="Adjust the points"
      onSubmit={(event) => {
        event.preventDefault();
        keep();
      }}
    >
      <PointsField
        id={adjustId}
        about={about}
        label="Adjust by"
        w={58}
        placeholder="+ −"
        min={-1000}
        step={pointStepOf(question)}
        value={by}
        onPoints={setBy}
        onKeyDown={leave}
      />
      <TextInput
        size="xs"
        aria-label="Reason for the adjustment"
        placeholder="Reason, for markers only"
        maxLength={500}
        className={styles.reason}
        value={reason}
        error={asked && fault}
        onChange={(event) => setReason(event.currentTarget.value)}
        onKeyDown={leave}
      />
      <Button size="compact-sm" type="submit">
        Adjust&ensp;
        <KeyHint keys="+" />
      </Button>
      {kept && (
        <Button size="compact-sm" onClick={() => adjust(null)}>
          Remove the adjustment
        </Button>
      )}
      {by !== null && by !== 0 && <p className={styles.soft}>{effectWords(bases, by, question.points)}</p>}
    </form>
  );
}, isDeepEqual);

/** "4 + 1 makes 5 of 4, more than the maximum.", and of answers that differ, the sum of each. */
function effectWords(bases: readonly number[], by: number, max: number): string {
  const sums = bases.map((base) => {
    const total = adjusted(base, { points: by, reason: '' });
    return `${points(base)} ${by > 0 ? '+' : '−'} ${points(Math.abs(by))} makes ${points(total)} of ${points(max)}${total > max ? ', more than the maximum' : ''}`;
  });
  return `${sums.join('; ')}.`;
}
