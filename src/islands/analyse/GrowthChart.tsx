import { useCallback, useMemo } from 'react';
import { mean } from '@/core/analysis/mean';
import type { ResultLine } from '@/core/analysis/pairedResults';
import { Chart, percentAxis, type ChartInks } from '@/ui/Chart';
import { counted, percent } from '@/words/format';

interface GrowthChartProps {
  lines: readonly ResultLine[];
  /** Of the sittings, in their order. */
  titles: readonly string[];
}

/** Whether a student’s last result is below the first. */
function isDown({ shares }: ResultLine): boolean {
  const known = shares.filter((share) => share !== null);
  return (known.at(-1) ?? 0) < (known[0] ?? 0) - 1e-9;
}

/** A line for every student from sitting to sitting; those that go down are dashed; the mean is thick. */
export default function GrowthChart({ lines, titles }: GrowthChartProps) {
  const means = useMemo(
    () =>
      titles.map((_, at) => {
        const known = lines.flatMap(({ shares }) => shares[at] ?? []);
        return known.length === 0 ? null : mean(known);
      }),
    [lines, titles],
  );
  const option = useCallback(
    (inks: ChartInks) => {
      const { ink, soft, next, font, width } = inks;
      return {
        grid: { left: 48, right: 48, top: 14, bottom: 30 },
        xAxis: {
          type: 'category',
          data: titles,
          boundaryGap: false,
          axisLabel: {
            ...font,
            overflow: 'truncate',
            width: Math.max(60, (width - 100) / titles.length - 10),
            interval: 0,
            alignMinLabel: 'left',
            alignMaxLabel: 'right',
          },
          axisLine: { lineStyle: { color: soft } },
        },
        yAxis: percentAxis(inks, 20),
        series: [
          ...lines.map((line) => ({
            type: 'line',
            symbolSize: 5,
            silent: true,
            connectNulls: true,
            lineStyle: {
              color: ink,
              width: isDown(line) ? 1.2 : 1,
              type: isDown(line) ? 'dashed' : 'solid',
              opacity: isDown(line) ? 0.65 : 0.3,
            },
            itemStyle: { color: ink, opacity: 0.5 },
            data: line.shares.map((share) => (share === null ? null : share * 100)),
          })),
          {
            type: 'line',
            symbolSize: 9,
            silent: true,
            z: 5,
            lineStyle: { color: next, width: 4 },
            itemStyle: { color: next },
            data: means.map((each) => (each === null ? null : each * 100)),
          },
        ],
      };
    },
    [lines, titles, means],
  );
  const words = titles.map((title, at) => `${title}: ${percent(means[at] ?? 0)}`).join('; ');
  return (
    <>
      <Chart
        option={option}
        height={320}
        label={`Lines of ${counted(lines.length, 'student')}; ${lines.filter(isDown).length} end lower than they began. Means: ${words}.`}
      />
      <p style={{ margin: 0 }}>Thick: the mean. Dashed: students who ended lower than they began.</p>
    </>
  );
}
