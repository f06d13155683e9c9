import { z } from 'zod';
import { addDays, mondayOf, type PlainDate, weekdayOf } from '@/core/calendar/plain-date';
import { reasonsAway } from '@/core/planning/absence';
import type { BoardWeek, NamedDepot } from '@/core/planning/board-week';
import type { PlanProblem } from '@/core/planning/plan-problem';
import { placeIn } from '@/core/planning/solver/place-in';
import type { FleetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { isTaskComponent } from '@/core/work/task';
import type { Querier } from '@/db/client';
import { bookingOf, listBooked, loadStarts, loadTaskKinds, type WorkOrderListRow } from '@/db/queries/work-orders';
import type { Deps } from '../deps';
import { notFound, type Outcome } from '../failure';
import { listDepots } from '../fleet/bays';
import { useCase } from '../use-case';
import { boardJob, breaksBy, busyOf, closedJob, workIn } from './board-jobs';
import { awayOf, dataOfDepot, type FleetData, loadFleetData } from './fleet-data';
import { type FleetProblem, minuteToday, type PlanClock, problemOf, stillAhead } from './fleet-problem';

/** Any day of the week that is looked at; left out: today. */
const day = z.iso.date().optional();

/** The week of a depot: what is booked, what waits, and all that is needed to judge a move before it is made. */
export const viewBoard = useCase({
  permission: 'read the fleet',
  input: z.object({ day, depot: z.string().max(120) }),
  async run(deps, actor, { day: asked, depot: name }): Promise<Outcome<BoardWeek>> {
    const depots = await listDepots(deps, actor);
    if (!depots.ok) return depots;
    const depot = depots.value.find((each) => each.name === name);
    if (!depot) return notFound('depot');
    const shown = shownWeek(deps, depots.value, asked);
    const data = await loadFleetData(deps.db, actor.fleetId, depot.id);
    const booked = await bookedIn(deps.db, actor.fleetId, shown.monday);
    return ok(await boardOf(deps.db, { data, depot, clock: shown.clock, booked }, shown));
  },
});

/** The same week of every depot, by name; the fleet is read once. */
export const viewBoards = useCase({
  permission: 'read the fleet',
  input: z.object({ day }),
  async run(deps, actor, { day: asked }): Promise<Outcome<readonly BoardWeek[]>> {
    const depots = await listDepots(deps, actor);
    if (!depots.ok) return depots;
    const shown = shownWeek(deps, depots.value, asked);
    const fleet = await loadFleetData(deps.db, actor.fleetId);
    const booked = await bookedIn(deps.db, actor.fleetId, shown.monday);
    return ok(
      await Promise.all(
        depots.value.map((depot) =>
          boardOf(deps.db, { data: dataOfDepot(fleet, depot.id), depot, clock: shown.clock, booked }, shown),
        ),
      ),
    );
  },
});

interface ShownWeek {
  readonly depots: readonly NamedDepot[];
  readonly monday: PlainDate;
  readonly clock: PlanClock;
}

function shownWeek(deps: Deps, depots: readonly NamedDepot[], asked: PlainDate | undefined): ShownWeek {
  const clock = { today: deps.today(), now: deps.now() };
  return { depots, monday: mondayOf(asked ?? clock.today), clock };
}

/** What is booked in a week, in the whole fleet. */
const bookedIn = async (q: Querier, fleetId: FleetId, monday: PlainDate): Promise<readonly WorkOrderListRow[]> =>
  (await listBooked(q, fleetId, monday, addDays(monday, 7))).filter(({ state }) => state !== 'cancelled');

async function boardOf(q: Querier, week: DepotWeek, { depots, monday }: ShownWeek): Promise<BoardWeek> {
  const { data, depot, clock } = week;
  const days = daysOf(week, monday);
  return {
    ...{ depot, depots, monday, today: clock.today, nowMin: minuteToday(clock.now, depot.timeZone, clock.today) },
    ...(await jobsOn(q, week, days)),
    elsewhere: elsewhereOf(week),
    away: awayIn(week, days),
    currency: data.costs.currency,
  };
}

interface DepotWeek {
  readonly data: FleetData;
  readonly depot: NamedDepot;
  readonly clock: PlanClock;
  /** Of the whole fleet: people work at more than one depot. */
  readonly booked: readonly WorkOrderListRow[];
}

/** The days of a week on which the depot works, or something is booked all the same. */
function daysOf({ data, depot, booked }: DepotWeek, monday: PlainDate): readonly PlainDate[] {
  const depotData = data.depots.find(({ id }) => id === depot.id);
  const used = new Set(booked.filter(({ depotId }) => depotId === depot.id).map((row) => bookingOf(row)?.day));
  const hours = data.bays.flatMap((bay) => Object.keys(bay.hours ?? {}).map(Number));
  return Array.from({ length: 7 }, (_, i) => addDays(monday, i)).filter(
    (day) => used.has(day) || hours.includes(weekdayOf(day)) || depotData?.workingDays.includes(weekdayOf(day)),
  );
}

async function jobsOn(q: Querier, week: DepotWeek, days: readonly PlainDate[]) {
  const { data, depot, clock, booked } = week;
  const ofDepot = booked.filter(({ depotId }) => depotId === depot.id);
  const made = await problemOf(q, data, days, clock.today);
  const problem = boardProblem(week, made, days);
  const ids = ofDepot.map(({ id }) => id);
  const starts = await loadStarts(q, ids);
  const tasks = await loadTaskKinds(q, ids);
  const places = placeIn(stillAhead(data, problem, clock));
  const rows = new Map(ofDepot.map((row) => [`order ${row.id}`, row]));
  const orders = new Map(data.orders.map((order) => [`order ${order.id}`, order]));
  const facts = new Map(made.jobs.map((job) => [job.id, job]));
  const jobs = problem.jobs.map((job) => {
    const row = rows.get(job.id);
    return boardJob(job, {
      row,
      facts: facts.get(job.id),
      components: row ? (tasks.get(row.id) ?? []).map(({ component }) => component).filter(isTaskComponent) : [],
      estimate: orders.get(job.id)?.minutes,
      startedAt: row && starts.get(row.id),
      zone: depot.timeZone,
      place: places.waiting.get(job.id),
      why: places.planned.get(job.id),
    });
  });
  return { problem, jobs };
}

/** The problem as the board shows it: booked jobs as long as they are booked, those of other weeks left out, closed ones kept. */
function boardProblem(
  { data, depot, clock, booked }: DepotWeek,
  { problem }: FleetProblem,
  days: readonly PlainDate[],
): PlanProblem {
  const orders = new Map(data.orders.map((order) => [`order ${order.id}`, order]));
  const elsewhere = booked.filter(({ depotId }) => depotId !== depot.id);
  const breaks = breaksBy(problem);
  const closed = booked.filter(({ depotId, state }) => depotId === depot.id && state === 'closed');
  return {
    ...problem,
    people: problem.people.map((person) => ({
      ...person,
      busy: elsewhere.filter(({ personId }) => personId === person.id).flatMap(busyOf),
    })),
    jobs: [
      ...problem.jobs
        .filter(({ was }) => was === null || days.includes(was.day) || was.day < clock.today)
        .map((job) => {
          const order = orders.get(job.id);
          const booking = order && bookingOf(order);
          const isHere = booking && days.includes(booking.day);
          return isHere ? { ...job, minutes: workIn(booking, breaks) } : { ...job, was: null };
        }),
      ...closed.map((row) => closedJob(row, days)),
    ],
  };
}

/** Why its bays are closed and people are away on some days: their own absences, and those of the depot for its bays. */
function awayIn({ data, depot }: DepotWeek, days: readonly PlainDate[]): BoardWeek['away'] {
  const why = (id: string, ...keys: readonly string[]) =>
    reasonsAway(
      keys.flatMap((key) => awayOf(data, key)),
      days,
    ).map((reason) => ({ id, ...reason }));
  return [
    ...data.bays.flatMap(({ id }) => why(id, `bay ${id}`, `depot ${depot.id}`)),
    ...data.people.flatMap(({ id }) => why(id, `person ${id}`)),
  ];
}

const elsewhereOf = ({ booked, depot }: DepotWeek): BoardWeek['elsewhere'] =>
  booked
    .filter(({ depotId }) => depotId !== depot.id)
    .flatMap((row) => busyOf(row).map((stay) => ({ ...stay, person: row.personId ?? '' })));
