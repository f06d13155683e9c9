import { useMemo } from 'react';
import { clusters } from '@/core/reliability/clusters';
import { paint } from '@/ui/theme/paint';
import type { DrawnIsobar } from './chart-frame';
import { type ChartVehicle, vehicleWords } from './chart-vehicle';
import { placeLabels } from './place-labels';
import { onChart, type Plot, xOf, yOf } from './scales';

interface VehiclesProps {
  readonly points: readonly ChartVehicle[];
  readonly inView: readonly ChartVehicle[];
  readonly lines: readonly DrawnIsobar[];
  readonly plot: Plot;
  readonly selected: ReadonlySet<string>;
  readonly active: string | null;
  readonly currency: string;
}

/** So many are drawn with ring and tail; the rest are dots beneath. */
export const DRAWN = 300;
const LABELLED = 14;

export function Vehicles({ points, inView, plot, lines, selected, active, currency }: VehiclesProps) {
  const { frame } = plot;
  const isobarLabels = lines.flatMap((line) => line.label ?? []);
  const special = inView.slice(DRAWN).filter((p) => p.id === active || selected.has(p.id));
  const shown = [...inView.slice(0, DRAWN), ...special];
  // Drawn from the lowest pressure up, so that what matters lies on top.
  const order = [...shown].reverse();
  const crowds = useMemo(() => crowdsOf(points, plot), [points, plot]);
  const area = { left: plot.left, right: plot.left + plot.width, top: plot.top, bottom: plot.top + plot.height };
  const wanted = shown
    .filter((p) => p.id === active || selected.has(p.id))
    .concat(shown.slice(0, LABELLED))
    .filter((p, i, all) => all.indexOf(p) === i)
    .slice(0, 3 * LABELLED);
  const labels = placeLabels(
    [
      ...wanted.map((p) => ({ id: p.id, text: p.unit, x: xOf(plot, onChart(frame, p).life), y: yOf(plot, p.cost) })),
      ...crowds.map((c) => ({ id: c.name, text: c.name, x: c.x, y: c.y })),
    ],
    area,
    {
      taken: isobarLabels.map(({ x, y, text }) => ({
        left: x - 5 * text.length,
        right: x + 5 * text.length,
        top: y - 9,
        bottom: y + 9,
      })),
      rings: shown.map((p) => ({ x: xOf(plot, onChart(frame, p).life), y: yOf(plot, p.cost) })),
      lines: lines.flatMap(({ places }) => places),
    },
  );
  const units = new Set(wanted.map((p) => p.id));
  return (
    <g>
      {order.map((p) => (
        <Vehicle
          key={p.id}
          point={p}
          plot={plot}
          isSelected={selected.has(p.id)}
          isActive={p.id === active}
          currency={currency}
        />
      ))}
      {/* biome-ignore lint/a11y/noAriaHiddenOnFocusable: nothing in it can be focused */}
      <g aria-hidden="true">
        {labels.map((label) => (
          <text
            key={label.id}
            x={label.at.x}
            y={label.at.y + 4}
            textAnchor="middle"
            fill={paint(units.has(label.id) ? 'ink' : 'soft')}
            stroke={paint('paper')}
            strokeWidth={4}
            paintOrder="stroke"
            style={{
              fontSize: '13px',
              fontWeight: units.has(label.id) ? '700' : '400',
              fontStyle: units.has(label.id) ? undefined : 'italic',
            }}
          >
            {label.text}
          </text>
        ))}
      </g>
    </g>
  );
}

function crowdsOf(points: readonly ChartVehicle[], plot: Plot) {
  const placed = points.map((p) => ({
    id: p.id,
    x: (xOf(plot, p.life) - plot.left) / plot.width,
    y: (yOf(plot, p.cost) - plot.top) / plot.height,
    names: [p.group, p.engine],
  }));
  const seen = placed.filter((p) => p.x >= 0 && p.x <= 1 && p.y >= 0 && p.y <= 1);
  return clusters(seen)
    .slice(0, 4)
    .map((c) => ({ name: c.name, x: plot.left + c.x * plot.width, y: plot.top + c.y * plot.height }));
}

function Vehicle({
  point: p,
  plot,
  isSelected,
  isActive,
  currency,
}: {
  point: ChartVehicle;
  plot: Plot;
  isSelected: boolean;
  isActive: boolean;
  currency: string;
}) {
  const off = p.life > plot.frame.life[1];
  const [x, y] = [xOf(plot, onChart(plot.frame, p).life), yOf(plot, p.cost)];
  const end = Math.min(xOf(plot, p.lifeIn28), plot.left + plot.width);
  const colour = paint(`ramp.${p.heat}`);
  return (
    <g id={`chart-${p.id}`} role="option" aria-selected={isSelected} aria-label={vehicleWords(p, currency)}>
      <path
        d={off ? `M${x + 9} ${y - 5}l6 5l-6 5` : `M${x} ${y}H${end}M${end} ${y - 3}v6`}
        stroke={colour}
        strokeWidth={off ? 2 : 1.5}
        fill="none"
      />
      {(isSelected || isActive) && (
        <circle
          cx={x}
          cy={y}
          r={isActive ? 12 : 10}
          fill={paint('action')}
          fillOpacity={isSelected ? 0.25 : 0.08}
          stroke={paint('action')}
          strokeWidth={isActive ? 2 : 1}
        />
      )}
      <circle
        cx={x}
        cy={y}
        r={p.heat >= 4 ? 6.5 : 5.5}
        fill={p.life >= 1 && p.certainty !== 'assumed' ? colour : paint('paper')}
        stroke={colour}
        strokeWidth={2}
        strokeDasharray={p.certainty === 'assumed' ? '2.5 2' : undefined}
      />
    </g>
  );
}
