import { groupBy } from '../../shared/group-by';
import { breaksOf, type Stay, travelBetween } from '../person-day';
import type { Breaks, DayWindow, PlanJob, PlanProblem, PlanSlot } from '../plan-problem';

/* A problem on compact arrays: bays, people, jobs and days are numbers, and what can never be is left out. */

/** What a job costs in a slot, with the move where it is not as agreed. */
export function costAt(
  { moveCost }: Pick<Space, 'moveCost'>,
  { cost, was }: SpaceJob,
  { day, bay, person }: Omit<Slot, 'start'>,
): number {
  const moved = was !== null && was.day === day && (was.bay !== bay || was.person !== person);
  return (cost[day] ?? 0) + (moved ? moveCost : 0);
}

/** From and to in minutes, one after the other: [480, 720, 780, 960]. */
export type Spans = readonly number[];

/** A bay and a person that can do a job together, and when. */
export interface Pair {
  readonly bay: number;
  readonly person: number;
  readonly spans: Spans;
  /** How much of what they can do the job does not need: the less, the better they are spent on it. */
  readonly waste: number;
}

/** A slot on compact arrays; of what was agreed, -1 where the day, bay or person is gone. */
export interface Slot {
  readonly day: number;
  readonly bay: number;
  readonly person: number;
  readonly start: number;
}

export interface SpaceJob {
  readonly minutes: number;
  readonly depot: number;
  /** By day, as far as depot, bay and skills go. */
  readonly kind: readonly (readonly Pair[])[];
  /** Those that vehicle, parts and heat leave; a day without any is none on which it can be done. */
  readonly pairs: readonly (readonly Pair[])[];
  /** What a day costs at least: with the move where that is another day than agreed. */
  readonly cost: Float64Array;
  /** Days on which it can be done for less than leaving it, the cheapest first. */
  readonly order: readonly number[];
  readonly costUnplanned: number;
  readonly pin: Slot | null;
  readonly was: Slot | null;
}

export interface Space {
  readonly days: number;
  readonly bays: number;
  readonly people: number;
  readonly depots: number;
  /** Of each bay; bays of each depot. */
  readonly depotOfBay: Int32Array;
  readonly baysOfDepot: readonly (readonly number[])[];
  /** By depot: itself and those that it shares people with. */
  readonly sharing: readonly (readonly number[])[];
  readonly jobs: readonly SpaceJob[];
  readonly moveCost: number;
  /** By bay or person and day: when it is there. */
  readonly bayOpen: readonly (readonly Spans[])[];
  readonly personOpen: readonly (readonly Spans[])[];
  /** Minutes from one depot to another, by depot × depots + depot; null: nobody needs any. */
  readonly travel: Int32Array | null;
  /** By person. */
  readonly breaks: readonly (Breaks | null)[];
  /** By person × days + day: work that is none of these jobs. */
  readonly busy: readonly (readonly BusyStay[])[];
}

export interface BusyStay extends Stay {
  readonly depot: number;
}

/** Union of spans, in order, those that touch as one. */
export function union(lists: readonly Spans[]): Spans {
  const pieces = lists
    .flatMap((spans) => spans.flatMap((from, i) => (i % 2 === 0 ? [[from, spans[i + 1] ?? from] as const] : [])))
    .sort((a, b) => a[0] - b[0]);
  const joined: number[] = [];
  for (const [from, to] of pieces) {
    const last = joined.length - 1;
    if (last > 0 && from <= (joined[last] ?? 0)) joined[last] = Math.max(joined[last] ?? 0, to);
    else joined.push(from, to);
  }
  return joined;
}

/** Windows of one day as spans. */
export const spansOf = (windows: readonly DayWindow[]): Spans =>
  union(windows.map(({ fromMin, toMin }) => [fromMin, toMin]));

