'use client';

import dynamic from 'next/dynamic';
import { useMemo } from 'react';
import type { HorizonWeek } from '@/core/due/horizon';
import { dateText, hoursText } from '@/text/format';
import type { ChartOption } from '../charts/chart';
import { useChartInk } from '../charts/chart-ink';

const HEIGHT = 250;
const Chart = dynamic(() => import('../charts/chart').then((m) => m.Chart), {
  ssr: false,
  loading: () => <div style={{ height: HEIGHT }} />,
});

/** Bay hours falling due by week: bar for what is expected, whisker from P10 to P90, a line for what the bays can take. */
export function HorizonChart({ weeks, bayMinutes }: { weeks: readonly HorizonWeek[]; bayMinutes: number }) {
  const ink = useChartInk();
  const option = useMemo((): ChartOption => {
    const hours = (minutes: number): number => minutes / 60;
    return {
      grid: { left: 52, right: 12, top: 28, bottom: 28 },
      tooltip: {
        trigger: 'axis',
        formatter: (points) => {
          const at = Array.isArray(points) ? points[0]?.dataIndex : points.dataIndex;
          const week = weeks[at ?? 0];
          if (!week) return '';
          return `Week of ${dateText(week.from)}<br>about ${hoursText(week.mean)}, likely ${hoursText(week.p10)} to ${hoursText(week.p90)}<br>${week.visits.toFixed(1)} visits`;
        },
      },
      xAxis: {
        type: 'category',
        data: weeks.map((week) => dateText(week.from).slice(0, -5)),
        axisLabel: { color: ink.soft, fontSize: 13 },
        axisLine: { lineStyle: { color: ink.hair } },
        axisTick: { show: false },
      },
      yAxis: {
        type: 'value',
        name: 'bay hours',
        nameTextStyle: { color: ink.soft, fontSize: 13, align: 'left', padding: [0, 0, 0, -40] },
        axisLabel: { color: ink.soft, fontSize: 13 },
        splitLine: { lineStyle: { color: ink.hair } },
      },
      series: [
        {
          type: 'bar',
          barWidth: '56%',
          data: weeks.map((week) => ({
            value: hours(week.mean),
            itemStyle: { color: week.mean > bayMinutes ? ink.ramp[3] : ink.ramp[1] },
          })),
          markLine: {
            silent: true,
            symbol: 'none',
            lineStyle: { color: ink.ink, type: 'solid', width: 1.5 },
            label: { formatter: 'bays', position: 'insideEndTop', color: ink.ink, fontSize: 13 },
            data: [{ yAxis: hours(bayMinutes) }],
          },
        },
        {
          type: 'custom',
          silent: true,
          data: weeks.map((week, i) => [i, hours(week.p10), hours(week.p90)]),
          encode: { x: 0, y: [1, 2] },
          renderItem: (_, api) => {
            const [x = 0, low = 0] = api.coord([api.value(0), api.value(1)]);
            const [, high = 0] = api.coord([api.value(0), api.value(2)]);
            return {
              type: 'path',
              shape: { d: `M${x} ${low}V${high}M${x - 4} ${low}h8M${x - 4} ${high}h8` },
              style: { stroke: ink.ink, lineWidth: 1.2, fill: undefined },
            };
          },
        },
      ],
    };
  }, [weeks, bayMinutes, ink]);
  return <Chart option={option} height={HEIGHT} label="Bay hours falling due by week, with their uncertainty" />;
}
