import { and, eq, min } from 'drizzle-orm';
import { partKey } from '@/core/catalogue/match';
import type { SupersessionGraph } from '@/core/catalogue/supersession';
import { type Layout, layoutOf } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { restingCylinders } from '@/core/engine/resting';
import type { PolicyChoice } from '@/core/policy/policies';
import type { Km, Mm, PersonId } from '@/core/shared/kinds';
import type { ShopWrench } from '@/core/torque/at-vehicle';
import type { Fields, JobRecord } from '@/core/work/entry';
import type { Lift } from '@/core/work/gate-table';
import type { OrderModel } from '@/core/work/order-model';
import { isFitted, type TaskRules } from '@/core/work/place-done';
import { answerField, countTarget, ORDER_TARGET, stepTarget } from '@/core/work/targets';
import { isTaskComponent } from '@/core/work/task';
import type { Querier } from '@/db/client';
import {
  type ComponentSheet,
  type EngineFamily,
  isPlugSheet,
  loadPartsByKey,
  loadSheets,
  type PartRow,
  type SpecSheet,
} from '@/db/queries/catalogue';
import type { loadVehicleKeys } from '@/db/queries/due-inputs';
import { loadFollowUps } from '@/db/queries/findings';
import { choicesFor, loadPolicyChoices } from '@/db/queries/policies';
import { type CountRow, loadCodes, loadCounts, loadLifts, loadPhotos, loadWrenches } from '@/db/queries/work-entries';
import {
  type FittedRow,
  loadOutgoing,
  loadPlaces,
  loadSteps,
  loadTasks,
  type PlaceRow,
  type StepRow,
  type TaskRow,
  type WorkOrderRow,
} from '@/db/queries/work-orders';
import { dueInputs, odometerReadings, people } from '@/db/schema';
import { loadNumbers, loadWhose } from '../catalogue/fitment-of';
import { type SheetInForce, sheetInForce } from '../catalogue/sheet-in-force';
import { placeFields, placeModelOf, targetOf } from './place-record';
import { rulesOf } from './task-rules';

/** A task with the sheet it works by and what its places are measured by. */
export interface TaskState {
  readonly row: TaskRow;
  readonly sheet: SheetInForce | null;
  readonly rules: TaskRules;
}

export interface FloorState {
  readonly order: WorkOrderRow;
  readonly vehicle: Awaited<ReturnType<typeof loadVehicleKeys>>[number];
  readonly family: EngineFamily;
  readonly tasks: readonly TaskState[];
  /** The sheet of its plugs; null: no task is on plugs. */
  readonly spec: SheetInForce<SpecSheet> | null;
  readonly layout: Layout;
  /** Cylinders that this vehicle rests at part load. */
  readonly resting: readonly number[];
  readonly graph: SupersessionGraph;
  readonly choices: readonly PolicyChoice[];
  readonly places: readonly PlaceRow[];
  /** Life distance of the vehicle by its last reading; null: it has none. */
  readonly lastKm: Km | null;
  /** What comes out of each place, by its target. */
  readonly outgoing: ReadonlyMap<string, Outgoing>;
  readonly steps: readonly StepRow[];
  readonly counts: readonly CountRow[];
  readonly photos: Awaited<ReturnType<typeof loadPhotos>>;
  readonly codes: Awaited<ReturnType<typeof loadCodes>>;
  readonly followUps: number;
  readonly lifts: readonly Lift[];
  readonly wrenches: readonly ShopWrench[];
  readonly today: string;
}

/** A part as it was fitted, on its way out. */
interface Outgoing {
  readonly fitted: FittedRow;
  /** Distance since it was fitted, km, where both ends are sure; by the last reading as long as the order is open. */
  readonly sinceKm: Km | null;
  /** Nobody knows when it was fitted: it went at least so far, since the record of its vehicle begins. */
  readonly atLeastKm: Km | null;
}

/** Those of some places at which a plug is worked on. */
export const plugPlaces = ({ places }: Pick<FloorState, 'places'>): readonly PlaceRow[] =>
  places.filter(({ component, movedToId }) => component === 'plug' && movedToId === null);

/** What was written of the dash after the road test. */
export const roadTestEnd = ({ steps }: Pick<FloorState, 'steps'>): string | undefined =>
  steps.find(({ kind }) => kind === 'road')?.answers.to;

