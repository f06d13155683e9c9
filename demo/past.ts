import { eq } from 'drizzle-orm';
import { codesInput } from '../src/contracts/order-entry';
import type { PlainDate } from '../src/core/calendar/plain-date';
import { layoutOf } from '../src/core/engine/layout';
import { siteId } from '../src/core/engine/model';
import { allPlaces, isCoil } from '../src/core/engine/places';
import type { FleetId, WorkOrderId } from '../src/core/shared/kinds';
import { normal, type Random, seeded } from '../src/core/stats/seeded';
import { dashFigure } from '../src/core/work/ask';
import type { Entry, Fields, Json } from '../src/core/work/entry';
import type { FloorJob, FloorPlace, FloorTask } from '../src/core/work/job-record';
import { plugRulesOf } from '../src/core/work/order-model';
import { allNormal, normalFor } from '../src/core/work/place-fields';
import { ORDER_TARGET } from '../src/core/work/targets';
import { loadFamilies, loadSheets } from '../src/db/queries/catalogue';
import { loadRecorded } from '../src/db/queries/due-inputs';
import { fittedComponents, vehicles, workOrders } from '../src/db/schema';
import type { Actor } from '../src/server/access';
import type { Deps } from '../src/server/deps';
import { closeWorkOrder } from '../src/server/work-orders/close-work-order';
import { keepCodes } from '../src/server/work-orders/codes';
import { liftGate } from '../src/server/work-orders/lift-gate';
import { openWorkOrder } from '../src/server/work-orders/open-work-order';
import type { TaskInput } from '../src/server/work-orders/plan-tasks';
import { viewFloor } from '../src/server/work-orders/view-job';
import { setWorking } from '../src/server/work-orders/work-time';
import { answered, inOrder, opening, said, send } from './device';
import { importFile } from './import-file';
import { must } from './must';
import { odometerOn, type PastVehicle, type PastVisit, planPast } from './past-plan';

/* Three years of closed work orders, played through the same use-cases as everyone's. */

const SEED = 1916;
const TUNE_UP = '5';

/** Why a supervisor let the work begin before every new part was on the bench. */
export const PARTS_ON_THE_WAY = 'the rest of the set is on the 11 o’clock ferry';

/** Who works where, and by how much their wrench is off, N·m: one of them pulls on. */
const TECHNICIANS = [
  { name: 'M. Vane', depot: 'Northhaven', pullsNm: 0.1 },
  { name: 'J. Holm', depot: 'Quarry Cross', pullsNm: -0.1 },
  { name: 'A. Corrie', depot: 'Machair Road', pullsNm: 0 },
  { name: 'S. Pirie', depot: 'Eastlight', pullsNm: 0.7 },
] as const;
type Technician = (typeof TECHNICIANS)[number];

/** Something of the past that is more than a visit, played in its turn: numbers follow the days. */
export interface PastStory {
  readonly on: PlainDate;
  readonly play: () => Promise<void>;
}

/** @param people ids by name */
export async function playPast(
  deps: Deps,
  supervisor: Actor,
  people: ReadonlyMap<string, Actor>,
  stories: readonly PastStory[],
): Promise<void> {
  const random = seeded(SEED);
  await importCoils(deps, supervisor);
  const visits = planPast(await fleetOf(deps, supervisor.fleetId), random);
  let from = 0;
  for (const { on, play } of stories) {
    const until = visits.findIndex((visit) => visit.on >= on);
    await playAll(deps, supervisor, people, visits, from, until < 0 ? visits.length : until);
    from = until < 0 ? visits.length : until;
    await play();
  }
  await playAll(deps, supervisor, people, visits, from, visits.length);
}

/** So many vehicles are in the bays at a time. */
const AT_ONCE = 4;

