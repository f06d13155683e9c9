import { groupBy } from '../shared/group-by';

export interface Placed {
  readonly id: string;
  /** In the plot, each from 0 to 1. */
  readonly x: number;
  readonly y: number;
  /** What it could be named by, the most telling first: "clinic vans", "AG-18". */
  readonly names: readonly string[];
}

interface Cluster {
  readonly name: string;
  readonly x: number;
  readonly y: number;
  readonly ids: readonly string[];
}

const COLUMNS = 16;
const ROWS = 10;
/** So many together are worth a name. */
const LEAST = 5;
/** A name must hold for so many of them. */
const NAME_SHARE = 0.6;

/**
 * Crowds on the chart, each named by what most of its vehicles share; crowds that share nothing go unnamed. The plot is
 * parted into cells, and neighbouring cells that hold more than their share belong together.
 */
export function clusters(points: readonly Placed[]): readonly Cluster[] {
  const cells = groupBy(points, (p) => cellOf(p));
  const mean = points.length / Math.max(1, cells.size);
  const dense = new Set([...cells].filter(([, inside]) => inside.length > mean).map(([cell]) => cell));
  const found: Cluster[] = [];
  for (const start of dense) {
    const members = spread(start, dense).flatMap((cell) => cells.get(cell) ?? []);
    const name = members.length >= LEAST ? nameOf(members) : null;
    if (name === null) continue;
    found.push({
      name: `${members.length} ${name}`,
      x: meanOf(members, (p) => p.x),
      y: meanOf(members, (p) => p.y),
      ids: members.map((p) => p.id),
    });
  }
  return found.sort((a, b) => b.ids.length - a.ids.length);
}

const clamp = (value: number, most: number): number => Math.min(most, Math.max(0, Math.floor(value)));
const cellOf = ({ x, y }: Placed): number => clamp(y * ROWS, ROWS - 1) * COLUMNS + clamp(x * COLUMNS, COLUMNS - 1);

/** All dense cells that touch this one, directly or through others; takes them out of the set. */
function spread(start: number, dense: Set<number>): readonly number[] {
  dense.delete(start);
  const reached = [start];
  for (const cell of reached) {
    const [row, column] = [Math.floor(cell / COLUMNS), cell % COLUMNS];
    for (const r of [row - 1, row, row + 1])
      for (const c of [column - 1, column, column + 1]) {
        const next = r * COLUMNS + c;
        if (c < 0 || c >= COLUMNS || !dense.delete(next)) continue;
        reached.push(next);
      }
  }
  return reached;
}

function nameOf(members: readonly Placed[]): string | null {
  const kinds = members[0]?.names.length ?? 0;
  for (let kind = 0; kind < kinds; kind++) {
    for (const [name, those] of groupBy(members, (p) => p.names[kind] ?? ''))
      if (name !== '' && those.length >= NAME_SHARE * members.length) return name;
  }
  return null;
}

const meanOf = (members: readonly Placed[], figureOf: (p: Placed) => number): number =>
  members.reduce((sum, p) => sum + figureOf(p), 0) / members.length;
