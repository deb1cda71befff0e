import { LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useRef } from 'react';

echarts.use([LineChart, ScatterChart, GridComponent, AriaComponent, SVGRenderer]);

interface DriftChartProps {
  /** In the order of marking: the share of the points given, and the running mean, 0 to 1. */
  turns: readonly { share: number; running: number }[];
  /** What it shows, in words. */
  label: string;
}

/** Points against the order in which they were given, with their running mean. */
export default function DriftChart({ turns, label }: DriftChartProps) {
  const place = useRef<HTMLDivElement>(null);
  const scheme = useComputedColorScheme('light');
  useEffect(() => {
    const element = place.current;
    if (!element) return;
    const tokens = getComputedStyle(element);
    const token = (name: string) => tokens.getPropertyValue(name).trim();
    const font = { color: token('--ink-soft'), fontFamily: tokens.fontFamily, fontSize: 13 };
    const chart = echarts.init(element, undefined, { renderer: 'svg' });
    chart.setOption({
      animation: false,
      grid: { left: 44, right: 14, top: 12, bottom: 28 },
      xAxis: {
        type: 'value',
        min: 1,
        max: Math.max(2, turns.length),
        minInterval: 1,
        axisLabel: font,
        splitLine: { show: false },
        axisLine: { lineStyle: { color: token('--ink-soft') } },
      },
      yAxis: {
        type: 'value',
        min: 0,
        max: 100,
        interval: 25,
        axisLabel: { ...font, formatter: '{value}%' },
        splitLine: { lineStyle: { color: token('--rule') } },
      },
      series: [
        {
          type: 'scatter',
          symbolSize: 7,
          itemStyle: { color: token('--ink'), opacity: 0.45 },
          data: turns.map(({ share }, index) => [index + 1, share * 100]),
        },
        {
          type: 'line',
          showSymbol: false,
          lineStyle: { color: token('--next'), width: 2.5 },
          data: turns.map((turn, index) => [index + 1, turn.running * 100]),
        },
      ],
    });
    const resized = new ResizeObserver(() => chart.resize());
    resized.observe(element);
    return () => {
      resized.disconnect();
      chart.dispose();
    };
  }, [turns, scheme]);
  return <div ref={place} style={{ height: 240 }} role="img" aria-label={label} />;
}