/** Opened one after the other, so that their numbers follow the days; worked on beside each other, each vehicle one at a time. */
async function playAll(
  deps: Deps,
  supervisor: Actor,
  people: ReadonlyMap<string, Actor>,
  visits: readonly PastVisit[],
  from: number,
  until: number,
): Promise<void> {
  const inBay = new Map<string, Promise<void>>();
  for (let i = from; i < until; i += 1) {
    const visit = visits[i];
    if (!visit) break;
    await inBay.get(visit.vehicleId);
    if (inBay.size >= AT_ONCE) await Promise.race(inBay.values());
    // A generator of its own: what is drawn does not depend on who is done first.
    const work = await openVisit(deps, supervisor, people, visit, seeded(SEED + 7919 * (i + 1)));
    const done = work().finally(() => inBay.delete(visit.vehicleId));
    inBay.set(visit.vehicleId, done);
  }
  await Promise.all(inBay.values());
}

/** Cap and leads of the breakdown lorry: nobody has got round to them. */
const LONG_AGO: readonly string[] = [
  '4,2018-05-02,104600 mi,all,proven,lead_set,,KM-L46',
  '4,2020-04-14,109200 mi,all,proven,cap,,KM-C46',
];

/** Every coil with the serial that it left its works with, where the files name none, and what was done long ago. */
async function importCoils(deps: Deps, supervisor: Actor): Promise<void> {
  const fitted = await deps.db
    .selectDistinct({ id: fittedComponents.vehicleId })
    .from(fittedComponents)
    .where(eq(fittedComponents.component, 'coil'));
  const sheets = await loadSheets(deps.db, supervisor.fleetId, deps.today());
  const numbers = new Map<string, string>(sheets.map((sheet) => [sheet.id, sheet.part.number]));
  const known = new Set<string>(fitted.map(({ id }) => id));
  const rows = (await fleetOf(deps, supervisor.fleetId)).flatMap(({ row, family, inServiceOn }) =>
    (['coil', 'rail'] as const).flatMap((component) =>
      known.has(row.id)
        ? []
        : allPlaces(layoutOf(family.model), component).map((place, i) =>
            [
              row.unitNumber,
              inServiceOn,
              '0',
              siteId(place),
              'proven',
              component,
              `NC-${row.unitNumber}-${i + 1}`,
              numbers.get(row.components.find((one) => one.component === component)?.specSheetId ?? '') ?? '',
            ].join(','),
          ),
    ),
  );
  const bytes = Buffer.from(
    ['unit_number,serviced_on,odometer,sites,history,component,tag,part_number', ...LONG_AGO, ...rows].join('\n'),
  );
  await importFile(deps, supervisor, { fileName: 'coils.csv', kind: 'service-history', bytes });
}

/** Today's tune-up of a distributor engine, half done: cap and rotor are in, and the first three plugs. */
export async function playTuneUp(deps: Deps, supervisor: Actor, people: ReadonlyMap<string, Actor>): Promise<void> {
  const [vehicle] = (await fleetOf(deps, supervisor.fleetId)).filter(({ row }) => row.unitNumber === TUNE_UP);
  if (!vehicle) throw new Error(`demo: no unit ${TUNE_UP}`);
  const replace = { action: 'replace', places: 'all', why: 'due', note: '' } as const;
  const tasks: readonly TaskInput[] = [
    { ...replace, component: 'cap' },
    { ...replace, component: 'rotor' },
    { ...replace, component: 'lead_set' },
    { ...replace, component: 'plug' },
    { ...replace, component: 'coil', action: 'inspect', why: 'with_other_work' },
  ];
  const { row } = vehicle;
  const visit: Doing = { unit: TUNE_UP, on: deps.today(), plugLife: 1 };
  const { workOrderId } = must(
    'tune-up',
    await openWorkOrder(deps, supervisor, { vehicleId: row.id, tasks: [...tasks] }),
  );
  const technician = TECHNICIANS[1];
  const worker = people.get(technician.name) ?? supervisor;
  const job = must('tune-up', await viewFloor(deps, worker, workOrderId));
  const plugs = job.places.filter(({ component }) => component === 'plug').slice(0, 3);
  const done = [...job.places.filter(({ component }) => component === 'cap' || component === 'rotor'), ...plugs];
  const entries = [
    ...said(job, momentOf(visit), ORDER_TARGET, { trayFirst: job.sites[0]?.id ?? null }),
    ...opening(job, { at: momentOf(visit), waitedFrom: momentOf(visit) }),
    ...done.flatMap((place) => placeEntries(job, place, visit, technician, seeded(SEED))),
  ];
  must('tune-up', await liftGate(deps, supervisor, { workOrderId, gate: 'parts', reason: PARTS_ON_THE_WAY }));
  await send(deps, worker, 'tune-up', workOrderId, inOrder(job, entries));
}

