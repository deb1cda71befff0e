import { BarChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useRef } from 'react';
import type { SpreadBar } from '@/core/analysis/spread';
import { percent } from '@/words/format';

echarts.use([BarChart, GridComponent, AriaComponent, MarkLineComponent, SVGRenderer]);

interface SpreadChartProps {
  bars: SpreadBar[];
  /** Where the mean lies, as a share of the maximum. */
  meanShare: number;
}

/** The picture of the spread: how many results in each tenth, the number on each bar, and where the mean is. */
export default function SpreadChart({ bars, meanShare }: SpreadChartProps) {
  const place = useRef<HTMLDivElement>(null);
  const scheme = useComputedColorScheme('light');
  useEffect(() => {
    const element = place.current;
    if (!element) return;
    const chart = echarts.init(element, undefined, { renderer: 'svg' });
    chart.setOption(chartOption(element, bars, meanShare));
    const resized = new ResizeObserver(() => chart.resize());
    resized.observe(element);
    return () => {
      resized.disconnect();
      chart.dispose();
    };
  }, [bars, meanShare, scheme]);
  const words = bars.map((bar) => `${percent(bar.from)} to ${percent(bar.to)}: ${bar.count}`).join('; ');
  return (
    <div
      ref={place}
      style={{ height: 190 }}
      role="img"
      aria-label={`Spread of the results. ${words}. Mean ${percent(meanShare)}.`}
    />
  );
}

function chartOption(element: HTMLElement, bars: SpreadBar[], meanShare: number): echarts.EChartsCoreOption {
  const tokens = getComputedStyle(element);
  const ink = tokens.getPropertyValue('--ink').trim();
  const soft = tokens.getPropertyValue('--ink-soft').trim();
  const ground = tokens.getPropertyValue('--mantine-color-body').trim();
  const font = { color: soft, fontFamily: tokens.fontFamily, fontSize: 13 };
  const middle = (bar: SpreadBar) => ((bar.from + bar.to) / 2) * 100;
  return {
    animation: false,
    grid: { left: 8, right: 14, top: 26, bottom: 24 },
    xAxis: {
      type: 'value',
      min: 0,
      max: 100,
      interval: 10,
      containShape: false,
      axisLabel: { ...font, formatter: '{value}%', showMaxLabel: true },
      splitLine: { show: false },
      axisLine: { lineStyle: { color: soft } },
    },
    // Room above the tallest bar: its number and the word at the line of the mean are never in one place.
    yAxis: { type: 'value', show: false, max: Math.max(1, ...bars.map(({ count }) => count)) * 1.25 },
    series: [
      {
        type: 'bar',
        barWidth: Math.max(6, ((element.clientWidth - 22) / bars.length) * 0.9),
        itemStyle: { color: ink, opacity: 0.75 },
        label: {
          show: true,
          position: 'top',
          ...font,
          // The line of the mean goes behind the numbers.
          opacity: 1,
          backgroundColor: ground,
          padding: [0, 2],
          formatter: ({ value }: { value: number[] }) => (value[1] ? String(value[1]) : ''),
        },
        data: bars.map((bar) => [middle(bar), bar.count]),
        markLine: {
          z: 1,
          symbol: 'none',
          silent: true,
          lineStyle: { color: ink, type: 'dashed', width: 1.5 },
          label: { ...font, color: ink, formatter: `mean ${percent(meanShare)}`, position: 'end' },
          data: [{ xAxis: meanShare * 100 }],
        },
      },
    ],
  };
}
