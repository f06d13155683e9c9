import { readFileSync } from 'node:fs';
import path from 'node:path';
import { parse } from 'csv-parse/sync';
import { addDays, daysBetween, type PlainDate } from '../src/core/calendar/plain-date';
import { due, type Installed, type Limits } from '../src/core/due/due';
import { type Layout, layoutOf } from '../src/core/engine/layout';
import { allPlaces, placeId } from '../src/core/engine/places';
import { isWorkingDay, USUAL_HOURS } from '../src/core/planning/hours';
import { normal, type Random } from '../src/core/stats/seeded';
import { KM_PER_MILE } from '../src/core/units/unit';
import type { TaskComponent } from '../src/core/work/task';
import type { EngineFamily } from '../src/db/queries/catalogue';
import type { RecordedRow } from '../src/db/queries/due-inputs';
import type { TaskInput } from '../src/server/work-orders/plan-tasks';

/* Three years of a shop that works, as visits on days: what came due was done about then, some coils failed, and before each
   winter somebody looked under the covers of what has to start. */

export interface PastVisit {
  readonly unit: string;
  readonly vehicleId: string;
  readonly depot: string;
  readonly hybrid: boolean;
  /** Code of its engine family. */
  readonly engine: string;
  readonly on: PlainDate;
  readonly km: number;
  /** The same in the unit of its dash. */
  readonly odometer: string;
  readonly tasks: readonly TaskInput[];
  /** Not ignition, done in the same visit. */
  readonly otherWork: readonly string[];
  /** Life that the plugs had used, share of their limit. */
  readonly plugLife: number;
}

const FROM: PlainDate = '2023-11-20';
const UNTIL: PlainDate = '2026-11-06';
/** Left as the sample files have them: the stories of today need their plugs as they are. */
const KEPT = new Set(['4', '15', '21', '32', '41', '105', '110', '157']);
/** A lead set and a cap past their clocks. */
const KEPT_OTHERS = new Set(['4', '43']);
/** Vehicles that have to start in any weather: coils and boots are looked at before each winter. */
const BEFORE_WINTER = new Set(['road-gritters', 'lifeboat-crew pickups', 'clinic vans']);
const AUTUMNS: readonly PlainDate[] = ['2023-11-27', '2024-10-14', '2025-10-13'];
const coilOfFive: readonly TaskInput[] = [
  { action: 'replace', component: 'coil', places: ['5'], why: 'reported', note: 'shakes uphill, P0305' },
];
/** What the misfires of today came from: a coil that failed twice in one cylinder, and a visit of last week. */
const BEFORE_MISFIRES: Readonly<Record<string, readonly (readonly [PlainDate, readonly TaskInput[]])[]>> = {
  '36': [
    ['2026-03-02', coilOfFive],
    ['2026-08-03', coilOfFive],
  ],
  '112': [['2026-11-09', [replaceAll('plug', true)]]],
};
/** Chance that a coil fails in a year. */
const COIL_FAILURES_A_YEAR = 0.03;
/** Share of the vehicles in which a coil was measured, and found good. */
const TESTED = 0.35;

export interface PastVehicle {
  readonly row: RecordedRow;
  readonly inServiceOn: PlainDate;
  readonly odometerUnit: 'km' | 'mi';
  readonly family: EngineFamily;
}

/** Every visit of the past, in order of day. */
export function planPast(fleet: readonly PastVehicle[], random: Random): readonly PastVisit[] {
  const readings = readingsByUnit();
  const visits = fleet.flatMap((vehicle) => {
    const kmAt = odometerLine(vehicle, readings.get(vehicle.row.unitNumber) ?? []);
    return vehicle.row.components.some(({ component, fitment }) => component === 'plug' && fitment === 'match')
      ? visitsOf(vehicle, kmAt, random)
      : [];
  });
  return visits.sort((a, b) => a.on.localeCompare(b.on) || Number(a.unit) - Number(b.unit));
}

/** What the dash of a vehicle showed on a day, as it is typed. */
export function odometerOn(vehicle: PastVehicle, day: PlainDate): string {
  const { row, odometerUnit } = vehicle;
  return shownText(odometerLine(vehicle, readingsByUnit().get(row.unitNumber) ?? [])(day), odometerUnit);
}

const shownText = (km: number, unit: 'km' | 'mi'): string =>
  `${unit === 'mi' ? Math.round(Math.round(km) / KM_PER_MILE) : Math.round(km)} ${unit}`;

type KmAt = (day: PlainDate) => number;

