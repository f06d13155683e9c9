import { useId } from 'react';
import { isobars } from '@/core/reliability/pressure';
import type { LifeModel } from '@/core/reliability/weibull';
import { moneyText, percentText } from '@/text/format';
import { paint } from '@/ui/theme/paint';
import { costTicks, lifeTicks, type Plot, xOf, yOf } from './scales';

export function Axes({ plot, currency }: { plot: Plot; currency: string }) {
  const bottom = plot.top + plot.height;
  const limit = xOf(plot, 1);
  const right = plot.left + plot.width;
  return (
    // biome-ignore lint/a11y/noAriaHiddenOnFocusable: nothing in it can be focused
    <g aria-hidden="true">
      {limit < right && limit > plot.left && (
        <rect
          x={limit}
          y={plot.top}
          width={right - limit}
          height={plot.height}
          fill={paint('ramp.5')}
          fillOpacity={0.05}
        />
      )}
      {lifeTicks(plot.frame.life, plot.width / 48).map((tick) => (
        <g key={tick}>
          <path d={`M${xOf(plot, tick)} ${plot.top}V${bottom}`} stroke={paint('hair')} />
          <text
            x={xOf(plot, tick)}
            y={bottom + 18}
            textAnchor="middle"
            fill={paint(Math.abs(tick - 1) < 1e-6 ? 'ink' : 'soft')}
            style={{ fontSize: '13px', fontWeight: Math.abs(tick - 1) < 1e-6 ? '700' : '400' }}
          >
            {percentText(tick)}
          </text>
        </g>
      ))}
      {costTicks(plot.frame.cost).map((tick) => (
        <g key={tick}>
          <path d={`M${plot.left} ${yOf(plot, tick)}H${right}`} stroke={paint('hair')} />
          <text
            x={plot.left - 8}
            y={yOf(plot, tick) + 4}
            textAnchor="end"
            fill={paint('soft')}
            style={{ fontSize: '13px' }}
          >
            {moneyText(tick, currency)}
          </text>
        </g>
      ))}
      {limit < right && limit > plot.left && (
        <>
          <path d={`M${limit} ${plot.top - 8}V${bottom}`} stroke={paint('ink')} strokeWidth={1.5} />
          <text x={limit + 5} y={plot.top - 3} fill={paint('ink')} style={{ fontSize: '13px' }}>
            limit
          </text>
        </>
      )}
      <text x={4} y={plot.top - 10} fill={paint('soft')} style={{ fontSize: '13px' }}>
        cost of a failure on the road
      </text>
      <text x={right} y={bottom + 37} textAnchor="end" fill={paint('soft')} style={{ fontSize: '13px' }}>
        {plot.width > 460
          ? 'life used by the worst cylinder; a tail is where four more weeks take it'
          : 'life used; tail: in four weeks'}
      </text>
    </g>
  );
}

/** What the lines of equal pressure are drawn from. */
export interface PressureFacts {
  readonly model: LifeModel;
  readonly weeklyLife: number;
  readonly wearCostPerPercent: number;
}

export interface DrawnIsobar {
  readonly total: number;
  readonly heavy: boolean;
  readonly path: string;
  /** Where it runs, every few units. */
  readonly places: readonly { readonly x: number; readonly y: number }[];
  readonly label: { readonly x: number; readonly y: number; readonly text: string } | null;
}

/** Labels stand this far inside the plot. */
const INSET = 34;

/** Lines from the lowest pressure of the fleet up; below that they say nothing. */
export function drawIsobars(plot: Plot, facts: PressureFacts, least: number, currency: string): readonly DrawnIsobar[] {
  return isobars(plot.frame, facts)
    .filter((line) => line.total >= least / 2)
    .map(({ total, heavy, points }) => {
      const places = points.map((p) => ({ x: xOf(plot, p.lifeUsed), y: yOf(plot, p.cost) }));
      const inside = places.filter(
        ({ x, y }) =>
          x > plot.left + INSET &&
          x < plot.left + plot.width - INSET &&
          y > plot.top + 10 &&
          y < plot.top + plot.height - 10,
      );
      const at = inside.length > 8 ? inside[Math.floor(inside.length * 0.35)] : undefined;
      return {
        total,
        heavy,
        places,
        path: places.map(({ x, y }, i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join(''),
        label: at ? { ...at, text: moneyText(total, currency) } : null,
      };
    });
}

export function Isobars({ plot, lines }: { plot: Plot; lines: readonly DrawnIsobar[] }) {
  const clipId = useId();
  return (
    // biome-ignore lint/a11y/noAriaHiddenOnFocusable: nothing in it can be focused
    <g aria-hidden="true">
      <clipPath id={clipId}>
        <rect x={plot.left} y={plot.top} width={plot.width} height={plot.height} />
      </clipPath>
      {lines.map(({ total, heavy, path, label }) => (
        <g key={total}>
          <path
            d={path}
            fill="none"
            stroke={paint('isobar')}
            strokeWidth={heavy ? 2 : 1}
            clipPath={`url(#${clipId})`}
          />
          {label && (
            <text
              x={label.x}
              y={label.y + 4}
              fill={paint('soft')}
              textAnchor="middle"
              stroke={paint('paper')}
              strokeWidth={5}
              paintOrder="stroke"
              style={{ fontSize: '12.5px', fontStyle: 'italic' }}
            >
              {label.text}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}
