import { groupBy } from '../../shared/group-by';
import { common, costAt, type Pair, type Slot, type Space, type SpaceJob, type Spans, union } from './space';

/*
 * A relaxation of the problem whose optimum is never above the cost of any plan: which job on which day and in which bay, with
 * the hours of each bay and of each set of people, and with cuts for jobs that are too long to lie beside each other in one
 * shift. What it leaves out (who, and at which minute) can only make a plan dearer.
 */

export interface BoundModel {
  /** Cost with nothing planned, pins aside. */
  readonly offset: number;
  /** One column a job and day, and one a job, day and bay where there are several; from 0 to 1, those that are fixed are 1. */
  readonly columns: readonly BoundColumn[];
  /** What each column adds to the offset. */
  readonly cost: readonly number[];
  readonly rows: readonly BoundRow[];
}

interface BoundColumn {
  readonly job: number;
  readonly day: number;
  /** Null: whichever bay. */
  readonly bay: number | null;
  readonly isFixed: boolean;
}

/** A sum of columns that lies between two figures. */
interface BoundRow {
  readonly columns: readonly number[];
  readonly weights: readonly number[];
  readonly least: number;
  readonly most: number;
}

/** A job on a day, as far as it takes room. */
interface Member {
  readonly column: number;
  readonly minutes: number;
  readonly pairs: readonly Pair[];
}

const NONE = Number.NEGATIVE_INFINITY;

/** So many columns are solved in a few seconds. Measured: bench/plan.ts. */
const MAX_COLUMNS = 14_000;

/**
 * The relaxation in parts whose bounds add up: in one, bay by bay, where that can be solved; else a depot at a time with the
 * hours of its bays together, whoever works at two of them counted at both.
 */
export function boundModels(space: Space): readonly BoundModel[] {
  const all = [...space.jobs.keys()];
  const columns = all.reduce((sum, job) => sum + columnsOf(space, job), 0);
  if (columns <= MAX_COLUMNS) return [boundModel(space, all, true)];
  return [...groupBy(all, (job) => space.jobs[job]?.depot ?? 0).values()].map((jobs) => boundModel(space, jobs, false));
}

/** Of one job: a day, and each bay that it may have on it. */
function columnsOf({ jobs }: Space, job: number): number {
  const spaceJob = jobs[job];
  if (!spaceJob || spaceJob.pin) return 1;
  return spaceJob.order.reduce((sum, day) => {
    const bays = new Set(spaceJob.pairs[day]?.map(({ bay }) => bay)).size;
    return sum + 1 + (bays > 1 ? bays : 0);
  }, 0);
}

function boundModel(space: Space, jobs: readonly number[], isByBay: boolean): BoundModel {
  const columns: BoundColumn[] = [];
  const cost: number[] = [];
  const rows: BoundRow[] = [];
  const byDay: Member[][] = Array.from({ length: space.days }, () => []);
  const add = (column: BoundColumn, each: number): number => {
    cost.push(each);
    return columns.push(column) - 1;
  };
  let offset = 0;
  for (const job of jobs) {
    const spaceJob = space.jobs[job];
    if (!spaceJob) continue;
    offset += spaceJob.costUnplanned;
    const days = spaceJob.pin ? [spaceJob.pin.day] : spaceJob.order;
    const jobsOfDay = days.map((day) => {
      const each = spaceJob.pin ? costAt(space, spaceJob, spaceJob.pin) : (spaceJob.cost[day] ?? 0);
      const pairs = spaceJob.pin ? pairsOfPin(spaceJob, spaceJob.pin) : (spaceJob.pairs[day] ?? []);
      const column = add({ job, day, bay: null, isFixed: spaceJob.pin !== null }, each - spaceJob.costUnplanned);
      byDay[day]?.push({ column, minutes: spaceJob.minutes, pairs });
      return column;
    });
    if (jobsOfDay.length > 1) rows.push({ columns: jobsOfDay, weights: jobsOfDay.map(() => 1), least: NONE, most: 1 });
  }
  for (const [day, members] of byDay.entries()) {
    rows.push(...resourceRows(members, (pair) => pair.bay));
    rows.push(...resourceRows(members, (pair) => pair.person));
    if (isByBay) rows.push(...bayRows(members, (job, bay) => add({ job, day, bay, isFixed: false }, 0), columns));
  }
  return { offset, columns, cost, rows };
}

