'use client';

import { Box } from '@chakra-ui/react';
import dynamic from 'next/dynamic';
import { useMemo } from 'react';
import type { PlainDate } from '@/core/calendar/plain-date';
import type { DueDates } from '@/core/due/due';
import type { Km } from '@/core/shared/kinds';
import { fromSi, type UnitName } from '@/core/units/unit';
import { dateText } from '@/text/format';
import { useChartInk } from '../charts/chart-ink';

const HEIGHT = 260;
const Chart = dynamic(() => import('../charts/chart').then((m) => m.Chart), {
  ssr: false,
  loading: () => <Box h={`${HEIGHT}px`} />,
});

interface OdometerChartProps {
  readonly accepted: readonly (readonly [PlainDate, number])[];
  readonly suspect: readonly (readonly [PlainDate, number])[];
  /** Where the last reading leads, to the limit: day and km. */
  readonly from: readonly [PlainDate, number] | null;
  readonly limitKm: Km | null;
  readonly due: DueDates | null;
  readonly unit: Extract<UnitName, 'km' | 'mi'>;
}

/** Readings, what the use rate makes of them, and the limit they run towards with its band. */
export function OdometerChart({ accepted, suspect, from, limitKm, due, unit }: OdometerChartProps) {
  const ink = useChartInk();
  const option = useMemo(() => {
    const shown = (points: readonly (readonly [PlainDate, number])[]) =>
      points.map(([on, km]) => [on, Math.round(fromSi(km, unit))]);
    const towards = (date: PlainDate) => (from && limitKm !== null ? shown([from, [date, limitKm]]) : []);
    const dashed = (date: PlainDate, width: number) => ({
      type: 'line' as const,
      data: towards(date),
      symbol: 'none',
      silent: true,
      lineStyle: { color: ink.ramp[2], type: 'dashed' as const, width, opacity: width === 1 ? 0.6 : 1 },
    });
    const limit =
      limitKm === null
        ? undefined
        : {
            silent: true,
            symbol: 'none',
            label: { formatter: 'limit', position: 'insideEndTop' as const, color: ink.ramp[5] },
            lineStyle: { color: ink.ramp[5], type: 'solid' as const },
            data: [{ yAxis: Math.round(fromSi(limitKm, unit)) }],
          };
    return {
      grid: { left: 64, right: 24, top: 24, bottom: 28 },
      tooltip: {
        trigger: 'item' as const,
        formatter: (point: unknown) => pointText(point, unit),
      },
      xAxis: {
        type: 'time' as const,
        axisLabel: { color: ink.soft, hideOverlap: true },
        axisLine: { lineStyle: { color: ink.soft } },
        splitLine: { show: false },
      },
      yAxis: {
        type: 'value' as const,
        name: unit,
        scale: true,
        nameTextStyle: { color: ink.soft },
        axisLabel: { color: ink.soft },
        splitLine: { lineStyle: { color: ink.hair } },
      },
      series: [
        {
          type: 'line' as const,
          data: shown(accepted),
          symbolSize: 5,
          itemStyle: { color: ink.ramp[2] },
          lineStyle: { color: ink.ramp[2], width: 1.5 },
          markLine: limit,
        },
        {
          type: 'scatter' as const,
          data: shown(suspect),
          symbol: 'diamond',
          symbolSize: 11,
          itemStyle: { color: 'transparent', borderColor: ink.ramp[5], borderWidth: 2 },
        },
        ...(due ? [dashed(due.p50, 2), dashed(due.p10, 1), dashed(due.p90, 1)] : []),
      ],
    };
  }, [accepted, suspect, from, limitKm, due, unit, ink]);
  const label = `Odometer history: ${accepted.length} accepted and ${suspect.length} suspect readings${due ? `, projected to the limit on ${dateText(due.p50)}` : ''}.`;
  return <Chart option={option} label={label} height={HEIGHT} />;
}

function pointText(point: unknown, unit: string): string {
  const value = typeof point === 'object' && point !== null && 'value' in point ? point.value : null;
  const [on, figure] = Array.isArray(value) ? value : ['', 0];
  return `${dateText(String(on).slice(0, 10))}: ${Number(figure).toLocaleString('en')} ${unit}`;
}
