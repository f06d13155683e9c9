'use client';

import { type KeyboardEvent, type PointerEvent, useEffect, useMemo, useRef, useState } from 'react';
import type { Frame } from '@/core/reliability/pressure';
import { paint } from '@/ui/theme/paint';
import { useChartInk } from '../charts/chart-ink';
import { Button } from '../primitives/button';
import { Axes, drawIsobars, Isobars, type PressureFacts } from './chart-frame';
import type { ChartVehicle } from './chart-vehicle';
import { DRAWN, Vehicles } from './chart-vehicles';
import { costAt, isInside, lifeAt, onChart, type Plot, wholeFrame, xOf, yOf, zoomed } from './scales';

interface Props extends PressureFacts {
  /** Highest pressure first. */
  readonly points: readonly ChartVehicle[];
  readonly currency: string;
  readonly selected: ReadonlySet<string>;
  /** `area`: chosen by dragging over them, not one by one. */
  readonly onSelect: (ids: ReadonlySet<string>, area?: boolean) => void;
  readonly active: string | null;
  readonly onActive: (id: string | null) => void;
}

const HEIGHT = 440;
const EDGE = { left: 66, right: 30, top: 26, bottom: 44 };
/** Further than this from every ring, a pointer means none of them. */
const NEAR = 16;

const plotOf = (frame: Frame, width: number): Plot => ({
  frame,
  left: EDGE.left,
  top: EDGE.top,
  width: Math.max(100, width - EDGE.left - EDGE.right),
  height: HEIGHT - EDGE.top - EDGE.bottom,
});

/** A frame drawn with the pointer selects what lies in it; a click selects what is nearest. */
function useBrush({
  plot,
  inView,
  selected,
  onSelect,
  active,
  onActive,
}: Pick<Props, 'selected' | 'onSelect' | 'active' | 'onActive'> & {
  plot: Plot;
  inView: readonly ChartVehicle[];
}) {
  const [brush, setBrush] = useState<Rect | null>(null);
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
  return { brush, onPointerDown, onPointerMove, onPointerUp };
}

/** The fleet as a weather chart: life used against the cost of a failure, with lines of equal service pressure. */
export function PressureChart({ points, selected, onSelect, active, onActive, currency, ...pressure }: Props) {
  const holder = useRef<HTMLDivElement>(null);
  const width = useWidth(holder);
  const whole = useMemo(() => wholeFrame(points), [points]);
  const [frame, setFrame] = useState<Frame>(whole);
  const plot = plotOf(frame, width);
  const inView = useMemo(() => points.filter((p) => isInside(frame, onChart(frame, p))), [points, frame]);
  const least = points.at(-1)?.pressure ?? 0;
  const { model, weeklyLife, wearCostPerPercent } = pressure;
  // Not before the chart has a width: the server draws none.
  const lines = useMemo(
    () =>
      width > 0 ? drawIsobars(plotOf(frame, width), { model, weeklyLife, wearCostPerPercent }, least, currency) : [],
    [frame, width, model, weeklyLife, wearCostPerPercent, least, currency],
  );
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
  const { brush, ...onPointer } = useBrush({ plot, inView, selected, onSelect, active, onActive });
  const left = points.filter((p) => p.life < frame.life[0]).length;
  return (
    <div>
      <div
        ref={holder}
        role="listbox"
        aria-label="Pressure chart: vehicles by service pressure. Arrow keys go from one to the next, Enter selects, plus and minus zoom, 0 shows the whole fleet."
        aria-multiselectable
        aria-activedescendant={active ? `chart-${active}` : undefined}
        tabIndex={0}
        className="chart"
        style={{ height: HEIGHT }}
        onKeyDown={onKeyDown}
        {...onPointer}
      >
        {width > 0 && (
          <>
            <Dots points={inView.slice(DRAWN)} plot={plot} width={width} />
            <svg width={width} height={HEIGHT} className="chart-layer" role="none">
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
            </svg>
          </>
        )}
      </div>
      <div className="chart-tools" data-no-print>
        <Tool onPress={() => zoomBy(0.6)}>Zoom in</Tool>
        <Tool onPress={() => zoomBy(1 / 0.6)}>Zoom out</Tool>
        <Tool onPress={() => setFrame(whole)}>Whole fleet</Tool>
        <span>
          Drag to select. Open ring: not yet at its limit; filled: past it; dashed: history assumed; arrow: off the
          chart to the right.
          {left > 0 && ` ${left} left of the chart.`}
        </span>
      </div>
    </div>
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
    <rect
      x={Math.min(from.x, to.x)}
      y={Math.min(from.y, to.y)}
      width={Math.abs(from.x - to.x)}
      height={Math.abs(from.y - to.y)}
      fill={paint('action')}
      fillOpacity={0.12}
      stroke={paint('action')}
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
  return <canvas ref={ref} className="chart-layer" style={{ width, height: HEIGHT }} />;
}

function Tool({ onPress, children }: { onPress: () => void; children: string }) {
  return <Button onClick={onPress}>{children}</Button>;
}
