import { useCallback } from 'react';
import { Chart, percentAxis, type ChartInks } from './Chart';

interface DriftChartProps {
  /** In the order of marking: the share of the points given, and the running mean, 0 to 1. */
  turns: readonly { share: number; running: number }[];
  /** What it shows, in words. */
  label: string;
}

/** Points against the order in which they were given, with their running mean. */
export default function DriftChart({ turns, label }: DriftChartProps) {
  const option = useCallback(
    (inks: ChartInks) => {
      const { ink, soft, next, font } = inks;
      return {
        grid: { left: 44, right: 14, top: 12, bottom: 28 },
        xAxis: {
          type: 'value',
          min: 1,
          max: Math.max(2, turns.length),
          minInterval: 1,
          axisLabel: font,
          splitLine: { show: false },
          axisLine: { lineStyle: { color: soft } },
        },
        yAxis: percentAxis(inks),
        series: [
          {
            type: 'scatter',
            symbolSize: 7,
            itemStyle: { color: ink, opacity: 0.45 },
            data: turns.map(({ share }, index) => [index + 1, share * 100]),
          },
          {
            type: 'line',
            showSymbol: false,
            lineStyle: { color: next, width: 2.5 },
            data: turns.map((turn, index) => [index + 1, turn.running * 100]),
          },
        ],
      };
    },
    [turns],
  );
  return <Chart option={option} height={240} label={label} />;
}
