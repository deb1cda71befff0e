import { useCallback } from 'react';
import type { SpreadBar } from '@/core/analysis/spread';
import { percent } from '@/words/format';
import { Chart, type ChartInks } from './Chart';

interface SpreadChartProps {
  bars: readonly SpreadBar[];
  /** Where the mean lies, as a share of the maximum. */
  meanShare: number;
  /** Lines across it, as shares of the maximum. */
  lines?: readonly number[];
  /** Where grades begin, with their names, as shares of the maximum. */
  grades?: readonly { grade: string; from: number }[];
  /** The bars as they were before, drawn as outlines. */
  before?: readonly SpreadBar[];
  height?: number;
}

/** The picture of the spread: how many results in each tenth, the number on each bar, where the mean is and the lines are. */
export default function SpreadChart({
  bars,
  meanShare,
  lines,
  grades,
  before,
  height = 190,
}: SpreadChartProps) {
  const option = useCallback(
    (inks: ChartInks) =>
      spreadOption(inks, bars, meanShare, { lines: lines ?? [], grades: grades ?? [] }, before ?? []),
    [bars, meanShare, lines, grades, before],
  );
  const words = bars.map((bar) => `${percent(bar.from)} to ${percent(bar.to)}: ${bar.count}`).join('; ');
  return (
    <Chart
      option={option}
      height={height}
      label={`Spread of the results. ${words}. Mean ${percent(meanShare)}.${gradeWords(grades ?? [])}`}
    />
  );
}

const gradeWords = (grades: readonly { grade: string; from: number }[]) =>
  grades.map(({ grade, from }) => ` ${grade} from ${percent(from)}.`).join('');

const middle = (bar: SpreadBar) => ((bar.from + bar.to) / 2) * 100;

interface SpreadLines {
  lines: readonly number[];
  grades: readonly { grade: string; from: number }[];
}

function spreadOption(
  inks: ChartInks,
  bars: readonly SpreadBar[],
  meanShare: number,
  lines: SpreadLines,
  before: readonly SpreadBar[],
) {
  const { ink, soft, font, width } = inks;
  const series = {
    type: 'bar',
    barWidth: Math.max(6, ((width - 22) / bars.length) * 0.9),
    barGap: '-100%',
    silent: true,
  };
  const data = bars.map((bar) => [middle(bar), bar.count]);
  return {
    grid: { left: 8, right: 14, top: 26, bottom: 24 },
    xAxis: {
      type: 'value',
      min: 0,
      max: 100,
      interval: width < 420 ? 20 : 10,
      containShape: false,
      axisLabel: { ...font, formatter: '{value}%', showMaxLabel: true },
      splitLine: { show: false },
      axisLine: { lineStyle: { color: soft } },
    },
    // Room above the tallest bar: its number and the word at the line of the mean are never in one place.
    yAxis: {
      type: 'value',
      show: false,
      max: Math.max(1, ...[...bars, ...before].map(({ count }) => count)) * 1.25,
    },
    series: [
      {
        ...series,
        z: 2,
        itemStyle: { color: ink, opacity: 0.75 },
        data,
        markLine: markedLines(inks, meanShare, lines),
      },
      {
        ...series,
        z: 3,
        itemStyle: { color: 'transparent', borderColor: ink, borderType: 'dashed', borderWidth: 1.5 },
        data: before.map((bar) => [middle(bar), bar.count]),
      },
      { ...series, ...numbers(inks), data },
    ],
  };
}

/** Numbers stand before every line. */
const numbers = ({ font, ground }: ChartInks) => ({
  z: 4,
  itemStyle: { color: 'transparent' },
  label: {
    show: true,
    position: 'top',
    ...font,
    backgroundColor: ground,
    padding: [0, 2],
    formatter: ({ value }: { value: number[] }) => (value[1] ? String(value[1]) : ''),
  },
});

/** The mean, lines that were asked for, and where grades begin. */
const markedLines = ({ ink, wait, font }: ChartInks, meanShare: number, { lines, grades }: SpreadLines) => ({
  z: 1,
  symbol: 'none',
  silent: true,
  label: { ...font, color: ink, position: 'end' },
  data: [
    {
      xAxis: meanShare * 100,
      lineStyle: { color: ink, type: 'dashed', width: 1.5 },
      label: { formatter: `mean ${percent(meanShare)}` },
    },
    ...lines.map((line) => ({
      xAxis: line * 100,
      lineStyle: { color: wait, type: 'dotted', width: 2 },
      // Its word stands below, so that it is never in that of the mean.
      label: { show: false },
    })),
    ...grades.map(({ grade, from }) => ({
      xAxis: from * 100,
      lineStyle: { color: ink, type: 'solid', width: 1 },
      // Within the picture, along its line: the mean has its word above.
      label: { formatter: grade, position: 'insideEndTop', fontSize: 11 },
    })),
  ],
});