/** Readings of the sample file that follow each other; what goes backwards is a story of its own. */
function readingsByUnit(): ReadonlyMap<string, readonly (readonly [PlainDate, number])[]> {
  const rows: readonly Record<string, string>[] = parse(
    readFileSync(path.join(process.cwd(), 'samples', 'odometer.csv')),
    { columns: true },
  );
  const found = new Map<string, [PlainDate, number][]>();
  for (const { unit_number = '', read_on = '', odometer = '', unit } of rows) {
    const km = Number(odometer.replace(/[^\d.]/g, '')) * (unit === 'mi' ? KM_PER_MILE : 1);
    const own = found.get(unit_number) ?? [];
    found.set(unit_number, [...own, [read_on, km]]);
  }
  return found;
}

/** Where an odometer stood on a day: straight lines from new through what is on record. */
function odometerLine({ row, inServiceOn }: PastVehicle, readings: readonly (readonly [PlainDate, number])[]): KmAt {
  const serviced = row.components
    .flatMap(({ clocks }) => clocks)
    .filter(({ certainty, installed }) => certainty === 'exact' && installed.km > 0)
    .map(({ installed }) => [installed.on, installed.km] as const);
  const all = [[inServiceOn, 0] as const, ...serviced, ...readings].sort((a, b) => a[0].localeCompare(b[0]));
  const last = all.at(-1)?.[1] ?? 0;
  // What stands above the last, or below one before it, was misread.
  const knots: (readonly [PlainDate, number])[] = [];
  for (const knot of all) if (knot[1] <= last && knot[1] >= (knots.at(-1)?.[1] ?? 0)) knots.push(knot);
  return (day) => {
    const found = knots.findIndex(([on]) => on >= day);
    // After the last of them it goes on as it went before.
    const after = found < 0 ? knots.length - 1 : Math.max(1, found);
    const [a, b] = [knots[after - 1], knots[after]];
    if (!a || !b) return last;
    const share = daysBetween(a[0], day) / Math.max(1, daysBetween(a[0], b[0]));
    return a[1] + Math.max(0, share) * (b[1] - a[1]);
  };
}

interface Clock {
  readonly limits: Limits;
  installed: Installed;
  /** Life at which somebody gets round to it. */
  at: number;
}

function visitsOf(vehicle: PastVehicle, kmAt: KmAt, random: Random): readonly PastVisit[] {
  const layout = layoutOf(vehicle.family.model);
  const clocks = clocksOf(vehicle, kmAt, random);
  const visits: PastVisit[] = [];
  const inReach = vehicle.family.otherWork.filter(({ behind }) => behind === null).map(({ what }) => what);
  const add = (on: PlainDate, tasks: readonly TaskInput[], plugLife: number): void => {
    const { row, odometerUnit } = vehicle;
    visits.push({
      unit: row.unitNumber,
      vehicleId: row.id,
      depot: row.depot,
      hybrid: vehicle.family.hybrid,
      engine: vehicle.family.code,
      on,
      km: Math.round(kmAt(on)),
      odometer: shownText(kmAt(on), odometerUnit),
      tasks,
      otherWork: tasks.some(({ component }) => component === 'plug') ? inReach.slice(0, 1) : [],
      plugLife,
    });
  };
  const first = vehicle.inServiceOn > FROM ? addDays(vehicle.inServiceOn, 60) : FROM;
  for (let day = addDays(first, Math.floor(random() * 40)); day < UNTIL; day = addDays(day, 7)) {
    const lives = new Map([...clocks].map(([component, clock]) => [component, lifeOn(clock, day, kmAt(day))]));
    const wanted = [...clocks].filter(([component, { at }]) => (lives.get(component) ?? 0) >= at);
    if (wanted.length === 0) continue;
    const done = [...clocks].filter(([component, { at }]) => (lives.get(component) ?? 0) >= at * 0.86);
    const on = workday(day, random);
    add(
      on,
      done.map(([component]) =>
        replaceAll(
          component,
          wanted.some(([one]) => one === component),
        ),
      ),
      lives.get('plug') ?? 0,
    );
    for (const [, clock] of done) {
      clock.installed = { on, km: kmAt(on) };
      clock.at = askedAt(random);
    }
  }
  for (const [on, tasks] of [
    ...failures(layout, vehicle, random),
    ...tests(layout, vehicle, random),
    ...looks(layout, vehicle, random),
  ])
    if (on > vehicle.inServiceOn && visits.every((visit) => Math.abs(daysBetween(visit.on, on)) > 20))
      add(on, tasks, 0);
  for (const [on, tasks] of BEFORE_MISFIRES[vehicle.row.unitNumber] ?? []) add(on, tasks, 0);
  return visits;
}