/** The task of a place. */
export const taskOf = ({ tasks }: Pick<FloorState, 'tasks'>, place: Pick<PlaceRow, 'taskId'>): TaskState | undefined =>
  tasks.find(({ row }) => row.id === place.taskId);

/** Whether a new part goes in at a place, as far as is known. */
export function isNewAt(state: Pick<FloorState, 'tasks'>, place: PlaceRow): boolean {
  const task = taskOf(state, place);
  return task !== undefined && isFitted(task.row.action, place);
}

async function lastKmOf(q: Querier, { vehicleId }: WorkOrderRow): Promise<Km | null> {
  const [status] = await q
    .select({ km: dueInputs.odometerKm })
    .from(dueInputs)
    .where(eq(dueInputs.vehicleId, vehicleId));
  return status?.km ?? null;
}

async function outgoingOf(q: Querier, order: WorkOrderRow, lastKm: Km | null): Promise<ReadonlyMap<string, Outgoing>> {
  const [begin] = await q
    .select({ km: min(odometerReadings.odometerKm) })
    .from(odometerReadings)
    .where(and(eq(odometerReadings.vehicleId, order.vehicleId), eq(odometerReadings.state, 'accepted')));
  const now = order.closedKm ?? lastKm;
  const recorded = now === null || begin?.km == null ? 0 : now - begin.km;
  return new Map(
    (await loadOutgoing(q, order)).flatMap((fitted) => {
      const { component } = fitted;
      if (!isTaskComponent(component)) return [];
      const km = now !== null && fitted.installedKmCertainty === 'exact' ? now - fitted.installedKm : 0;
      const isAssumed = fitted.installedKmCertainty === 'assumed' && recorded > 0;
      const out = { fitted, sinceKm: km > 0 ? km : null, atLeastKm: isAssumed ? recorded : null };
      return [[targetOf({ ...fitted, component }), out] as const];
    }),
  );
}

/**
 * An order with all that decides at the vehicle; null where its vehicle or a sheet is gone.
 *
 * @param known its vehicle and engine, where they are at hand
 */
export async function loadFloorState(
  q: Querier,
  order: WorkOrderRow,
  today: string,
  known?: Pick<FloorState, 'vehicle' | 'family'>,
): Promise<FloorState | null> {
  const { fleetId } = order;
  const whose = known ?? (await loadWhose(q, order));
  if (!whose) return null;
  const { vehicle, family } = whose;
  const graph = await loadNumbers(q, fleetId);
  const choices = choicesFor(await loadPolicyChoices(q, fleetId), vehicle);
  const tasks = await taskStates(q, order, today, { vehicle, family, choices, graph });
  if (!tasks) return null;
  const lastKm = await lastKmOf(q, order);
  const spec = tasks.flatMap(({ sheet }) => (sheet && hasPlug(sheet) ? [sheet] : []))[0] ?? null;
  return {
    order,
    vehicle,
    family,
    tasks,
    spec,
    layout: layoutOf(family.model),
    resting: restingCylinders(family.resting, vehicle.variant ?? spec?.variant ?? null),
    graph,
    choices,
    places: await loadPlaces(q, order.id),
    lastKm,
    outgoing: await outgoingOf(q, order, lastKm),
    steps: await loadSteps(q, order.id),
    counts: await loadCounts(q, order.id),
    photos: await loadPhotos(q, order.id),
    codes: await loadCodes(q, order.id),
    followUps: (await loadFollowUps(q, fleetId, { workOrderId: order.id })).length,
    wrenches: await loadWrenches(q, fleetId),
    today,
    lifts: (await loadLifts(q, order.id)).map(({ at, ...lift }) => ({ ...lift, at: at.toISOString() })),
  };
}

const hasPlug = (sheet: SheetInForce): sheet is SheetInForce<SpecSheet> => isPlugSheet(sheet);

async function taskStates(
  q: Querier,
  order: WorkOrderRow,
  today: string,
  { vehicle, family, choices, graph }: Pick<FloorState, 'vehicle' | 'family' | 'choices' | 'graph'>,
): Promise<readonly TaskState[] | null> {
  const rows = await loadTasks(q, order.id);
  const ids = rows.flatMap(({ specSheetId }) => specSheetId ?? []);
  const sheets = await loadSheets(q, order.fleetId, today, { ids, orFamilyIds: [family.id] });
  const parts = await partsBeside(q, order, { rows, sheets, graph });
  const states = rows.flatMap((row): TaskState[] => {
    const ofSheet = sheets.find(({ id }) => id === row.specSheetId);
    const sheet = ofSheet ? sheetInForce(ofSheet, sheets, { family, vehicle }) : null;
    const rules = rulesOf(row, sheet, family, choices, { graph, parts });
    return rules ? [{ row, sheet, rules }] : [];
  });
  return states.length === rows.length ? states : null;
}

