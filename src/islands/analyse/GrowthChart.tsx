import { useCallback } from 'react';
import type { PairedResult } from '@/core/analysis/pairedResults';
import { mean } from '@/core/analysis/mean';
import { Chart, type ChartInks } from '@/ui/Chart';
import { counted, percent } from '@/words/format';

interface GrowthChartProps {
  pairs: readonly PairedResult[];
  first: string;
  second: string;
}

/** A line for every student from the first sitting to the second; those that go down are drawn stronger, dashed. */
export default function GrowthChart({ pairs, first, second }: GrowthChartProps) {
  const option = useCallback(
    ({ ink, soft, rule, next, font }: ChartInks) => {
      const [before, after] = [mean(pairs.map((each) => each.before)), mean(pairs.map((each) => each.after))];
      return {
        grid: { left: 48, right: 48, top: 14, bottom: 30 },
        xAxis: {
          type: 'category',
          data: [first, second],
          boundaryGap: false,
          axisLabel: {
            ...font,
            overflow: 'truncate',
            width: 340,
            showMinLabel: true,
            alignMinLabel: 'left',
            alignMaxLabel: 'right',
          },
          axisLine: { lineStyle: { color: soft } },
        },
        yAxis: {
          type: 'value',
          min: 0,
          max: 100,
          interval: 20,
          axisLabel: { ...font, formatter: '{value}%' },
          splitLine: { lineStyle: { color: rule } },
        },
        series: [
          ...pairs.map((pair) => {
            const down = pair.after < pair.before - 1e-9;
            return {
              type: 'line',
              symbolSize: 5,
              silent: true,
              lineStyle: {
                color: ink,
                width: down ? 1.2 : 1,
                type: down ? 'dashed' : 'solid',
                opacity: down ? 0.65 : 0.3,
              },
              itemStyle: { color: ink, opacity: 0.5 },
              data: [pair.before * 100, pair.after * 100],
            };
          }),
          {
            type: 'line',
            symbolSize: 9,
            silent: true,
            z: 5,
            lineStyle: { color: next, width: 4 },
            itemStyle: { color: next },
            data: [before * 100, after * 100],
          },
        ],
      };
    },
    [pairs, first, second],
  );
  const down = pairs.filter(({ before, after }) => after < before - 1e-9).length;
  return (
    <>
      <Chart
        option={option}
        height={320}
        label={`Lines of ${counted(pairs.length, 'student')} from ${first} to ${second}; ${down} go down. The mean goes from ${percent(mean(pairs.map(({ before }) => before)))} to ${percent(mean(pairs.map(({ after }) => after)))}.`}
      />
      <p style={{ margin: 0 }}>Thick: the mean. Dashed: students who went down.</p>
    </>
  );
}
