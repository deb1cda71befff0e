import { useCallback } from 'react';
import { Chart, percentAxis, type ChartInks } from '@/ui/Chart';
import { percent } from '@/words/format';

interface ResultsChartProps {
  results: readonly { title: string; share: number; classMean: number | null }[];
}

/** One student’s results over time, with the mean of the class dashed behind them. */
export default function ResultsChart({ results }: ResultsChartProps) {
  const option = useCallback(
    (inks: ChartInks) => {
      const { ink, soft, font } = inks;
      return {
        grid: { left: 48, right: 48, top: 24, bottom: 30 },
        xAxis: {
          type: 'category',
          data: results.map(({ title }) => title),
          axisLabel: { ...font, overflow: 'truncate', width: 190, interval: 0 },
          axisLine: { lineStyle: { color: soft } },
        },
        yAxis: percentAxis(inks),
        series: [
          {
            type: 'line',
            silent: true,
            symbolSize: 6,
            lineStyle: { color: soft, type: 'dashed', width: 1.5 },
            itemStyle: { color: soft },
            data: results.map(({ classMean }) => (classMean === null ? null : classMean * 100)),
          },
          {
            type: 'line',
            silent: true,
            symbolSize: 10,
            lineStyle: { color: ink, width: 2.5 },
            itemStyle: { color: ink },
            label: {
              show: true,
              position: 'top',
              ...font,
              color: ink,
              formatter: ({ value }: { value: number }) => percent(value / 100),
            },
            // Below the line where the class is above it.
            data: results.map(({ share, classMean }) => ({
              value: share * 100,
              label: { position: classMean !== null && classMean > share ? 'bottom' : 'top' },
            })),
          },
        ],
      };
    },
    [results],
  );
  const words = results
    .map(
      ({ title, share, classMean }) =>
        `${title}: ${percent(share)}${classMean === null ? '' : `, class ${percent(classMean)}`}`,
    )
    .join('; ');
  return (
    <figure style={{ margin: 0 }}>
      <Chart option={option} height={230} label={`Results over time. ${words}`} />
      <figcaption>Dashed: the mean of the class.</figcaption>
    </figure>
  );
}
