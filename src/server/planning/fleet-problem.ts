import { addDays, type PlainDate, weekdayOf } from '@/core/calendar/plain-date';
import { wallClock } from '@/core/calendar/zone';
import { without } from '@/core/planning/absence';
import { breakIn } from '@/core/planning/person-day';
import type { DayWindow, PlanBay, PlanPerson, PlanProblem } from '@/core/planning/plan-problem';
import type { JobFacts, PlanScope } from '@/core/planning/plan-proposal';
import { present, weekOf } from '@/core/planning/presence';
import type { FleetId } from '@/core/shared/kinds';
import { isTaskComponent } from '@/core/work/task';
import type { Querier } from '@/db/client';
import { loadTaskKinds } from '@/db/queries/work-orders';
import { awayOf, type FleetData, loadFleetData } from './fleet-data';
import { aheadOf, jobOfOrder, jobOfVehicle } from './fleet-jobs';

/* The fleet as a problem to plan: its bays and people as they are there, what is open and what is due, and what waiting costs. */

/** What the clock says where planning is done. */
export interface PlanClock {
  readonly today: PlainDate;
  readonly now: Date;
}

export interface FleetProblem {
  readonly problem: PlanProblem;
  readonly jobs: readonly JobFacts[];
}

/** The days from one on, on which some depot works. */
function workingDays({ depots: all }: FleetData, from: PlainDate, count: number): readonly PlainDate[] {
  const week = new Set(all.flatMap(({ workingDays: days }) => days));
  const days: PlainDate[] = [];
  for (let day = from; days.length < count && week.size > 0; day = addDays(day, 1))
    if (week.has(weekdayOf(day))) days.push(day);
  return days;
}

type Depot = FleetData['depots'][number];

/** The week of a depot, as long as nobody is away. */
export const depotWeek = ({ workingDays: days, opensMin, closesMin }: Depot) =>
  weekOf({ workingDays: days, fromMin: opensMin, toMin: closesMin });

/** Of who has no hours of their own: from the opening of the depot for the length of their shift. */
export const usualShift = (depot: Depot, { shiftMinutes }: FleetData['people'][number]) =>
  depotWeek({ ...depot, closesMin: Math.min(depot.closesMin, depot.opensMin + shiftMinutes) });

/** The fleet for some days ahead. */
export async function fleetProblem(
  q: Querier,
  fleetId: FleetId,
  clock: PlanClock,
  { from, days: count, seconds, seed }: PlanScope,
): Promise<FleetProblem> {
  const data = await loadFleetData(q, fleetId);
  const { problem, jobs } = await problemOf(q, data, workingDays(data, from, count), clock.today);
  return { problem: { ...stillAhead(data, problem, clock), seconds, seed }, jobs };
}

/** A problem without the hours that have passed, for whoever looks for free ones. */
export function stillAhead({ depots: all }: FleetData, problem: PlanProblem, { today, now }: PlanClock): PlanProblem {
  const ahead = (windows: readonly DayWindow[], depot: string | undefined): readonly DayWindow[] => {
    const zone = all.find(({ name }) => name === depot)?.timeZone;
    const passed = (zone && minuteToday(now, zone, today)) || 0;
    return without(
      windows.filter(({ day }) => day >= today),
      passed > 0 ? [{ day: today, fromMin: 0, toMin: passed }] : [],
    );
  };
  return {
    ...problem,
    bays: problem.bays.map((bay) => ({ ...bay, open: ahead(bay.open, bay.depot) })),
    people: problem.people.map((person) => ({ ...person, shift: ahead(person.shift, person.depots[0]) })),
  };
}

/** The minute of today by the clock there; null: the day that is planned from is another than the clock's, as in a demo. */
export function minuteToday(now: Date, zone: string, today: PlainDate): number | null {
  const { day, minute } = wallClock(now, zone);
  return day === today ? minute : null;
}

/** What some data is as a problem, on these days. */
export async function problemOf(
  q: Querier,
  data: FleetData,
  days: readonly PlainDate[],
  today: PlainDate,
): Promise<FleetProblem> {
  const ahead = aheadOf(data, days, today);
  const tasks = await loadTaskKinds(
    q,
    data.orders.map(({ id }) => id),
  );
  const onOrder = new Set(data.orders.map(({ vehicleId }) => vehicleId));
  // Parts go to what is booked first, then to what loses most by waiting.
  const made = [
    ...[...data.orders]
      .sort(bySlot)
      .map((order) =>
        jobOfOrder(ahead, order, (tasks.get(order.id) ?? []).map(({ component }) => component).filter(isTaskComponent)),
      ),
    ...data.vehicles
      .filter(({ id }) => !onOrder.has(id))
      .sort((a, b) => pressureOf(data, b.id) - pressureOf(data, a.id))
      .map((vehicle) => jobOfVehicle(ahead, vehicle)),
  ].filter((job) => job !== null);
  return {
    problem: {
      days,
      bays: baysIn(data, days),
      people: peopleIn(data, days),
      jobs: made.map(({ job }) => job),
      moveCost: data.costs.moveCost,
      ...(data.depots.length > 1 ? { travelMin: waysIn(data) } : {}),
      currency: data.costs.currency,
      seconds: 1,
      seed: 1,
    },
    jobs: made.map(({ facts }) => facts),
  };
}

const waysIn = ({ depots: all, way }: FleetData): PlanProblem['travelMin'] =>
  Object.fromEntries(
    all.map((from) => [from.name, Object.fromEntries(all.map((to) => [to.name, way(from.id, to.id)]))]),
  );

const bySlot = (a: FleetData['orders'][number], b: FleetData['orders'][number]): number =>
  (a.startsAt ?? '9').localeCompare(b.startsAt ?? '9') || a.number - b.number;

const pressureOf = ({ due }: FleetData, vehicleId: string): number =>
  (due.get(vehicleId) ?? []).reduce((sum, { pressure }) => sum + (pressure ?? 0), 0);

/** Bays with when they are open on some days. */
export function baysIn(data: FleetData, days: readonly PlainDate[]): readonly PlanBay[] {
  return data.bays.flatMap((bay): readonly PlanBay[] => {
    const depot = data.depots.find(({ id }) => id === bay.depotId);
    if (!depot) return [];
    const away = [...awayOf(data, `bay ${bay.id}`), ...awayOf(data, `depot ${depot.id}`)];
    return [
      {
        id: bay.id,
        // Of one depot alone its name goes without saying.
        name: data.isOneDepot ? bay.name : `${depot.name} ${bay.name}`,
        depot: depot.name,
        can: bay.can,
        open: present(bay.hours ?? depotWeek(depot), away, days),
      },
    ];
  });
}

function peopleIn(data: FleetData, days: readonly PlainDate[]): readonly PlanPerson[] {
  return data.people.flatMap((person): readonly PlanPerson[] => {
    const depots = data.depots.filter(({ id }) => person.depotIds.length === 0 || person.depotIds.includes(id));
    const [first] = depots;
    if (!first) return [];
    const week = person.hours ?? usualShift(first, person);
    return [
      {
        id: person.id,
        name: person.name,
        depots: depots.map(({ name }) => name),
        skills: [...(person.hybridQualified ? ['hybrid'] : []), ...person.skills],
        shift: present(week, awayOf(data, `person ${person.id}`), days),
        breaks: breakIn(week, data.costs.breakMinutes),
      },
    ];
  });
}