/** What two lists of spans have in common. */
export function common(a: Spans, b: Spans): Spans {
  const spans: number[] = [];
  let [i, j] = [0, 0];
  while (i < a.length && j < b.length) {
    const from = Math.max(a[i] ?? 0, b[j] ?? 0);
    const to = Math.min(a[i + 1] ?? 0, b[j + 1] ?? 0);
    if (from < to) spans.push(from, to);
    if ((a[i + 1] ?? 0) < (b[j + 1] ?? 0)) i += 2;
    else j += 2;
  }
  return spans;
}

/** Those of some spans that hold so many minutes, from a minute on. */
export function roomy(spans: Spans, minutes: number, fromMin: number): Spans {
  const kept: number[] = [];
  for (let i = 0; i < spans.length; i += 2) {
    const from = Math.max(spans[i] ?? 0, fromMin);
    const to = spans[i + 1] ?? 0;
    if (to - from >= minutes) kept.push(from, to);
  }
  return kept;
}

const byDay = (days: readonly string[], windows: readonly DayWindow[]): readonly Spans[] => {
  const byDay = groupBy(windows, ({ day }) => day);
  return days.map((day) => spansOf(byDay.get(day) ?? []));
};

const holds = (has: readonly string[], needs: readonly string[]): boolean => needs.every((need) => has.includes(need));

/** A whole day, as far as a span goes. */
const ANY_TIME: Spans = [0, 24 * 60];

/** Days, bays, people and depots of a problem by their place. */
interface Places {
  readonly day: ReadonlyMap<string, number>;
  readonly bay: ReadonlyMap<string, number>;
  readonly person: ReadonlyMap<string, number>;
}

const placesOf = (ids: readonly string[]): ReadonlyMap<string, number> => new Map(ids.map((id, i) => [id, i]));

export const placesIn = ({ days, bays, people }: PlanProblem): Places => ({
  day: placesOf(days),
  bay: placesOf(bays.map(({ id }) => id)),
  person: placesOf(people.map(({ id }) => id)),
});

function slotOf({ day, bay, person }: Places, slot: PlanSlot): Slot {
  return {
    day: day.get(slot.day) ?? -1,
    bay: bay.get(slot.bay) ?? -1,
    person: person.get(slot.person) ?? -1,
    start: slot.startMin,
  };
}

/** The bays and people of one kind of job, with when both are there: jobs of a kind share it. */
function pairsOfKind(problem: PlanProblem, space: Pick<Space, 'bayOpen' | 'personOpen'>, job: PlanJob) {
  const { days, bays, people } = problem;
  const able = bays.flatMap((bay, i) => (bay.depot === job.depot && holds(bay.can, job.needsBay) ? [i] : []));
  const skilled = people.flatMap((person, i) =>
    person.depots.includes(job.depot) && holds(person.skills, job.needsSkills) ? [i] : [],
  );
  const waste = (bay: number, person: number): number =>
    (bays[bay]?.can.length ?? 0) -
    job.needsBay.length +
    (people[person]?.skills.length ?? 0) -
    job.needsSkills.length +
    (people[person]?.depots.length ?? 1) -
    1;
  return days.map((_, day) =>
    able.flatMap((bay) =>
      skilled.flatMap((person): Pair[] => {
        const spans = common(space.bayOpen[bay]?.[day] ?? [], space.personOpen[person]?.[day] ?? []);
        return spans.length > 0 ? [{ bay, person, spans, waste: waste(bay, person) }] : [];
      }),
    ),
  );
}

