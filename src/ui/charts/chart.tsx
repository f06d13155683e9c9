'use client';

import {
  BarChart,
  type BarSeriesOption,
  CustomChart,
  type CustomSeriesOption,
  LineChart,
  type LineSeriesOption,
  ScatterChart,
  type ScatterSeriesOption,
} from 'echarts/charts';
import {
  AriaComponent,
  GridComponent,
  type GridComponentOption,
  MarkLineComponent,
  TooltipComponent,
  type TooltipComponentOption,
} from 'echarts/components';
import { type ComposeOption, init, use as register } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { useEffect, useRef } from 'react';

register([
  LineChart,
  ScatterChart,
  BarChart,
  CustomChart,
  GridComponent,
  TooltipComponent,
  MarkLineComponent,
  AriaComponent,
  SVGRenderer,
]);

export type ChartOption = ComposeOption<
  | BarSeriesOption
  | CustomSeriesOption
  | LineSeriesOption
  | ScatterSeriesOption
  | GridComponentOption
  | TooltipComponentOption
>;

export function Chart({ option, label, height }: { option: ChartOption; label: string; height: number }) {
  const ref = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!ref.current) return;
    const chart = init(ref.current, null, { renderer: 'svg' });
    chart.setOption({
      aria: { enabled: true, label: { description: label } },
      animation: false,
      textStyle: { fontFamily: 'Atkinson Hyperlegible Next Variable, system-ui, sans-serif' },
      ...option,
    });
    const observer = new ResizeObserver(() => chart.resize());
    observer.observe(ref.current);
    return () => {
      observer.disconnect();
      chart.dispose();
    };
  }, [option, label]);
  return <div ref={ref} role="img" aria-label={label} style={{ width: '100%', height }} />;
}
