import { ActionIcon, Button, NumberInput, Radio, TextInput } from '@mantine/core';
import { IconX } from '@/ui/icons';
import { useMemo, useState } from 'react';
import { aboveLine, gradeCounts, linesDown } from '@/core/scoring/gradeOf';
import type { GradeLine, GradeScale } from '@/core/model/gradeScale';
import { counted, points } from '@/words/format';
import { GradeSpread } from './GradeSpread';
import styles from './markbook.module.css';

/** A result that is graded. */
export interface GradedResult {
  id: string;
  name: string;
  points: number;
  max: number;
  /** Its standard error, in points; null where it is not known. */
  error: number | null;
}

interface GradesEditorProps {
  scale: GradeScale;
  results: readonly GradedResult[];
  /** Whether only percent makes sense. */
  percentOnly?: boolean;
  /** @param joins names what is moved or typed, so that a run of it is one step to undo */
  change: (scale: GradeScale, joins?: string) => void;
}

/** Grade lines over the spread: moved by dragging or by keys, with how many get what and who is near a line. */
export function GradesEditor({ scale, results, percentOnly = false, change }: GradesEditorProps) {
  // While a line is dragged it moves at once, and is kept when it is let go.
  const [moving, setMoving] = useState<GradeScale | null>(null);
  const shown = moving ?? scale;
  const counts = useMemo(() => gradeCounts(shown, results), [shown, results]);
  const lines = linesDown(shown);
  const told = results.some(({ error }) => error !== null);
  const most = Math.max(1, ...results.map(({ max }) => max));
  const put = (index: number, part: Partial<GradeLine>, joins?: string) => {
    const line = lines[index];
    if (line)
      change(
        { ...shown, lines: shown.lines.map((each) => (each === line ? { ...each, ...part } : each)) },
        joins,
      );
  };
  const unit = shown.by === 'percent' ? 100 : 1;
  const by = (next: GradeScale['by']) => {
    const factor = next === 'points' ? most : 1 / most;
    const rounded = (from: number) => Math.round(from * factor * 100) / 100;
    change({ by: next, lines: shown.lines.map((line) => ({ ...line, from: rounded(line.from) })) });
  };
  return (
    <>
      <GradeSpread
        scale={shown}
        results={results}
        move={setMoving}
        drop={() => {
          if (moving) change(moving);
          setMoving(null);
        }}
        step={(next) => change(next, 'line')}
      />
      {!percentOnly && (
        <Radio.Group
          aria-label="Lines by"
          value={shown.by}
          onChange={(value) => by(value as GradeScale['by'])}
        >
          <div className={styles.row}>
            <Radio size="sm" value="percent" label="by percent" />
            <Radio size="sm" value="points" label="by points" />
          </div>
        </Radio.Group>
      )}
      <div className={styles.gradesPlace} role="region" aria-label="Grades" tabIndex={0}>
        <table className={styles.grades}>
          <thead>
            <tr>
              <th scope="col">Grade</th>
              <th scope="col">From {shown.by === 'percent' ? '(%)' : '(points)'}</th>
              <th scope="col">Students</th>
              <th scope="col">{told ? 'Within one standard error of the line' : ''}</th>
              <th scope="col" aria-label="Remove" />
            </tr>
          </thead>
          <tbody>
            {lines.map((line, index) => (
              <tr key={index}>
                <td>
                  <TextInput
                    size="xs"
                    aria-label={`Grade ${index + 1}`}
                    maxLength={40}
                    key={line.grade}
                    defaultValue={line.grade}
                    onBlur={(event) => {
                      const grade = event.currentTarget.value.trim();
                      if (grade && grade !== line.grade) put(index, { grade });
                    }}
                  />
                </td>
                <td>
                  <NumberInput
                    size="xs"
                    aria-label={`From which ${shown.by === 'percent' ? 'percent' : 'points'} on: ${line.grade}`}
                    min={0}
                    decimalScale={2}
                    value={Math.round(line.from * unit * 100) / 100}
                    onChange={(value) =>
                      put(index, { from: Math.max(0, Number(value) || 0) / unit }, `from ${index}`)
                    }
                  />
                </td>
                <td className={styles.figure}>
                  {counts.find(({ grade }) => grade === line.grade)?.count ?? 0}
                </td>
                <td>
                  <Near line={line} scale={shown} results={results} />
                </td>
                <td>
                  <ActionIcon
                    size={24}
                    variant="default"
                    aria-label={`Remove grade ${line.grade}`}
                    disabled={lines.length === 1}
                    onClick={() => change({ ...shown, lines: shown.lines.filter((each) => each !== line) })}
                  >
                    <IconX size={14} />
                  </ActionIcon>
                </td>
              </tr>
            ))}
            {counts.some(({ grade }) => grade === null) && (
              <tr>
                <td>below all</td>
                <td />
                <td className={styles.figure}>{counts.at(-1)?.count}</td>
                <td />
                <td />
              </tr>
            )}
          </tbody>
        </table>
      </div>
      <Button
        size="compact-sm"
        onClick={() =>
          change({ ...shown, lines: [...shown.lines, { grade: `grade ${lines.length + 1}`, from: 0 }] })
        }
      >
        Add a grade
      </Button>
    </>
  );
}

/** Who is so near a line that the same student on another day might be on its other side. */
function Near({
  line,
  scale,
  results,
}: {
  line: GradeLine;
  scale: GradeScale;
  results: readonly GradedResult[];
}) {
  const near = results
    .map((result) => ({ ...result, above: aboveLine(scale, line, result) }))
    .filter(({ above, error }) => error !== null && Math.abs(above) <= error)
    .sort((a, b) => a.above - b.above);
  if (near.length === 0) return null;
  const shown = near
    .slice(0, 4)
    .map(({ name, above }) => `${name} (${above >= 0 ? '+' : '−'}${points(Math.abs(above))})`);
  return (
    <details>
      <summary>{counted(near.length, 'student')}</summary>
      {shown.join(', ')}
      {near.length > shown.length && (
        <>
          {', '}
          {near
            .slice(4)
            .map(({ name }) => name)
            .join(', ')}
        </>
      )}
    </details>
  );
}

/** Scales to begin with: words of the trade, the lines to be moved. */
export const usualScales: { name: string; scale: GradeScale }[] = [
  ['Pass or fail', ['pass', 0.5]],
  ['Distinction, merit, pass', ['distinction', 0.85], ['merit', 0.7], ['pass', 0.5]],
  ['Letters', ['A', 0.9], ['B', 0.8], ['C', 0.7], ['D', 0.6], ['F', 0]],
  ['1 to 6', ['1', 0.92], ['2', 0.81], ['3', 0.67], ['4', 0.5], ['5', 0.3], ['6', 0]],
  ['10 to 1', ...[10, 9, 8, 7, 6, 5, 4, 3, 2, 1].map((n) => [String(n), (n - 1) / 10] as [string, number])],
].map(([name, ...lines]) => ({
  name: String(name),
  scale: {
    by: 'percent',
    lines: (lines as [string, number][]).map(([grade, from]) => ({ grade, from })),
  },
}));