/** A visit that is open already, done and closed on a day: codes, every place and step. @param thenDeps that day */
export async function finishVisit(
  thenDeps: Deps,
  supervisor: Actor,
  people: ReadonlyMap<string, Actor>,
  unit: string,
  workOrderId: WorkOrderId,
): Promise<void> {
  const on = thenDeps.today();
  const vehicle = (await fleetOf(thenDeps, supervisor.fleetId)).find(({ row }) => row.unitNumber === unit);
  if (!vehicle) throw new Error(`demo: no unit ${unit}`);
  const technician = TECHNICIANS[2];
  const odometer = odometerOn(vehicle, on);
  const visit: Work = { unit, engine: vehicle.family.code, on, odometer, plugLife: 0 };
  const worker = people.get(technician.name) ?? supervisor;
  await workOn(thenDeps, { supervisor, worker, technician }, visit, workOrderId, seeded(SEED));
}

async function fleetOf(deps: Deps, fleetId: FleetId): Promise<readonly PastVehicle[]> {
  const families = new Map((await loadFamilies(deps.db, fleetId)).map((family) => [family.id, family]));
  const known = new Map(
    (await deps.db.select().from(vehicles).where(eq(vehicles.fleetId, fleetId))).map((row) => [row.id as string, row]),
  );
  const fleet = (await loadRecorded(deps.db, fleetId, null)).flatMap((row): PastVehicle[] => {
    const vehicle = known.get(row.id);
    const family = vehicle && families.get(vehicle.engineFamilyId);
    return family ? [{ row, family, inServiceOn: vehicle.inServiceOn, odometerUnit: vehicle.odometerUnit }] : [];
  });
  return fleet.sort((a, b) => Number(a.row.unitNumber) - Number(b.row.unitNumber));
}

function technicianFor({ depot, hybrid }: PastVisit, random: Random): Technician {
  const able = hybrid ? TECHNICIANS.slice(0, 2) : TECHNICIANS;
  const [first] = able;
  return (
    able.find((one) => one.depot === depot && random() < 0.85) ?? able[Math.floor(random() * able.length)] ?? first
  );
}

/** @returns the work that is left to do */
async function openVisit(
  deps: Deps,
  supervisor: Actor,
  people: ReadonlyMap<string, Actor>,
  visit: PastVisit,
  random: Random,
): Promise<() => Promise<void>> {
  const technician = technicianFor(visit, random);
  const worker = people.get(technician.name) ?? supervisor;
  const then: Deps = { ...deps, today: () => visit.on, now: () => new Date(`${visit.on}T14:20:00Z`) };
  const what = `unit ${visit.unit} on ${visit.on}`;
  const opened = must(
    what,
    await openWorkOrder(then, supervisor, {
      vehicleId: visit.vehicleId,
      tasks: [...visit.tasks],
      otherWork: [...visit.otherWork],
      releaseReason: 'as before',
    }),
  );
  return () => workOn(then, { supervisor, worker, technician }, visit, opened.workOrderId, random);
}

interface Hands {
  readonly supervisor: Actor;
  readonly worker: Actor;
  readonly technician: Technician;
}

