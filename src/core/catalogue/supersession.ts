/** Renumbered: the same part under another number, boxes may be mixed. Redesigned: never mixed within one engine. */
export const SUPERSESSION_KINDS = ['renumbered', 'redesigned'] as const;
export type SupersessionKind = (typeof SUPERSESSION_KINDS)[number];

export interface Supersession {
  readonly from: string;
  readonly to: string;
  readonly kind: SupersessionKind;
  /** Its own removal or torque note. */
  readonly note: string | null;
}

type CurrentPart =
  | { readonly kind: 'current'; readonly part: string; readonly path: readonly Supersession[] }
  /** Two successors are open: a person must say which. */
  | { readonly kind: 'needs-answer'; readonly at: string; readonly successors: readonly string[] };

/** History of part numbers: which replaced which. Parts are named by any unique key. */
export class SupersessionGraph {
  private readonly after = new Map<string, Supersession[]>();
  private readonly before = new Map<string, Supersession[]>();

  /** @throws RangeError for a cycle: check a new edge with `refusalOf` before it is stored */
  constructor(readonly edges: readonly Supersession[]) {
    for (const edge of edges) {
      const refusal = this.refusalOf(edge);
      if (refusal) throw new RangeError(`SupersessionGraph: ${refusal}`);
      push(this.after, edge.from, edge);
      push(this.before, edge.to, edge);
    }
  }

  /** Why an edge cannot be added; null when it can. */
  refusalOf({ from, to }: Pick<Supersession, 'from' | 'to'>): string | null {
    if (from === to) return `${from} cannot replace itself`;
    if (this.after.get(from)?.some((edge) => edge.to === to)) return `${to} already replaces ${from}`;
    const path = this.pathBetween(to, from);
    return path ? `that makes a circle: ${[...path, to].join(' → ')}` : null;
  }

  private pathBetween(start: string, goal: string): readonly string[] | null {
    const cameFrom = new Map<string, string | null>([[start, null]]);
    for (const part of cameFrom.keys()) {
      if (part === goal) return walkBack(cameFrom, goal);
      for (const edge of this.after.get(part) ?? []) if (!cameFrom.has(edge.to)) cameFrom.set(edge.to, part);
    }
    return null;
  }

  /** Follows a number to the one sold today. A number that nothing replaced is its own current one. */
  current(part: string): CurrentPart {
    const path: Supersession[] = [];
    let at = part;
    for (;;) {
      const [next, ...others] = this.after.get(at) ?? [];
      if (!next) return { kind: 'current', part: at, path };
      if (others.length > 0)
        return { kind: 'needs-answer', at, successors: [next, ...others].map((edge) => edge.to).sort() };
      path.push(next);
      at = next.to;
    }
  }

  /** Every number that is joined to this one by any chain, itself included, oldest first. */
  family(part: string): readonly string[] {
    const joined = reach([part], (p) => [
      ...(this.after.get(p) ?? []).map((e) => e.to),
      ...(this.before.get(p) ?? []).map((e) => e.from),
    ]);
    const depth = new Map<string, number>();
    const depthOf = (p: string): number => {
      const known = depth.get(p);
      if (known !== undefined) return known;
      const value = Math.max(-1, ...(this.before.get(p) ?? []).map((edge) => depthOf(edge.from))) + 1;
      depth.set(p, value);
      return value;
    };
    return [...joined].sort((a, b) => depthOf(a) - depthOf(b) || a.localeCompare(b));
  }

  edgesAmong(parts: readonly string[]): readonly Supersession[] {
    return this.edges.filter((edge) => parts.includes(edge.from) && parts.includes(edge.to));
  }

  /** The same part under several numbers: joined by renumbering alone. */
  sameParts(part: string): ReadonlySet<string> {
    const renumbered = (edges: readonly Supersession[] | undefined) =>
      (edges ?? []).filter((e) => e.kind === 'renumbered');
    return reach([part], (p) => [
      ...renumbered(this.after.get(p)).map((e) => e.to),
      ...renumbered(this.before.get(p)).map((e) => e.from),
    ]);
  }

  /** What came before or after by at least one redesign: it may replace the whole set, never one of it. */
  isRedesignOf(a: string, b: string): boolean {
    return !this.sameParts(a).has(b) && this.family(a).includes(b);
  }
}

export type Mixing = 'same-part' | 'never-mix' | 'unrelated';

/** Whether two numbers may sit in one engine together. */
export function mixing(graph: SupersessionGraph, a: string, b: string): Mixing {
  if (a === b || graph.sameParts(a).has(b)) return 'same-part';
  return graph.isRedesignOf(a, b) ? 'never-mix' : 'unrelated';
}

function push<K, V>(map: Map<K, V[]>, key: K, value: V): void {
  const list = map.get(key);
  if (list) list.push(value);
  else map.set(key, [value]);
}

function reach(start: readonly string[], next: (part: string) => readonly string[]): ReadonlySet<string> {
  const reached = new Set(start);
  for (const part of reached) for (const other of next(part)) reached.add(other);
  return reached;
}

function walkBack(cameFrom: ReadonlyMap<string, string | null>, goal: string): readonly string[] {
  const path: string[] = [];
  for (let at: string | null | undefined = goal; at != null; at = cameFrom.get(at)) path.unshift(at);
  return path;
}
