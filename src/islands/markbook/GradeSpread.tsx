import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { linesDown } from '@/core/scoring/gradeOf';
import type { GradeLine, GradeScale } from '@/core/model/gradeScale';
import { percent, points } from '@/words/format';
import type { GradedResult } from './GradesEditor';
import styles from './markbook.module.css';

interface GradeSpreadProps {
  scale: GradeScale;
  results: readonly GradedResult[];
  /** While a line is dragged. */
  move: (scale: GradeScale) => void;
  drop: () => void;
  /** One step by keys. */
  step: (scale: GradeScale) => void;
}

const bars = 20;
const [width, height] = [1000, 180];

/** The spread of the results with the grade lines standing in it. */
export function GradeSpread({ scale, results, move, drop, step }: GradeSpreadProps) {
  const box = useRef<HTMLDivElement>(null);
  const dragged = useRef<GradeLine | null>(null);
  const most = scale.by === 'percent' ? 1 : Math.max(1, ...results.map(({ max }) => max));
  const valueOf = ({ points: had, max }: GradedResult) =>
    scale.by === 'points' ? had : max > 0 ? had / max : 0;
  const counts = Array.from({ length: bars }, () => 0);
  for (const result of results) {
    const at = Math.min(bars - 1, Math.max(0, Math.floor((valueOf(result) / most) * bars)));
    counts[at] = (counts[at] ?? 0) + 1;
  }
  const highest = Math.max(1, ...counts);
  /** Half a percent, or a quarter of a point. */
  const grain = scale.by === 'percent' ? 0.005 : 0.25;
  const said = (from: number) => (scale.by === 'percent' ? percentWords(from) : points(from));
  const withLine = (line: GradeLine, from: number): GradeScale => {
    const rounded = Math.round(Math.min(most, Math.max(0, from)) / grain) * grain;
    const moved = { ...line, from: Math.round(rounded * 10_000) / 10_000 };
    return { ...scale, lines: scale.lines.map((each) => (each === line ? moved : each)) };
  };
  const drag = (event: PointerEvent<HTMLButtonElement>) => {
    const { current: line } = dragged;
    const place = box.current?.getBoundingClientRect();
    if (!line || !place) return;
    const next = withLine(line, ((event.clientX - place.left) / place.width) * most);
    dragged.current = next.lines[scale.lines.indexOf(line)] ?? null;
    move(next);
  };
  const key = (event: KeyboardEvent, line: GradeLine) => {
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1, PageDown: -10, PageUp: 10 }[
      event.key
    ];
    if (by === undefined) return;
    event.preventDefault();
    step(withLine(line, line.from + by * grain));
  };
  return (
    <div className={styles.spread} ref={box} role="group" aria-label={`Spread of ${results.length} results`}>
      <svg viewBox={`0 0 ${width} ${height}`} preserveAspectRatio="none" aria-hidden>
        {counts.map((count, index) => (
          <rect
            key={index}
            x={(index * width) / bars + 2}
            width={width / bars - 4}
            y={height - (count / highest) * (height - 10)}
            height={(count / highest) * (height - 10)}
            className={styles.barFill}
          />
        ))}
      </svg>
      <ul className={styles.counts} aria-label="Results by tenths">
        {Array.from({ length: bars / 2 }, (_, tenth) => {
          const count = (counts[2 * tenth] ?? 0) + (counts[2 * tenth + 1] ?? 0);
          return (
            <li key={tenth}>
              <span className="visuallyHidden">
                {said((tenth / 10) * most)} to {said(((tenth + 1) / 10) * most)}:{' '}
              </span>
              {count > 0 && count}
            </li>
          );
        })}
      </ul>
      {linesDown(scale).map((line, index) => (
        <button
          key={scale.lines.indexOf(line)}
          type="button"
          role="slider"
          className={styles.gradeLine}
          data-end={line.from / most > 0.7 || undefined}
          // The words of two lines that stand near each other stand one below the other.
          data-low={index % 2 === 1 || undefined}
          style={{ left: `${Math.min(100, (line.from / most) * 100)}%` }}
          aria-label={`Line of grade ${line.grade}`}
          aria-valuemin={0}
          aria-valuemax={Math.round(most * (scale.by === 'percent' ? 100 : 1))}
          aria-valuenow={scale.by === 'percent' ? Math.round(line.from * 1000) / 10 : line.from}
          aria-valuetext={`from ${said(line.from)}`}
          onKeyDown={(event) => key(event, line)}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            dragged.current = line;
          }}
          onPointerMove={drag}
          onPointerUp={() => {
            dragged.current = null;
            drop();
          }}
          onPointerCancel={() => {
            dragged.current = null;
            drop();
          }}
        >
          <span>
            {line.grade} {said(line.from)}
          </span>
        </button>
      ))}
    </div>
  );
}

/** "62.5%": the grain of a line is half a percent. */
const percentWords = (share: number) => {
  const tenths = Math.round(share * 1000) / 10;
  return Number.isInteger(tenths) ? percent(share) : `${tenths}%`;
};
