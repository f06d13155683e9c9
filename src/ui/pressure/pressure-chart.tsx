'use client';

import { Box, chakra, Flex } from '@chakra-ui/react';
import { type KeyboardEvent, type PointerEvent, useEffect, useId, useMemo, useRef, useState } from 'react';
import { clusters } from '@/core/reliability/clusters';
import { type Frame, isobars } from '@/core/reliability/pressure';
import type { LifeModel } from '@/core/reliability/weibull';
import { useChartInk } from '../charts/chart-ink';
import { moneyText, percentText } from '../format/format';
import { type ChartVehicle, vehicleWords } from './chart-vehicle';
import { placeLabels } from './place-labels';
import { costAt, costTicks, lifeAt, lifeTicks, type Plot, wholeFrame, xOf, yOf, zoomed } from './scales';

interface Props {
  /** Highest pressure first. */
  readonly points: readonly ChartVehicle[];
  readonly model: LifeModel;
  readonly weeklyLife: number;
  readonly wearCostPerPercent: number;
  readonly currency: string;
  readonly selected: ReadonlySet<string>;
  /** `area`: chosen by dragging over them, not one by one. */
  readonly onSelect: (ids: ReadonlySet<string>, area?: boolean) => void;
  readonly active: string | null;
  readonly onActive: (id: string | null) => void;
}

/** So many are drawn with ring and tail; the rest are dots beneath. */
const DRAWN = 300;
const LABELLED = 14;
const HEIGHT = 440;
const EDGE = { left: 66, right: 30, top: 26, bottom: 44 };
/** Further than this from every ring, a pointer means none of them. */
const NEAR = 16;

/** The fleet as a weather chart: life used against the cost of a failure, with lines of equal service pressure. */
export function PressureChart({ points, selected, onSelect, active, onActive, currency, ...pressure }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const width = useWidth(holder);
  const whole = useMemo(() => wholeFrame(points), [points]);
  const [frame, setFrame] = useState<Frame>(whole);
  const plot: Plot = {
    frame,
    left: EDGE.left,
    top: EDGE.top,
    width: Math.max(100, width - EDGE.left - EDGE.right),
    height: HEIGHT - EDGE.top - EDGE.bottom,
  };
  const inView = useMemo(() => points.filter((p) => isInside(frame, onChart(frame, p))), [points, frame]);
  const lines = drawIsobars(plot, pressure, points.at(-1)?.pressure ?? 0, currency);
  const [brush, setBrush] = useState<Rect | null>(null);
  const zoomBy = (factor: number) => {
    const at = points.find((p) => p.id === active) ?? null;
    const middle = {
      life: (frame.life[0] + frame.life[1]) / 2,
      cost: Math.sqrt(frame.cost[0] * frame.cost[1]),
    };
    setFrame(zoomed(frame, factor, at && isInside(frame, at) ? { life: at.life, cost: at.cost } : middle));
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const step = { ArrowDown: 1, ArrowRight: 1, ArrowUp: -1, ArrowLeft: -1 }[event.key];
    if (step !== undefined) {
      const at = inView.findIndex((p) => p.id === active);
      onActive(inView[Math.max(0, Math.min(inView.length - 1, at + step))]?.id ?? null);
    } else if ((event.key === 'Enter' || event.key === ' ') && active) onSelect(toggled(selected, active));
    else if (event.key === 'Escape') onSelect(new Set());
    else if (event.key === '+' || event.key === '=') zoomBy(0.6);
    else if (event.key === '-') zoomBy(1 / 0.6);
    else if (event.key === '0') setFrame(whole);
    else return;
    event.preventDefault();
  };
  const nearest = (event: PointerEvent): ChartVehicle | null => nearestTo(plot, inView, placeOf(event));
  const onPointerDown = (event: PointerEvent<HTMLDivElement>) => {
    if (event.button !== 0) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    const at = placeOf(event);
    setBrush({ from: at, to: at });
  };
  const onPointerMove = (event: PointerEvent) => {
    if (brush) setBrush({ ...brush, to: placeOf(event) });
    else onActive(nearest(event)?.id ?? active);
  };
  const onPointerUp = (event: PointerEvent) => {
    if (!brush) return;
    setBrush(null);
    const kept = event.shiftKey ? selected : new Set<string>();
    if (isClick(brush)) {
      const hit = nearest(event);
      if (hit) onSelect(toggled(selected, hit.id));
      return;
    }
    onSelect(new Set([...kept, ...inView.filter((p) => isIn(brush, plot, p)).map((p) => p.id)]), true);
  };
  const left = points.filter((p) => p.life < frame.life[0]).length;
  return (
    <Box>
      <Box
        ref={holder}
        role="listbox"
        aria-label="Pressure chart: vehicles by service pressure. Arrow keys go from one to the next, Enter selects, plus and minus zoom, 0 shows the whole fleet."
        aria-multiselectable
        aria-activedescendant={active ? `chart-${active}` : undefined}
        tabIndex={0}
        position="relative"
        h={`${HEIGHT}px`}
        cursor="crosshair"
        css={{ touchAction: 'pan-y' }}
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
        onPointerMove={onPointerMove}
        onPointerUp={onPointerUp}
      >
        {width > 0 && (
          <>
            <Dots points={inView.slice(DRAWN)} plot={plot} width={width} />
            <chakra.svg
              width={`${width}px`}
              height={`${HEIGHT}px`}
              position="absolute"
              inset="0"
              role="none"
              css={{ userSelect: 'none', '& text': { fontFamily: 'body' } }}
            >
              <Axes plot={plot} currency={currency} />
              <Isobars plot={plot} lines={lines} />
              <Vehicles
                points={points}
                inView={inView}
                plot={plot}
                lines={lines}
                selected={selected}
                active={active}
                currency={currency}
              />
              {brush && !isClick(brush) && <BrushRect brush={brush} />}
            </chakra.svg>
          </>
        )}
      </Box>
      <Flex gap="2" wrap="wrap" align="center" fontSize="sm" color="soft" data-no-print>
        <Tool onPress={() => zoomBy(0.6)}>Zoom in</Tool>
        <Tool onPress={() => zoomBy(1 / 0.6)}>Zoom out</Tool>
        <Tool onPress={() => setFrame(whole)}>Whole fleet</Tool>
        <span>
          Drag to select. Open ring: not yet at its limit; filled: past it; dashed: history assumed; arrow: off the
          chart to the right.
          {left > 0 && ` ${left} left of the chart.`}
        </span>
      </Flex>
    </Box>
  );
}