/** Each job of a day in one bay, and each bay with its own hours. */
function bayRows(
  members: readonly Member[],
  add: (job: number, bay: number) => number,
  columns: readonly BoundColumn[],
): readonly BoundRow[] {
  const rows: BoundRow[] = [];
  const inBay = new Map<number, Member[]>();
  for (const member of members) {
    const bays = groupBy(member.pairs, ({ bay }) => bay);
    const [only] = bays.size === 1 ? [...bays.keys()] : [];
    const parts = [...bays].map(([bay, pairs]) => {
      const column = bay === only ? member.column : add(columns[member.column]?.job ?? 0, bay);
      inBay.set(bay, [...(inBay.get(bay) ?? []), { ...member, column, pairs }]);
      return column;
    });
    if (only === undefined && parts.length > 0)
      rows.push({ columns: [...parts, member.column], weights: [...parts.map(() => 1), -1], least: 0, most: 0 });
  }
  for (const pairsInBay of inBay.values()) rows.push(...resourceRows(pairsInBay, (pair) => pair.bay));
  return rows;
}

/** A pin that keeps the rules takes room by them; one that does not takes none here, which only lowers the bound. */
const pairsOfPin = ({ pairs, minutes }: SpaceJob, { day, bay, person, start }: Slot): readonly Pair[] =>
  (pairs[day] ?? []).filter(
    (pair) =>
      pair.bay === bay &&
      pair.person === person &&
      common(pair.spans, [start, start + minutes]).join() === `${start},${start + minutes}`,
  );

/** What one list of pairs has of each bay, or of each person: many jobs share a list. */
interface Held {
  readonly key: string;
  readonly set: ReadonlySet<number>;
  readonly spans: ReadonlyMap<number, Spans>;
  readonly from: number;
  readonly to: number;
}

interface HeldMember extends Member {
  readonly held: Held;
}

const keyOf = (set: ReadonlySet<number>): string => [...set].sort((a, b) => a - b).join();

function heldBy(pairs: readonly Pair[], resourceOf: (pair: Pair) => number): Held {
  const lists = new Map<number, Spans[]>();
  for (const pair of pairs) {
    const listed = lists.get(resourceOf(pair));
    if (!listed) lists.set(resourceOf(pair), [pair.spans]);
    else listed.push(pair.spans);
  }
  const spans = new Map([...lists].map(([resource, pairs]) => [resource, unionOfFew(pairs)]));
  const set = new Set(spans.keys());
  return {
    key: keyOf(set),
    set,
    spans,
    from: Math.min(...[...spans.values()].map((span) => span[0] ?? 0)),
    to: Math.max(...[...spans.values()].map((span) => span.at(-1) ?? 0)),
  };
}

/** Rows for every set of bays (or people) that some jobs of a day are confined to. */
function resourceRows(members: readonly Member[], resourceOf: (pair: Pair) => number): readonly BoundRow[] {
  const known = new Map<readonly Pair[], Held>();
  const heldOf = (pairs: readonly Pair[]): Held => {
    const held = known.get(pairs) ?? heldBy(pairs, resourceOf);
    known.set(pairs, held);
    return held;
  };
  const confined = members
    .filter(({ pairs }) => pairs.length > 0)
    .map((member): HeldMember => ({ ...member, held: heldOf(member.pairs) }));
  const sets = new Map(confined.map(({ held }) => [held.key, held.set]));
  // What overlaps is joined as well, up to the whole: jobs of two kinds share what both can use.
  for (const set of [...sets.values()]) {
    let whole = set;
    for (const other of sets.values())
      if ([...other].some((item) => whole.has(item))) whole = new Set([...whole, ...other]);
    sets.set(keyOf(whole), whole);
  }
  return [...sets].flatMap(([key, set]) => {
    const inside = confined.filter(({ held }) => held.key === key || [...held.set].every((item) => set.has(item)));
    return setRows(inside);
  });
}

