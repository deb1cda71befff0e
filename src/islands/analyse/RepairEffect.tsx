import { Button } from '@mantine/core';
import { lazy, Suspense, useMemo, useState } from 'react';
import { groupBy } from '@/core/basics/groupBy';
import type { RepairDraft } from '@/core/repair/draft';
import type { GradeChange, RepairEffect, ShareChange } from '@/core/repair/effect';
import { registerName } from '@/core/model/names';
import { MarginBlock } from '@/ui/TwoColumns';
import { counted, percent, points } from '@/words/format';
import { meanWords, upDownWords } from '@/words/repairs';
import styles from './repair.module.css';

const SpreadChart = lazy(() => import('@/ui/SpreadChart'));

/** What a repair would do: who goes where, the mean and the spread over the old ones, who crosses the line. */
export function EffectOf({ effect, line }: { effect: RepairEffect; line: number }) {
  const chartLines = useMemo(() => [line], [line]);
  const [names, setNames] = useState(false);
  const { before, after, deviation, alpha, handedBack, overridden } = effect;
  const rows: [string, string][] = [
    ['Students', upDownWords(effect)],
    ['Mean', `${meanWords(before)} → ${meanWords(after)}`],
    ['Standard deviation', `${orDash(deviation.before)} → ${orDash(deviation.after)}`],
    ['Reliability', `${orDash(alpha.before)} → ${orDash(alpha.after)}`],
  ];
  return (
    <div className={styles.effect} role="region" aria-label="What it would do" aria-live="polite">
      <dl>
        {rows.map(([word, value]) => (
          <div key={word}>
            <dt>{word}</dt>
            <dd>{value}</dd>
          </div>
        ))}
      </dl>
      {effect.crossings.map((crossing) => (
        <p key={crossing.line}>
          {crossing.up.length + crossing.down.length === 0 &&
            `Nobody crosses the line at ${percent(crossing.line)}.`}
          {crossing.up.length > 0 && crossingWords(crossing.up, `to ${percent(crossing.line)} or above`)}
          {crossing.down.length > 0 && ` ${crossingWords(crossing.down, `below ${percent(crossing.line)}`)}`}
        </p>
      ))}
      {effect.grades.length > 0 && <p>{gradeWords(effect.grades)}</p>}
      {handedBack.all > 0 && (
        <p className={styles.seen}>
          {handedBack.all} have their results back; {handedBack.changed.length} of them would see another
          total, and why.
        </p>
      )}
      {overridden > 0 && <p>{counted(overridden, 'answer')} overridden by hand: those points stay.</p>}
      <Suspense fallback={<div style={{ height: 150 }} />}>
        <SpreadChart
          bars={effect.spread.after}
          before={effect.spread.before}
          meanShare={after.share}
          lines={chartLines}
          height={150}
        />
      </Suspense>
      <p className={styles.soft}>Dashed: as it is now.</p>
      {effect.changes.length > 0 && (
        <>
          <Button size="compact-sm" aria-expanded={names} onClick={() => setNames(!names)}>
            {names ? 'Hide the names' : `Show the names of ${counted(effect.changes.length, 'student')}`}
          </Button>
          {names && <Names changes={effect.changes} grades={effect.grades} />}
        </>
      )}
    </div>
  );
}

const orDash = (value: number | null) => (value === null ? '–' : points(value));

const crossingWords = (who: readonly ShareChange[], where: string): string =>
  `${counted(who.length, 'student')} ${who.length === 1 ? 'goes' : 'go'} ${where}.`;

/** "3 students get another grade: pass → merit 2, merit → distinction 1." */
function gradeWords(grades: readonly GradeChange[]): string {
  const steps = groupBy(grades, ({ before, after }) => `${before ?? 'none'} → ${after ?? 'none'}`);
  const each = [...steps].map(([step, who]) => `${step} ${who.length}`).join(', ');
  return `${counted(grades.length, 'student')} ${grades.length === 1 ? 'gets' : 'get'} another grade: ${each}.`;
}

function Names({ changes, grades }: { changes: readonly ShareChange[]; grades: readonly GradeChange[] }) {
  const gradeOf = new Map(grades.map((grade) => [grade.seat.student.id, grade]));
  return (
    <ol className={styles.names}>
      {changes.map(({ seat, before, after }) => (
        <li key={seat.student.id}>
          <span>{registerName(seat.student)}</span>
          <span>
            {percent(before)} → {percent(after)}
            {gradeOf.has(seat.student.id) && `, ${gradeOf.get(seat.student.id)?.after ?? 'no grade'}`}
          </span>
        </li>
      ))}
    </ol>
  );
}

/** A repair that was set aside to be compared. */
export interface Tried {
  words: string;
  draft: RepairDraft;
  effect: RepairEffect;
}

interface TriesProps {
  tried: readonly Tried[];
  line: number;
  current: RepairDraft;
  choose: (draft: RepairDraft) => void;
}

/** Several repairs side by side, before one is taken. */
export function Tries({ tried, line, current, choose }: TriesProps) {
  if (tried.length === 0) return null;
  return (
    <MarginBlock title="Side by side">
      <table className={styles.tries}>
        <thead>
          <tr>
            <th scope="col">Repair</th>
            <th scope="col">Up</th>
            <th scope="col">Down</th>
            <th scope="col">Mean</th>
            <th scope="col">{percent(line)} or above</th>
          </tr>
        </thead>
        <tbody>
          {tried.map(({ words, draft, effect }) => {
            const over = effect.crossings[0];
            const net = (over?.up.length ?? 0) - (over?.down.length ?? 0);
            return (
              <tr key={words} aria-current={draft === current ? 'true' : undefined}>
                <th scope="row">
                  <button type="button" className={styles.again} onClick={() => choose(draft)}>
                    {words}
                  </button>
                </th>
                <td>{effect.studentsUp}</td>
                <td>{effect.studentsDown}</td>
                <td>{percent(effect.after.share)}</td>
                <td>{net > 0 ? `+${net}` : net < 0 ? `−${-net}` : '0'}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </MarginBlock>
  );
}