/** A problem on compact arrays. @param problem well formed */
export function spaceOf(problem: PlanProblem): Space {
  const { days, bays, people, jobs, moveCost } = problem;
  const places = placesIn(problem);
  const open = {
    bayOpen: bays.map((bay) => byDay(days, bay.open)),
    personOpen: people.map((person) => byDay(days, person.shift)),
  };
  const named = [...jobs, ...bays, ...people.flatMap(({ busy = [] }) => busy)].map(({ depot }) => depot);
  const depots = placesOf([...new Set(named)]);
  const kinds = new Map<string, readonly (readonly Pair[])[]>();
  const kindOf = (job: PlanJob): readonly (readonly Pair[])[] => {
    const key = JSON.stringify([job.depot, [...job.needsSkills].sort(), [...job.needsBay].sort()]);
    const known = kinds.get(key) ?? pairsOfKind(problem, open, job);
    kinds.set(key, known);
    return known;
  };
  return {
    days: days.length,
    bays: bays.length,
    people: people.length,
    depots: depots.size,
    depotOfBay: Int32Array.from(bays, ({ depot }) => depots.get(depot) ?? 0),
    sharing: [...depots.keys()].map((depot) => [
      ...new Set(
        [depot, ...people.flatMap((person) => (person.depots.includes(depot) ? person.depots : []))].flatMap(
          (name) => depots.get(name) ?? [],
        ),
      ),
    ]),
    baysOfDepot: [...depots.keys()].map((depot) => bays.flatMap((bay, i) => (bay.depot === depot ? [i] : []))),
    moveCost,
    ...open,
    travel: travelIn(problem, [...depots.keys()]),
    breaks: people.map((person) => breaksOf(problem, person)),
    busy: people.flatMap(({ busy = [] }) =>
      days.map((day) =>
        busy
          .filter((window) => window.day === day)
          .map(({ fromMin, toMin, depot }) => ({ fromMin, toMin, depot: depots.get(depot) ?? 0 })),
      ),
    ),
    jobs: jobs.map((job) => {
      const kind = kindOf(job);
      const pairs = pairsOf(job, kind, days);
      const was = job.was && slotOf(places, job.was);
      const cost = Float64Array.from(job.costByDay, (each, day) => each + (was && was.day !== day ? moveCost : 0));
      const order = [...pairs.keys()]
        .filter((day) => (pairs[day]?.length ?? 0) > 0 && (cost[day] ?? 0) < job.costUnplanned)
        .sort((a, b) => (cost[a] ?? 0) - (cost[b] ?? 0) || a - b);
      return {
        minutes: job.minutes,
        depot: depots.get(job.depot) ?? 0,
        kind,
        pairs,
        cost,
        order,
        costUnplanned: job.costUnplanned,
        pin: job.pin && slotOf(places, job.pin),
        was,
      };
    }),
  };
}

function travelIn(problem: PlanProblem, depots: readonly string[]): Int32Array | null {
  if (!problem.travelMin) return null;
  return Int32Array.from(depots.flatMap((from) => depots.map((to) => travelBetween(problem, from, to))));
}

/** The shortest span of the pairs of a day: what is no longer fits into all of them. */
const shortest = new WeakMap<readonly Pair[], number>();

function shortestOf(pairs: readonly Pair[]): number {
  const known = shortest.get(pairs);
  if (known !== undefined) return known;
  let least = Number.POSITIVE_INFINITY;
  for (const { spans } of pairs)
    for (let i = 0; i < spans.length; i += 2) least = Math.min(least, (spans[i + 1] ?? 0) - (spans[i] ?? 0));
  shortest.set(pairs, least);
  return least;
}

/** The pairs of a job's own kind, less what its vehicle, its parts and its engine's heat rule out. */
function pairsOf(
  { minutes, allowed, kitFrom, kitFromMin = 0, coolFromMin }: PlanJob,
  kind: readonly (readonly Pair[])[],
  days: readonly string[],
): readonly (readonly Pair[])[] {
  const free = allowed && byDay(days, allowed);
  return kind.map((pairs, day) => {
    if (kitFrom !== null && (days[day] ?? '') < kitFrom) return NO_PAIRS;
    // Jobs of a kind that nothing else confines share one list.
    const fromMin = Math.max(coolFromMin ?? 0, days[day] === kitFrom ? kitFromMin : 0);
    if (!free && fromMin === 0 && minutes <= shortestOf(pairs)) return pairs;
    const freeWindows = free ? (free[day] ?? []) : ANY_TIME;
    if (freeWindows.length === 0) return NO_PAIRS;
    return pairs.flatMap((pair): Pair[] => {
      const spans = roomy(free ? common(pair.spans, freeWindows) : pair.spans, minutes, fromMin);
      return spans.length > 0 ? [{ ...pair, spans }] : [];
    });
  });
}

const NO_PAIRS: readonly Pair[] = [];