/** Parts that may be taken for those of the sheets: of other sheets of this engine, of their histories, approved, or typed. */
async function partsBeside(
  q: Querier,
  { id, fleetId }: WorkOrderRow,
  { rows, sheets, graph }: { rows: readonly TaskRow[]; sheets: readonly ComponentSheet[]; graph: SupersessionGraph },
): Promise<ReadonlyMap<string, PartRow>> {
  const known = new Map(sheets.map(({ part }) => [part.numberKey, part]));
  const typed = (await loadPlaces(q, id)).flatMap(({ newNumber }) => (newNumber ? [partKey(newNumber)] : []));
  const approved = rows.flatMap((row) => row.approved.map(({ number }) => partKey(number)));
  const keys = [...known.keys(), ...approved].flatMap((key) => graph.family(key));
  const more = [...new Set([...keys, ...typed])].filter((key) => !known.has(key));
  return new Map([
    ...known,
    ...(await loadPartsByKey(q, fleetId, more)).map((part) => [part.numberKey, part] as const),
  ]);
}

/** Whether a person may isolate the engine of an order: where it has a traction system, those who are qualified. */
export async function mayIsolate(
  q: Querier,
  { family }: Pick<FloorState, 'family'>,
  personId: PersonId,
): Promise<boolean> {
  if (!family.hybrid) return true;
  const [person] = await q.select({ isQualified: people.hybridQualified }).from(people).where(eq(people.id, personId));
  return person?.isQualified ?? false;
}

/** Done under another revision than its task works by now, and nobody let it stand. */
export function needsRedo(
  place: Pick<PlaceRow, 'taskId' | 'doneAt' | 'specSheetId' | 'releasedReason'>,
  tasks: readonly Pick<TaskState, 'row'>[],
): boolean {
  const sheet = tasks.find(({ row }) => row.id === place.taskId)?.row.specSheetId ?? null;
  return place.doneAt !== null && sheet !== null && place.specSheetId !== sheet && place.releasedReason === null;
}

/** How long the lead of a place is, as its engine needs it, mm; null: another part, or nobody has measured it. */
export function leadLengthOf({ family, layout }: Pick<FloorState, 'family' | 'layout'>, place: PlaceRow): Mm | null {
  if (place.component !== 'lead') return null;
  return family.leadLengthsMm?.[layout.sites.findIndex((site) => siteId(site) === siteId(place))] ?? null;
}

export const stepFields = (step: StepRow): Fields => ({
  state: step.state,
  ...Object.fromEntries(Object.entries(step.answers).map(([key, value]) => [answerField(key), value])),
});

type Rows = Pick<FloorState, 'order' | 'places' | 'steps' | 'counts'>;

/** The record as devices speak of it: fields by target. */
export function jobRecordOf({ order, places, steps, counts }: Rows): JobRecord {
  return Object.fromEntries([
    [ORDER_TARGET, { trayFirst: order.trayFirst }],
    ...places.map((place) => [targetOf(place), placeFields(place)] as const),
    ...steps.map((step) => [stepTarget(step.key), stepFields(step)] as const),
    ...counts.map(({ key, out, back }) => [countTarget(key), { out, back }] as const),
  ]);
}

/** The order as the rules of the core see it. @param mayIsolate as `mayIsolate` says of the person who asks */
export function orderModelOf(state: FloorState, mayIsolate = true): OrderModel {
  const { layout, tasks, places, steps, counts, codes, photos, followUps, lifts, wrenches, today } = state;
  return {
    layout,
    tasks: tasks.map(({ row: { id, action, component }, rules }) => ({ id, action, component, rules })),
    places: places.map((place) => placeModelOf(layout, place)),
    steps: steps.map(({ key, kind, title, perSite, asks }) => ({ key, kind, title, perSite, asks: asks ?? [] })),
    counts: counts.map(({ key, kind, what, expected, outStep, backStep }) => ({
      key,
      kind,
      what,
      expected,
      outStep,
      backStep,
    })),
    codesKept: codes.map(({ moment }) => moment),
    photos,
    followUps,
    wrenches,
    today,
    mayIsolate,
    lifts,
  };
}