/** Codes, every place and step, and the close. */
async function workOn(
  then: Deps,
  { supervisor, worker, technician }: Hands,
  visit: Work,
  workOrderId: WorkOrderId,
  random: Random,
): Promise<void> {
  const what = `unit ${visit.unit} on ${visit.on}`;
  for (const moment of ['before', 'after'] as const)
    must(what, await keepCodes(then, worker, codesInput.parse({ workOrderId, moment, typed: 'none' })));
  const job = must(what, await viewFloor(then, worker, workOrderId));
  const entries = [
    ...job.places.flatMap((place) => placeEntries(job, place, visit, technician, random)),
    ...answered(job, {
      at: momentOf(visit),
      waitedFrom: `${visit.on}T09:10:00Z`,
      dash: dashFigure(visit.odometer) ?? undefined,
    }),
  ];
  const first = job.sites[0];
  if (job.plug && first) entries.unshift(...said(job, momentOf(visit), ORDER_TARGET, { trayFirst: first.id }));
  await send(then, worker, what, workOrderId, inOrder(job, entries));
  await clock(then, worker, visit, workOrderId, random);
  must(what, await closeWorkOrder(then, supervisor, { workOrderId, version: 1, odometer: visit.odometer, note: '' }));
}

/** By how much a visit takes longer than its steps say, by engine: this shop knows some engines better than others. */
const TAKES: Readonly<Record<string, number>> = {
  'AG-18': 0.88,
  'AG-11T': 0.95,
  'PW-34M': 1.22,
  'PW-38': 1.3,
  'SX-52L': 1.15,
  'SX-61T': 1.25,
  'TV-22H': 1.1,
};
/** How far one visit differs from another. */
const VISITS_DIFFER = 0.13;

/** Clocks in and out as the work took: from eight in the morning. */
async function clock(then: Deps, worker: Actor, visit: Work, workOrderId: WorkOrderId, random: Random): Promise<void> {
  const [order] = await then.db.select().from(workOrders).where(eq(workOrders.id, workOrderId));
  const took = (order?.computedMinutes ?? 0) * (TAKES[visit.engine] ?? 1.04) * Math.exp(VISITS_DIFFER * normal(random));
  const from = Date.parse(`${visit.on}T08:00:00Z`);
  for (const [working, at] of [
    [true, from],
    [false, from + took * 60_000],
  ] as const)
    must(visit.unit, await setWorking({ ...then, now: () => new Date(at) }, worker, { workOrderId, working }));
}

/** A visit as far as its records tell of it. */
type Doing = Pick<PastVisit, 'unit' | 'on' | 'plugLife'>;
/** The same as far as it is worked on and closed. */
type Work = Doing & Pick<PastVisit, 'engine' | 'odometer'>;

/** When it was entered. */
const momentOf = ({ on }: Doing): string => `${on}T10:30:00Z`;

function placeEntries(job: FloorJob, place: FloorPlace, visit: Doing, technician: Technician, random: Random): Entry[] {
  const task = job.tasks.find(({ id }) => id === place.task);
  if (!task) return [];
  const fields =
    place.component === 'plug'
      ? plugFields(job, place, visit, technician, random)
      : partFields(place, task, visit, random);
  return said(job, momentOf(visit), place.target, { ...fields, done: true });
}

const pick = <T>(random: Random, from: readonly T[]): T => from[Math.floor(random() * from.length)] as T;