function useWidth(ref: React.RefObject<HTMLDivElement | null>): number {
  const [width, setWidth] = useState(0);
  useEffect(() => {
    if (!ref.current) return;
    const observer = new ResizeObserver(([entry]) => setWidth(entry?.contentRect.width ?? 0));
    observer.observe(ref.current);
    return () => observer.disconnect();
  }, [ref]);
  return width;
}

interface Rect {
  readonly from: { readonly x: number; readonly y: number };
  readonly to: { readonly x: number; readonly y: number };
}

function placeOf(event: PointerEvent): { x: number; y: number } {
  const box = event.currentTarget.getBoundingClientRect();
  return { x: event.clientX - box.left, y: event.clientY - box.top };
}

const isClick = ({ from, to }: Rect): boolean => Math.abs(from.x - to.x) < 4 && Math.abs(from.y - to.y) < 4;

/** What lies beyond the right edge is kept at it, with a mark: the worst must not fall off the chart. */
const onChart = <T extends { life: number }>({ life }: Frame, p: T): T =>
  p.life > life[1] ? { ...p, life: life[1] } : p;

const isInside = ({ life, cost }: Frame, p: { life: number; cost: number }): boolean =>
  p.life >= life[0] && p.life <= life[1] && p.cost >= cost[0] && p.cost <= cost[1];

function isIn({ from, to }: Rect, plot: Plot, p: ChartVehicle): boolean {
  const lives = [lifeAt(plot, from.x), lifeAt(plot, to.x)];
  const costs = [costAt(plot, from.y), costAt(plot, to.y)];
  return isInside(
    { life: [Math.min(...lives), Math.max(...lives)], cost: [Math.min(...costs), Math.max(...costs)] },
    p,
  );
}

function nearestTo(plot: Plot, points: readonly ChartVehicle[], at: { x: number; y: number }): ChartVehicle | null {
  let best: ChartVehicle | null = null;
  let least = NEAR;
  for (const point of points) {
    const distance = Math.hypot(xOf(plot, onChart(plot.frame, point).life) - at.x, yOf(plot, point.cost) - at.y);
    if (distance < least) [best, least] = [point, distance];
  }
  return best;
}

function toggled(selected: ReadonlySet<string>, id: string): ReadonlySet<string> {
  const next = new Set(selected);
  if (!next.delete(id)) next.add(id);
  return next;
}

function BrushRect({ brush: { from, to } }: { brush: Rect }) {
  return (
    <chakra.rect
      x={Math.min(from.x, to.x)}
      y={Math.min(from.y, to.y)}
      width={Math.abs(from.x - to.x)}
      height={Math.abs(from.y - to.y)}
      fill="action"
      fillOpacity={0.12}
      stroke="action"
    />
  );
}