/** Most are done a little before the limit, and none much after. */
const askedAt = (random: Random): number => Math.min(0.985, 0.92 + 0.05 * normal(random));

/** The clocks that this shop keeps: those with an interval, of what no story of today needs as it is. */
function clocksOf({ row }: PastVehicle, kmAt: KmAt, random: Random): Map<TaskComponent, Clock> {
  const kept = row.components.flatMap(
    ({ component, fitment, limitKm, limitMonths, limitShare, clocks }): [TaskComponent, Clock][] => {
      if (component === 'consumable' || fitment !== 'match' || (limitKm === null && limitMonths === null)) return [];
      if ((component === 'plug' ? KEPT : KEPT_OTHERS).has(row.unitNumber)) return [];
      const [oldest] = [...clocks].sort((a, b) => a.installed.km - b.installed.km);
      if (!oldest) return [];
      const installed = oldest.certainty === 'assumed' ? someTimeBefore(limitMonths, kmAt, random) : oldest.installed;
      return [
        [
          component,
          { limits: { distanceKm: limitKm, months: limitMonths, share: limitShare }, installed, at: askedAt(random) },
        ],
      ];
    },
  );
  return new Map(kept);
}

/** Nobody knows how old these were: by chance somewhere in their life when the books begin. */
function someTimeBefore(limitMonths: number | null, kmAt: KmAt, random: Random): Installed {
  const days = (limitMonths ?? 48) * 30.4;
  const on = addDays(FROM, -Math.round(days * (0.35 + 0.6 * random())));
  return { on, km: kmAt(on) };
}

const lifeOn = ({ limits, installed }: Clock, day: PlainDate, km: number): number =>
  installed.on > day ? 0 : due({ today: day, odometer: { on: day, km }, rate: null, installed, limits }).lifeUsed;

function replaceAll(component: TaskComponent, isDue: boolean): TaskInput {
  return { action: 'replace', component, places: 'all', why: isDue ? 'due' : 'with_other_work', note: '' };
}

/** Coils that failed in service: each is replaced where it sat, and nothing else. */
function failures(
  layout: Layout,
  { row }: PastVehicle,
  random: Random,
): readonly (readonly [PlainDate, readonly TaskInput[]])[] {
  return (['coil', 'rail'] as const).flatMap((component) => {
    const known = row.components.find((one) => one.component === component && one.fitment === 'match');
    if (!known) return [];
    return allPlaces(layout, component).flatMap((place) => {
      const inYears = -Math.log(1 - random()) / COIL_FAILURES_A_YEAR;
      const on = addDays(FROM, Math.round(inYears * 365));
      if (on > UNTIL) return [];
      return [
        [
          workday(on, random),
          [
            {
              action: 'replace',
              component,
              places: [placeId(place)],
              why: 'reported',
              note: 'shakes at idle, the lamp is on',
            } satisfies TaskInput,
          ],
        ] as const,
      ];
    });
  });
}

/** Coils that somebody suspected and measured. */
function tests(
  layout: Layout,
  { row }: PastVehicle,
  random: Random,
): readonly (readonly [PlainDate, readonly TaskInput[]])[] {
  const places = allPlaces(layout, 'coil');
  const place = places[Math.floor(random() * places.length)];
  const known = row.components.some((one) => one.component === 'coil' && one.fitment === 'match');
  if (!place || !known || random() > TESTED) return [];
  const on = workday(addDays(FROM, Math.floor(random() * daysBetween(FROM, UNTIL))), random);
  const task = {
    action: 'test',
    component: 'coil',
    places: [placeId(place)],
    why: 'reported',
    note: 'stumbled once',
  } as const;
  return [[on, [task]]];
}

/** Before winter: two coils or leads, those that are reached best, of what has to start are looked at in place. */
function looks(
  layout: Layout,
  { row }: PastVehicle,
  random: Random,
): readonly (readonly [PlainDate, readonly TaskInput[]])[] {
  if (!BEFORE_WINTER.has(row.dutyGroup)) return [];
  const component = allPlaces(layout, 'lead').length > 0 ? 'lead' : 'coil';
  const places = allPlaces(layout, component).slice(-2).map(placeId);
  return AUTUMNS.map((from) => [
    workday(addDays(from, Math.floor(random() * 26)), random),
    [{ action: 'inspect', component, places, why: 'due', note: 'before winter' } satisfies TaskInput],
  ]);
}

/** A day on which the shop is open, near a day. */
function workday(day: PlainDate, random: Random): PlainDate {
  let on = addDays(day, Math.floor(random() * 5));
  while (!isWorkingDay(USUAL_HOURS, on)) on = addDays(on, 1);
  return on > UNTIL ? UNTIL : on;
}
