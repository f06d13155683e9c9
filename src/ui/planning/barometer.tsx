import type { PlainDate } from '@/core/calendar/plain-date';
import { countText, moneyText } from '@/text/format';

interface Props {
  /** Money a week that still waits before the first day and after each. */
  readonly left: readonly number[];
  /** The same without the move or plan in hand; null: there is none. */
  readonly before: readonly number[] | null;
  readonly days: readonly PlainDate[];
  readonly currency: string;
}

const HEIGHT = 64;
const TOP = 18;

/** Service pressure that still waits after each day: what a plan is for. Every move bends it. */
export function Barometer({ left, before, days, currency }: Props) {
  const most = Math.max(1, ...left, ...(before ?? []));
  const y = (value: number): number => TOP + (1 - value / most) * (HEIGHT - TOP - 6);
  const x = (i: number): string => `${(i / days.length) * 100}%`;
  const line = (values: readonly number[], className: string) =>
    values.slice(1).map((value, i) => (
      <line
        // biome-ignore lint/suspicious/noArrayIndexKey: a point is its place
        key={i}
        className={className}
        x1={x(i)}
        y1={y(values[i] ?? 0)}
        x2={x(i + 1)}
        y2={y(value)}
      />
    ));
  return (
    <figure className="barometer">
      <figcaption>
        Service pressure still waiting, a week: {moneyText(left[0] ?? 0, currency)} before,{' '}
        {moneyText(left.at(-1) ?? 0, currency)} after
        {before && <span> · dashed: as it stands now</span>}
      </figcaption>
      <svg
        width="100%"
        height={HEIGHT}
        role="img"
        aria-label={left.map((value) => countText(Math.round(value))).join(', ')}
      >
        {before && line(before, 'before')}
        {line(left, 'now')}
        {left.map((value, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a point is its place
          <g key={i}>
            <circle cx={x(i)} cy={y(value)} r="3.5" />
            <text x={x(i)} y={y(value) - 7} dx={i === 0 ? 2 : -2} textAnchor={i === 0 ? 'start' : 'end'}>
              {countText(Math.round(value))}
            </text>
          </g>
        ))}
      </svg>
    </figure>
  );
}