/** The many of low pressure: a canvas keeps them smooth. */
function Dots({ points, plot, width }: { points: readonly ChartVehicle[]; plot: Plot; width: number }) {
  const ref = useRef<HTMLCanvasElement>(null);
  const ink = useChartInk();
  useEffect(() => {
    const canvas = ref.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    const scale = window.devicePixelRatio || 1;
    [canvas.width, canvas.height] = [width * scale, HEIGHT * scale];
    context.scale(scale, scale);
    context.clearRect(0, 0, width, HEIGHT);
    context.globalAlpha = 0.55;
    for (const point of points) {
      context.fillStyle = ink.ramp[point.heat] ?? ink.soft;
      context.beginPath();
      context.arc(xOf(plot, point.life), yOf(plot, point.cost), 2.4, 0, 2 * Math.PI);
      context.fill();
    }
  });
  return (
    <chakra.canvas ref={ref} aria-hidden="true" position="absolute" inset="0" w={`${width}px`} h={`${HEIGHT}px`} />
  );
}

function Axes({ plot, currency }: { plot: Plot; currency: string }) {
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

type PressureFacts = Pick<Props, 'model' | 'weeklyLife' | 'wearCostPerPercent'>;

interface DrawnIsobar {
  readonly total: number;
  readonly heavy: boolean;
  readonly path: string;
  readonly label: { readonly x: number; readonly y: number; readonly text: string } | null;
}

/** Labels stand this far inside the plot. */
const INSET = 34;

/** Lines from the lowest pressure of the fleet up; below that they say nothing. */
function drawIsobars(plot: Plot, facts: PressureFacts, least: number, currency: string): readonly DrawnIsobar[] {
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

function Isobars({ plot, lines }: { plot: Plot; lines: readonly DrawnIsobar[] }) {
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

interface VehiclesProps {
  readonly points: readonly ChartVehicle[];
  readonly inView: readonly ChartVehicle[];
  readonly lines: readonly DrawnIsobar[];
  readonly plot: Plot;
  readonly selected: ReadonlySet<string>;
  readonly active: string | null;
  readonly currency: string;
}

function Vehicles({ points, inView, plot, lines, selected, active, currency }: VehiclesProps) {
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
    isobarLabels.map(({ x, y, text }) => ({
      left: x - 4 * text.length,
      right: x + 4 * text.length,
      top: y - 8,
      bottom: y + 8,
    })),
  );
  const units = new Set(wanted.map((p) => p.id));
  return (
    <chakra.g role="none">
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
      <chakra.g aria-hidden="true">
        {labels.map((label) => (
          <chakra.text
            key={label.id}
            x={label.at.x}
            y={label.at.y + 4}
            textAnchor="middle"
            fontSize="13px"
            fontWeight={units.has(label.id) ? '700' : '400'}
            fontStyle={units.has(label.id) ? undefined : 'italic'}
            fill={units.has(label.id) ? 'ink' : 'soft'}
            stroke="paper"
            strokeWidth={4}
            paintOrder="stroke"
          >
            {label.text}
          </chakra.text>
        ))}
      </chakra.g>
    </chakra.g>
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
  const colour = `ramp.${p.heat}`;
  return (
    <g id={`chart-${p.id}`} role="option" aria-selected={isSelected} aria-label={vehicleWords(p, currency)}>
      <chakra.path
        d={off ? `M${x + 9} ${y - 5}l6 5l-6 5` : `M${x} ${y}H${end}M${end} ${y - 3}v6`}
        stroke={colour}
        strokeWidth={off ? 2 : 1.5}
        fill="none"
      />
      {(isSelected || isActive) && (
        <chakra.circle
          cx={x}
          cy={y}
          r={isActive ? 12 : 10}
          fill="action"
          fillOpacity={isSelected ? 0.25 : 0.08}
          stroke="action"
          strokeWidth={isActive ? 2 : 1}
        />
      )}
      <chakra.circle
        cx={x}
        cy={y}
        r={p.heat >= 4 ? 6.5 : 5.5}
        fill={p.life >= 1 && p.certainty !== 'assumed' ? colour : 'paper'}
        stroke={colour}
        strokeWidth={2}
        strokeDasharray={p.certainty === 'assumed' ? '2.5 2' : undefined}
      />
    </g>
  );
}

function Tool({ onPress, children }: { onPress: () => void; children: string }) {
  return (
    <chakra.button
      type="button"
      onClick={onPress}
      px="2"
      py="1"
      border="1px solid"
      borderColor="line"
      rounded="sm"
      color="ink"
      minH="32px"
    >
      {children}
    </chakra.button>
  );
}
