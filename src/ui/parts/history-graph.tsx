'use client';

import type { SupersessionKind } from '@/core/catalogue/supersession';
import { paint } from '@/ui/theme/paint';

interface Props {
  /** Oldest first. */
  readonly parts: readonly {
    readonly key: string;
    readonly number: string;
    readonly id: string;
    readonly onHand: number | null;
  }[];
  readonly edges: readonly { readonly from: string; readonly to: string; readonly kind: SupersessionKind }[];
  readonly current: string;
}

const WIDTH = 150;
const GAP = 76;
const HEIGHT = 48;
const ROW = 66;

/** A number's history from left to right: a plain arrow is a new number, a barred one a new design. */
export function HistoryGraph({ parts, edges, current }: Props) {
  const columns = placed(parts, edges);
  const rows = Math.max(...[...columns.values()].map((at) => at.row)) + 1;
  const wide = Math.max(...[...columns.values()].map((at) => at.column)) + 1;
  const at = (key: string) => {
    const { column, row } = columns.get(key) ?? { column: 0, row: 0 };
    return { x: column * (WIDTH + GAP) + 4, y: row * ROW + 4 };
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: a drawing is no fieldset
    <svg
      viewBox={`0 0 ${wide * (WIDTH + GAP) - GAP + 8} ${rows * ROW}`}
      width="100%"
      className="code"
      style={{ maxWidth: wide * (WIDTH + GAP) }}
      role="group"
      aria-label="History of the number"
    >
      {edges.map(({ from, to, kind }) => {
        const [a, b] = [at(from), at(to)];
        const [x1, y1, x2, y2] = [a.x + WIDTH, a.y + HEIGHT / 2, b.x, b.y + HEIGHT / 2];
        const [mx, my] = [(x1 + x2) / 2, (y1 + y2) / 2];
        return (
          <g key={`${from}${to}`} fill="none" stroke={paint(kind === 'redesigned' ? 'ramp.5' : 'soft')} strokeWidth="2">
            <path d={`M${x1} ${y1} L${x2 - 3} ${y2} m-9 -6 l9 6 l-9 6`} />
            {kind === 'redesigned' && <path d={`M${mx - 4} ${my - 13} v26 M${mx + 4} ${my - 13} v26`} />}
          </g>
        );
      })}
      {parts.map((part) => {
        const { x, y } = at(part.key);
        return (
          <a key={part.key} href={`/parts/${part.id}`} aria-label={part.number}>
            <rect
              x={x}
              y={y}
              width={WIDTH}
              height={HEIGHT}
              rx={6}
              fill={paint(part.key === current ? 'tint' : 'sheet')}
              stroke={paint(part.key === current ? 'action' : 'isobar')}
              strokeWidth={part.key === current ? 2.5 : 1.5}
            />
            <text x={x + 12} y={y + 21} fill={paint('ink')} style={{ fontSize: '15px' }}>
              {part.number}
            </text>
            <text x={x + 12} y={y + 38} fill={paint('soft')} style={{ fontSize: '12px' }}>
              {part.onHand === null ? 'not counted' : `${part.onHand} on hand`}
            </text>
          </a>
        );
      })}
    </svg>
  );
}

/** Columns by how many steps lie behind a number, rows in the order they come. */
function placed(parts: Props['parts'], edges: Props['edges']): ReadonlyMap<string, { column: number; row: number }> {
  const places = new Map<string, { column: number; row: number }>();
  const taken = new Map<number, number>();
  for (const part of parts) {
    const before = edges.filter((edge) => edge.to === part.key).map((edge) => places.get(edge.from)?.column ?? 0);
    const column = before.length === 0 ? 0 : Math.max(...before) + 1;
    const row = taken.get(column) ?? 0;
    taken.set(column, row + 1);
    places.set(part.key, { column, row });
  }
  return places;
}