/** Union of lists of which many are the same. */
function unionOfFew(lists: readonly Spans[]): Spans {
  const [only, ...more] = [...new Map(lists.map((spans) => [spans.join(), spans])).values()];
  return only && more.length === 0 ? only : union(only ? [only, ...more] : []);
}

const lengths = (spans: Spans): readonly number[] =>
  spans.flatMap((from, i) => (i % 2 === 0 ? [(spans[i + 1] ?? from) - from] : []));

/** What jobs confined to a set of bays or people can have of it. */
function setRows(members: readonly HeldMember[]): readonly BoundRow[] {
  const ofResource = new Map<number, Set<Spans>>();
  for (const held of new Set(members.map((member) => member.held)))
    for (const [resource, spans] of held.spans)
      ofResource.set(resource, (ofResource.get(resource) ?? new Set()).add(spans));
  const spans = [...ofResource.values()].map((lists) => unionOfFew([...lists]));
  const bins = spans.flatMap(lengths);
  const room = bins.reduce((sum, length) => sum + length, 0);
  const longest = Math.max(0, ...bins);
  if (longest === 0) return [];
  const row = (weigh: (minutes: number) => number, most: number): BoundRow | null => {
    const weighed = members.map(({ column, minutes }) => [column, weigh(minutes)] as const).filter(([, w]) => w > 0);
    const sum = weighed.reduce((total, [, w]) => total + w, 0);
    return sum > most + 1e-9
      ? { columns: weighed.map(([column]) => column), weights: weighed.map(([, w]) => w), least: NONE, most }
      : null;
  };
  const made = [
    row((minutes) => minutes, room),
    ...PARTS.map((parts) => row((minutes) => stepped(minutes / longest, parts), bins.length)),
    ...thresholds(members, longest).map((share) => row((minutes) => without(minutes / longest, share), bins.length)),
    ...withinRows(members, spans),
  ];
  return made.filter((row) => row !== null);
}

/** Dual feasible functions: for sizes that fill one bin at most, their values sum to 1 at most. Source: Fekete and Schepers 2001. */
const PARTS = [1, 2, 3, 4, 5] as const;
const stepped = (size: number, parts: number): number => {
  const scaled = (parts + 1) * size;
  return Math.abs(scaled - Math.round(scaled)) < 1e-9 ? size : Math.floor(scaled) / parts;
};

function without(size: number, share: number): number {
  if (size > 1 - share + 1e-9) return 1;
  return size < share - 1e-9 ? 0 : size;
}

const MAX_THRESHOLDS = 4;

/** Sizes up to half a bin, a few of them: what lies beside a long job is at most the rest. */
function thresholds(members: readonly Member[], longest: number): readonly number[] {
  const sizes = [...new Set(members.map(({ minutes }) => minutes / longest).filter((size) => size <= 0.5))].sort(
    (a, b) => a - b,
  );
  const step = Math.max(1, Math.floor(sizes.length / MAX_THRESHOLDS));
  return sizes.filter((_, i) => i % step === 0).slice(0, MAX_THRESHOLDS);
}

const MAX_EDGES = 3;

/** Jobs that can only lie between two minutes of the day have no more room than there is between them. */
function withinRows(members: readonly HeldMember[], spans: readonly Spans[]): readonly (BoundRow | null)[] {
  const edgesOf = (edge: 'from' | 'to', order: 1 | -1): readonly number[] =>
    [...new Set(members.map(({ held }) => held[edge]))].sort((a, b) => order * (a - b)).slice(0, MAX_EDGES);
  const [froms, tos] = [edgesOf('from', 1), edgesOf('to', -1)];
  return froms.flatMap((from) =>
    tos.flatMap((to) => {
      if (from === froms[0] && to === tos[0]) return [];
      const inside = members.filter(({ held }) => held.from >= from && held.to <= to);
      const most = spans.flatMap((span) => lengths(common(span, [from, to]))).reduce((sum, length) => sum + length, 0);
      const sum = inside.reduce((total, { minutes }) => total + minutes, 0);
      return sum > most
        ? [
            {
              columns: inside.map(({ column }) => column),
              weights: inside.map(({ minutes }) => minutes),
              least: NONE,
              most,
            },
          ]
        : [];
    }),
  );
}
