import { useCallback, useId, useMemo, useState, type KeyboardEvent } from 'react';
import { questionReading } from '@/words/analysis';
import { apart } from '@/ui/apart';
import { Chart, type ChartInks } from '@/ui/Chart';
import { looksWrongTitle } from '@/words/looksWrong';
import type { QuestionRow } from '@/desk/useAnalysis';
import styles from './analyse.module.css';

interface QuestionMapProps {
  rows: readonly QuestionRow[];
  /** Questions below it stand out, as a share of the points. */
  line: number;
  open: (questionId: string) => void;
}

interface Placed {
  row: QuestionRow;
  facility: number;
  discrimination: number;
  words: string;
}

/**
 * Every question as a numbered mark: how easy it was across, how well it tells strong from weak upwards. What looks wrong is a
 * filled diamond. A click opens a question; so does Enter, once the arrows have gone to it.
 */
export default function QuestionMap({ rows, line, open }: QuestionMapProps) {
  const id = useId();
  const [at, setAt] = useState<string | null>(null);
  const placed = useMemo(() => placedRows(rows), [rows]);
  const current = placed.findIndex(({ row }) => row.question.id === at);
  const option = useCallback(
    (inks: ChartInks) => mapOption(inks, placed, line, current),
    [placed, line, current],
  );
  const onKey = (event: KeyboardEvent) => {
    const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[event.key];
    if (step !== undefined) {
      const next = placed[(current + step + placed.length) % placed.length];
      if (next) setAt(next.row.question.id);
    } else if (event.key === 'Enter' && at !== null) open(at);
    else return;
    event.preventDefault();
  };
  if (placed.length < 2) return null;
  return (
    <figure className={styles.map}>
      <figcaption className={styles.soft}>
        Easier to the right, tells strong from weak better towards the top; overlaps are moved apart.
        {placed.some(({ row }) => row.suspect) && ' A filled diamond looks wrong.'}
      </figcaption>
      <Chart
        option={option}
        height={height}
        label={`Map of ${placed.length} questions; the table below has the same figures.`}
        pick={(index) => {
          const hit = placed[index];
          if (hit) open(hit.row.question.id);
        }}
      />
      <ul
        className={styles.mapKeys}
        role="listbox"
        tabIndex={0}
        data-own-keys
        aria-label="Questions on the map, the hardest first"
        aria-activedescendant={current >= 0 ? `${id}-${current}` : undefined}
        onKeyDown={onKey}
        onFocus={() => current < 0 && setAt(placed[0]?.row.question.id ?? null)}
      >
        {placed.map(({ row, words }, index) => (
          <li key={row.question.id} id={`${id}-${index}`} role="option" aria-selected={index === current}>
            {words}
          </li>
        ))}
      </ul>
    </figure>
  );
}

function placedRows(rows: readonly QuestionRow[]): Placed[] {
  return rows
    .flatMap((row): Placed[] => {
      const { facility, discrimination, number, suspect } = row;
      if (facility === null || discrimination === null) return [];
      const first = suspect?.findings[0];
      const reading = questionReading(number, facility, discrimination);
      return [
        {
          ...{ row, facility, discrimination },
          words: first ? `${reading}. ${looksWrongTitle[first.code]}` : reading,
        },
      ];
    })
    .sort((a, b) => a.facility - b.facility);
}

const height = 300;
const margin = { left: 48, right: 16, top: 10, bottom: 42 };
/** Across a circle, in pixels. */
const size = 25;

/** One question in the map: a diamond where it looks wrong. */
function pointOf(
  { ink, next, ground, font }: ChartInks,
  { row, facility, discrimination }: Placed,
  isCurrent: boolean,
  moved: [number, number] | undefined,
) {
  const wrong = row.suspect !== null;
  return {
    value: [facility * 100, discrimination],
    symbol: wrong ? 'diamond' : 'circle',
    symbolSize: wrong ? 34 : size,
    symbolOffset: moved,
    z: wrong || isCurrent ? 3 : 2,
    itemStyle: {
      color: wrong ? ink : ground,
      borderColor: isCurrent ? next : ink,
      borderWidth: isCurrent ? 4 : 1.5,
    },
    label: {
      show: true,
      formatter: row.number,
      color: wrong ? ground : ink,
      fontFamily: font.fontFamily,
      fontSize: 12,
      fontWeight: wrong ? 700 : 400,
    },
  };
}

function mapOption(inks: ChartInks, placed: readonly Placed[], line: number, current: number) {
  const { soft, rule, wait, font, width } = inks;
  const low = Math.min(0, ...placed.map(({ discrimination }) => Math.floor(discrimination * 5) / 5));
  const high = Math.max(0.8, ...placed.map(({ discrimination }) => Math.ceil(discrimination * 5) / 5));
  const left = Math.min(0.3, ...placed.map(({ facility }) => Math.floor(facility * 10) / 10));
  const [across, down] = [
    (width - margin.left - margin.right) / (1 - left),
    (height - margin.top - margin.bottom) / (high - low),
  ];
  const moves = apart(
    placed.map(({ facility, discrimination }) => [facility * across, -discrimination * down]),
    size + 1,
  );
  return {
    grid: margin,
    xAxis: {
      type: 'value',
      min: left * 100,
      max: 100,
      interval: 10,
      name: 'share of the points',
      nameLocation: 'middle',
      nameGap: 26,
      nameTextStyle: font,
      axisLabel: { ...font, formatter: '{value}%' },
      splitLine: { lineStyle: { color: rule } },
      axisLine: { lineStyle: { color: soft } },
    },
    yAxis: {
      type: 'value',
      min: low,
      max: high,
      interval: 0.2,
      axisLabel: { ...font, formatter: (value: number) => value.toFixed(1) },
      splitLine: { lineStyle: { color: rule } },
    },
    series: [
      {
        type: 'scatter',
        cursor: 'pointer',
        data: placed.map((each, index) => pointOf(inks, each, index === current, moves[index])),
        markLine: {
          silent: true,
          symbol: 'none',
          label: { show: false },
          lineStyle: { color: wait, type: 'dotted', width: 2 },
          data: [{ xAxis: line * 100 }, { yAxis: 0.2 }],
        },
      },
    ],
  };
}
