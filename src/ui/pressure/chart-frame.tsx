import { chakra } from '@chakra-ui/react';
import { useId } from 'react';
import { isobars } from '@/core/reliability/pressure';
import type { LifeModel } from '@/core/reliability/weibull';
import { moneyText, percentText } from '@/text/format';
import { costTicks, lifeTicks, type Plot, xOf, yOf } from './scales';

export function Axes({ plot, currency }: { plot: Plot; currency: string }) {
  const bottom = plot.top + plot.height;
  const limit = xOf(plot, 1);
  const right = plot.left + plot.width;
  return (
    <chakra.g aria-hidden="true">
      {limit < right && limit > plot.left && (
        <chakra.rect
          x={limit}
          y={plot.top}
          width={right - limit}
          height={plot.height}
          fill="ramp.5"
          fillOpacity={0.05}
        />
      )}
      {lifeTicks(plot.frame.life, plot.width / 48).map((tick) => (
        <g key={tick}>
          <chakra.path d={`M${xOf(plot, tick)} ${plot.top}V${bottom}`} stroke="hair" />
          <chakra.text
            x={xOf(plot, tick)}
            y={bottom + 18}
            textAnchor="middle"
            fontSize="13px"
            fill={Math.abs(tick - 1) < 1e-6 ? 'ink' : 'soft'}
            fontWeight={Math.abs(tick - 1) < 1e-6 ? '700' : '400'}
          >
            {percentText(tick)}
          </chakra.text>
        </g>
      ))}
      {costTicks(plot.frame.cost).map((tick) => (
        <g key={tick}>
          <chakra.path d={`M${plot.left} ${yOf(plot, tick)}H${right}`} stroke="hair" />
          <chakra.text x={plot.left - 8} y={yOf(plot, tick) + 4} textAnchor="end" fontSize="13px" fill="soft">
            {moneyText(tick, currency)}
          </chakra.text>
        </g>
      ))}
      {limit < right && limit > plot.left && (
        <>
          <chakra.path d={`M${limit} ${plot.top - 8}V${bottom}`} stroke="ink" strokeWidth={1.5} />
          <chakra.text x={limit + 5} y={plot.top - 3} fontSize="13px" fill="ink">
            limit
          </chakra.text>
        </>
      )}
      <chakra.text x={4} y={plot.top - 10} fontSize="13px" fill="soft">
        cost of a failure on the road
      </chakra.text>
      <chakra.text x={right} y={bottom + 37} textAnchor="end" fontSize="13px" fill="soft">
        life used by the worst site; a tail is where four more weeks take it
      </chakra.text>
    </chakra.g>
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
        path: places.map(({ x, y }, i) => `${i ? 'L' : 'M'}${x.toFixed(1)} ${y.toFixed(1)}`).join(''),
        label: at ? { ...at, text: moneyText(total, currency) } : null,
      };
    });
}

export function Isobars({ plot, lines }: { plot: Plot; lines: readonly DrawnIsobar[] }) {
  const clipId = useId();
  return (
    <chakra.g aria-hidden="true">
      <clipPath id={clipId}>
        <rect x={plot.left} y={plot.top} width={plot.width} height={plot.height} />
      </clipPath>
      {lines.map(({ total, heavy, path, label }) => (
        <g key={total}>
          <chakra.path d={path} fill="none" stroke="isobar" strokeWidth={heavy ? 2 : 1} clipPath={`url(#${clipId})`} />
          {label && (
            <chakra.text
              x={label.x}
              y={label.y + 4}
              fontSize="12.5px"
              fontStyle="italic"
              fill="soft"
              textAnchor="middle"
              stroke="paper"
              strokeWidth={5}
              paintOrder="stroke"
            >
              {label.text}
            </chakra.text>
          )}
        </g>
      ))}
    </chakra.g>
  );
}
