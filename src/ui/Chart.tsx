import { BarChart, LineChart, ScatterChart } from 'echarts/charts';
import { AriaComponent, GridComponent, MarkLineComponent } from 'echarts/components';
import * as echarts from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useComputedColorScheme } from '@mantine/core';
import { useEffect, useLayoutEffect, useRef } from 'react';

echarts.use([
  BarChart,
  LineChart,
  ScatterChart,
  GridComponent,
  AriaComponent,
  MarkLineComponent,
  SVGRenderer,
]);

/** The inks of the page, for a chart. */
export interface ChartInks {
  ink: string;
  soft: string;
  rule: string;
  next: string;
  wait: string;
  ground: string;
  font: { color: string; fontFamily: string; fontSize: number };
  width: number;
}

/** An axis from 0 to 100 %, with its lines. */
export const percentAxis = ({ font, rule }: ChartInks, interval = 25) => ({
  type: 'value',
  min: 0,
  max: 100,
  interval,
  axisLabel: { ...font, formatter: '{value}%' },
  splitLine: { lineStyle: { color: rule } },
});

interface ChartProps {
  /** The same function as long as it draws the same. */
  option: (inks: ChartInks) => echarts.EChartsCoreOption;
  height: number;
  /** What it shows, in words. */
  label: string;
  /** Called with the place of a mark, within its series, that was clicked. */
  pick?: (index: number) => void;
}

/** A chart in the inks of the page: drawn as vectors, without movement, as wide as there is room. */
export function Chart({ option, height, label, pick }: ChartProps) {
  const place = useRef<HTMLDivElement>(null);
  const scheme = useComputedColorScheme('light');
  const picking = useRef(pick);
  useLayoutEffect(() => {
    picking.current = pick;
  });
  useEffect(() => {
    const element = place.current;
    if (!element) return;
    const chart = echarts.init(element, undefined, { renderer: 'svg' });
    chart.setOption({ animation: false, ...option(inksOf(element)) });
    chart.on('click', ({ dataIndex }) => picking.current?.(dataIndex));
    const resized = new ResizeObserver(() => chart.resize());
    resized.observe(element);
    return () => {
      resized.disconnect();
      chart.dispose();
    };
  }, [option, scheme]);
  return <div ref={place} style={{ height }} role="img" aria-label={label} />;
}

function inksOf(element: HTMLElement): ChartInks {
  const tokens = getComputedStyle(element);
  const token = (name: string) => tokens.getPropertyValue(name).trim();
  const soft = token('--ink-soft');
  return {
    ink: token('--ink'),
    soft,
    rule: token('--rule'),
    next: token('--next'),
    wait: token('--wait'),
    ground: token('--mantine-color-body'),
    font: { color: soft, fontFamily: tokens.fontFamily, fontSize: 13 },
    width: element.clientWidth,
  };
}