/** A plug that came out worn by its life, and the one that went in. */
function plugFields(job: FloorJob, place: FloorPlace, visit: Doing, technician: Technician, random: Random): Fields {
  const rules = plugRulesOf(job);
  if (!job.plug || !rules) return {};
  const { minMm, maxMm } = rules.gap;
  const middle = (minMm + maxMm) / 2;
  // µm per 1,000 km, as plugs of these kinds wear; where nobody knows how far it went, by its life.
  const rate = (rules.electrode === 'nickel' ? 4.5 : 1.6) * (1 + 0.15 * normal(random));
  const grown = place.sinceKm === null ? 0.1 * visit.plugLife : (rate * place.sinceKm) / 1_000_000;
  const aim = (rules.torqueNm.min + rules.torqueNm.max) / 2 + technician.pullsNm + 0.25 * normal(random);
  const torque = Math.min(rules.torqueNm.max, Math.max(rules.torqueNm.min, aim));
  const gap = Math.min(maxMm, Math.max(minMm, middle + 0.008 * normal(random)));
  return {
    observedNumber: place.expectedNumber ?? rules.partNumber,
    removedGap: `${(middle + Math.max(0, grown)).toFixed(2)} mm`,
    seen: { ...allNormal(job.plug.seat, job.layout.model.ignition), ...wornWords(visit.plugLife, random) },
    hole: 'sound',
    start: 'by hand',
    breakawayFeel: visit.plugLife > 0.95 && random() < 0.15 ? 'tight' : 'normal',
    newNumber: rules.partNumber,
    newGap: `${gap.toFixed(3)} mm`,
    newLot: `${rules.partNumber.slice(0, 1)}${visit.on.slice(2, 4)}-${visit.on.slice(5, 7)}`,
    compound: rules.lubricant === 'dry' ? null : 'nickel compound',
    torqueMethod: 'wrench',
    installedTorque: `${torque.toFixed(2)} N·m`,
  };
}

/** Rounded electrodes are age; here and there a nose is greyer than tan. */
function wornWords(life: number, random: Random): Readonly<Record<string, number>> {
  return { ...(life > 0.6 ? { 'electrodes rounded': 2 } : {}), ...(random() < 0.2 ? { 'nose grey': 1 } : {}) };
}

const FAILED_COIL = ['coil body cracked', 'coil tower tracked', 'coil terminal corroded'] as const;

/** Another part: looked at, and replaced where its task says so. */
function partFields(place: FloorPlace, task: FloorTask, visit: Doing, random: Random): Fields {
  const { component } = place;
  const isFailed = task.action === 'replace' && task.why === 'reported';
  const normalWords = normalFor(component);
  const seen: Json =
    isFailed && isCoil(component)
      ? { ...without(normalWords, 'coil sound'), [pick(random, FAILED_COIL)]: 2 }
      : normalWords;
  if (task.action === 'inspect') return { seen, result: 'good' };
  if (task.action === 'test') return { result: 'good', ...resistances(task, random) };
  const torque = task.rules.torqueNm;
  return {
    seen,
    newNumber: task.rules.partNumber ?? '',
    ...(component === 'lead_set' && task.rules.component !== 'plug'
      ? { leadsOn: task.rules.leads.map(({ site }) => site).join(' ') }
      : {}),
    ...(isCoil(component) ? { tagIn: serialOf(visit, place) } : {}),
    ...(torque ? { torqueMethod: 'wrench', installedTorque: `${((torque.min + torque.max) / 2).toFixed(1)} N·m` } : {}),
  };
}

/** Both windings within the sheet. */
function resistances({ rules }: FloorTask, random: Random): Fields {
  if (rules.component === 'plug' || !rules.primaryOhm || !rules.secondaryOhm) return {};
  const within = ({ min, max }: { readonly min: number; readonly max: number }): number =>
    min + (max - min) * (0.3 + 0.4 * random());
  return {
    primaryOhm: `${within(rules.primaryOhm).toFixed(2)} Ω`,
    secondaryOhm: `${(within(rules.secondaryOhm) / 1000).toFixed(1)} kΩ`,
  };
}

const without = (words: Readonly<Record<string, 2>>, gone: string): Readonly<Record<string, 2>> =>
  Object.fromEntries(Object.entries(words).filter(([word]) => word !== gone));

/** What stands on a coil bought about then. */
const serialOf = ({ unit, on }: Doing, { id }: FloorPlace): string =>
  `NC-${on.slice(2, 7).replace('-', '')}-${unit}${id}`;
