import { addDays, type PlainDate, weekdayOf } from '@/core/calendar/plain-date';
import type { PlanBay, PlanPerson, PlanProblem } from '@/core/planning/plan-problem';
import type { JobFacts, PlanScope } from '@/core/planning/plan-proposal';
import { present, weekOf } from '@/core/planning/presence';
import type { FleetId } from '@/core/shared/kinds';
import { isTaskComponent } from '@/core/work/task';
import type { Querier } from '@/db/client';
import { loadTaskKinds } from '@/db/queries/work-orders';
import { awayOf, type FleetData, loadFleetData } from './fleet-data';
import { aheadOf, jobOfOrder, jobOfVehicle } from './fleet-jobs';

/* The fleet as a problem to plan: its bays and people as they are there, what is open and what is due, and what waiting costs. */

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

const hoursOf = ({ workingDays: days, opensMin, closesMin }: FleetData['depots'][number]) =>
  weekOf({ workingDays: days, fromMin: opensMin, toMin: closesMin });

export async function fleetProblem(
  q: Querier,
  fleetId: FleetId,
  today: PlainDate,
  { from, days: count, seconds, seed }: PlanScope,
): Promise<FleetProblem> {
  const data = await loadFleetData(q, fleetId);
  const days = workingDays(data, from, count);
  const ahead = aheadOf(data, days, today);
  const tasks = await loadTaskKinds(
    q,
    data.orders.map(({ id }) => id),
  );
  const onOrder = new Set(data.orders.map(({ vehicleId }) => vehicleId));
  const made = [
    ...data.orders.map((order) =>
      jobOfOrder(ahead, order, (tasks.get(order.id) ?? []).map(({ component }) => component).filter(isTaskComponent)),
    ),
    ...data.vehicles.filter(({ id }) => !onOrder.has(id)).map((vehicle) => jobOfVehicle(ahead, vehicle)),
  ].filter((one) => one !== null);
  return {
    problem: {
      days,
      bays: baysIn(data, days),
      people: peopleIn(data, days),
      jobs: made.map(({ job }) => job),
      moveCost: data.costs.moveCost,
      seconds,
      seed,
    },
    jobs: made.map(({ facts }) => facts),
  };
}

function baysIn(data: FleetData, days: readonly PlainDate[]): readonly PlanBay[] {
  return data.bays.flatMap((bay): readonly PlanBay[] => {
    const depot = data.depots.find(({ id }) => id === bay.depotId);
    if (!depot) return [];
    const away = [...awayOf(data, `bay ${bay.id}`), ...awayOf(data, `depot ${depot.id}`)];
    return [
      {
        id: bay.id,
        name: `${depot.name} ${bay.name}`,
        depot: depot.name,
        can: bay.can,
        open: present(bay.hours ?? hoursOf(depot), away, days),
      },
    ];
  });
}

function peopleIn(data: FleetData, days: readonly PlainDate[]): readonly PlanPerson[] {
  return data.people.flatMap((person): readonly PlanPerson[] => {
    const own = data.depots.filter(({ id }) => person.depotIds.length === 0 || person.depotIds.includes(id));
    const [first] = own;
    if (!first) return [];
    const usual = weekOf({
      workingDays: first.workingDays,
      fromMin: first.opensMin,
      toMin: Math.min(first.closesMin, first.opensMin + person.shiftMinutes),
    });
    return [
      {
        id: person.id,
        name: person.name,
        depots: own.map(({ name }) => name),
        skills: [...(person.hybridQualified ? ['hybrid'] : []), ...person.skills],
        shift: present(person.hours ?? usual, awayOf(data, `person ${person.id}`), days),
      },
    ];
  });
}
