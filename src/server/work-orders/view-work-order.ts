import { and, asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import { timeOf } from '@/core/calendar/zone';
import type { SupersessionGraph } from '@/core/catalogue/supersession';
import { siteName, siteWhere } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { placeId } from '@/core/engine/places';
import { fastWear, wearRate } from '@/core/gap/wear';
import { USUAL_HOURS } from '@/core/planning/hours';
import { ok } from '@/core/shared/result';
import { type BoxPick, pickBoxes } from '@/core/stock/pick';
import { countsIn } from '@/core/work/order-model';
import { isLive } from '@/core/work/order-state';
import { placeName } from '@/core/work/say-places';
import { leftOpenOf } from '@/core/work/stop';
import type { TaskComponent } from '@/core/work/task';
import type { Querier } from '@/db/client';
import { auditOf } from '@/db/queries/audit';
import type { PartRow } from '@/db/queries/catalogue';
import { loadFollowUps } from '@/db/queries/findings';
import { loadTimes, loadWaits } from '@/db/queries/work-entries';
import { bookingOf, listWorkOrderRows, loadWorkOrder } from '@/db/queries/work-orders';
import { bays, depots, people, vehicles } from '@/db/schema';
import { listKept } from '../bench/keep-result';
import { sheetChange } from '../catalogue/current-sheet';
import { currentOf, loadGraph } from '../catalogue/fitment-of';
import { notFound } from '../failure';
import { findingsOf, foundDiffers, gapLimitOf, wearOf } from '../findings/findings-of';
import { threadsFor } from '../policies/threads';
import { portsOf } from '../ports/ports';
import { useCase } from '../use-case';
import { learnedFor } from './learned-of';
import { missingOf } from './missing-of';
import {
  type FloorState,
  isNewAt,
  jobRecordOf,
  loadFloorState,
  needsRedo,
  orderModelOf,
  plugPlaces,
  roadTestEnd,
  taskOf,
} from './order-state';
import { stateOfPlace, targetOf } from './place-record';
import { previousSet } from './previous-set';
import { stopOf } from './wait-for';
import { gatesViewOf, wayOf } from './way-of';

/** A work order with all that its pages show. */
export const viewWorkOrder = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, id) {
    const order = await loadWorkOrder(deps.db, actor.fleetId, id);
    const [vehicle] = order ? await deps.db.select().from(vehicles).where(eq(vehicles.id, order.vehicleId)) : [];
    if (!order || !vehicle) return notFound('work order');
    const state = await loadFloorState(deps.db, order, deps.today());
    const [row] = await listWorkOrderRows(deps.db, actor.fleetId, { id });
    if (!state || !row) return notFound('work order');
    const { family, layout, steps, codes, photos } = state;
    const record = jobRecordOf(state);
    const findings = await findingsOf(deps.db, state);
    const live = isLive(order);
    const rows = state.tasks.map(({ row: task }) => task);
    const sheetChanged = live ? await sheetChange(deps.db, actor.fleetId, deps.today(), state, rows) : null;
    const missing = live ? await missingOf(deps.db, state, findings, sheetChanged) : [];
    const [waits, times] = await Promise.all([
      loadWaits(deps.db, actor.fleetId, { workOrderId: id, open: true }),
      loadTimes(deps.db, id),
    ]);
    const kept = await listKept(deps, actor, id);
    const tasks = tasksOf(state);
    return ok({
      order,
      tasks,
      kit: kitOf(state),
      way: wayOf(state),
      gates: gatesViewOf(state),
      lifts: state.lifts,
      plug: await plugOf(deps.db, state),
      kept: kept.ok ? kept.value : [],
      row,
      booking: bookingOf(row),
      vehicle,
      family,
      layout,
      sites: sitesOf(state),
      steps,
      missing,
      findings,
      counts: countsIn(orderModelOf(state), record),
      roadTestEnd: roadTestEnd(state),
      codes,
      photos,
      before: await previousSet(deps.db, order),
      /** Why it stands still. */
      stops: live ? waits.map((wait) => stopOf(wait, layout)) : [],
      leftOpen: leftOpenOf(
        tasks.flatMap(({ row: { component }, places }) => places.map((place) => ({ ...place, component }))),
        record,
      ),
      times,
      sheetChanged,
      learned: await learnedFor(deps.db, state),
      handedOverName: order.handedOverBy
        ? ((await deps.db.select({ name: people.name }).from(people).where(eq(people.id, order.handedOverBy)))[0]
            ?.name ?? null)
        : null,
      followUps: await loadFollowUps(deps.db, actor.fleetId, { workOrderId: id }),
      history: await auditOf(deps.db, actor.fleetId, 'work-order', id),
      hasCodeReader: (await portsOf(deps.db, actor.fleetId)).codeReader !== null,
    });
  },
});

export type WorkOrderView = Extract<Awaited<ReturnType<typeof viewWorkOrder>>, { ok: true }>['value'];

/** The places of every part that is no plug. */
export const partPlaces = ({ tasks }: Pick<WorkOrderView, 'tasks'>) =>
  tasks.flatMap(({ row, places }) => (row.component === 'plug' ? [] : places));

export type WorkOrderSiteView = WorkOrderView['sites'][number];

/** The plugs of an order: their sheet, what goes on their threads, and which boxes to take off the shelf. Null: none is touched. */
async function plugOf(q: Querier, state: FloorState) {
  const { spec, family, choices } = state;
  if (!spec) return null;
  const { graph, byKey } = await loadGraph(q, state.order.fleetId);
  const plugs = plugPlaces(state);
  const wanted = plugs.filter((place) => place.newNumber === null && isNewAt(state, place)).length;
  return {
    spec,
    current: currentOf(graph, byKey, spec.part),
    pick: pickOf(spec.part.numberKey, wanted, graph, byKey),
    threads: threadsFor(spec, family, choices),
    gapLimitMm: gapLimitOf(spec),
    replaced: plugs.filter((place) => isNewAt(state, place)).length,
  };
}

/** The tasks with their places, as pages and other software show them. */
function tasksOf(state: FloorState) {
  const { layout, tasks, places } = state;
  return tasks.map(({ row, sheet, rules }) => ({
    row,
    sheet,
    rules,
    places: places
      .filter(({ taskId }) => taskId === row.id)
      .map((place) => ({
        place,
        target: targetOf(place),
        id: placeId(place),
        name: placeName(layout, place.component, place),
        state: stateOfPlace(place),
        redo: needsRedo(place, tasks),
      })),
  }));
}

/** What goes in, by number: for each part how many places still take one. */
function kitOf(state: FloorState) {
  const kit = new Map<string, { partNumber: string; component: TaskComponent; quantity: number }>();
  for (const place of state.places) {
    const sheet = taskOf(state, place)?.sheet;
    const standing = stateOfPlace(place);
    if (!sheet || standing === 'moved' || standing === 'left' || !isNewAt(state, place)) continue;
    const { number: partNumber } = sheet.part;
    const line = kit.get(partNumber) ?? { partNumber, component: place.component, quantity: 0 };
    kit.set(partNumber, { ...line, quantity: line.quantity + 1 });
  }
  return [...kit.values()];
}

/** The plug sites with what stood there before, how their gaps have grown, and whether they are to be done again. */
function sitesOf(state: FloorState) {
  const { layout, tasks, outgoing, graph } = state;
  const at = new Map(layout.sites.map((site) => [siteId(site), site]));
  const worn = plugPlaces(state).map((place) => ({ ...place, wear: wearOf(place, outgoing, graph) }));
  const fast = fastWear(worn);
  return worn.map((plug) => {
    const site = at.get(siteId(plug));
    const before = outgoing.get(targetOf(plug));
    return {
      ...plug,
      target: targetOf(plug),
      name: siteName(layout, plug),
      where: site ? siteWhere(layout, site) : '',
      differs: foundDiffers(plug, graph),
      fittedGapMm: before?.fitted.gapMm ?? null,
      sinceKm: before?.sinceKm ?? null,
      atLeastKm: before?.atLeastKm ?? null,
      /** µm per 1,000 km. */
      growth: plug.wear && wearRate(plug.wear),
      wearsFaster: fast.has(siteId(plug)),
      redo: needsRedo(plug, tasks),
    };
  });
}

/** Null where nothing is wanted any more. */
function pickOf(
  numberKey: string,
  wanted: number,
  graph: SupersessionGraph,
  byKey: ReadonlyMap<string, PartRow>,
): BoxPick | null {
  if (wanted === 0) return null;
  const boxes = (same: ReadonlySet<string>) =>
    graph.family(numberKey).flatMap((key) => (same.has(key) ? (byKey.get(key) ?? []) : []));
  const numbers = graph.sameParts(numberKey);
  const end = graph.current(numberKey);
  const redesign = end.kind === 'current' && !numbers.has(end.part) ? boxes(graph.sameParts(end.part)) : [];
  return pickBoxes(wanted, boxes(numbers), redesign);
}

/** Bays of the vehicle's depot and people who can take the job, for the planning form. */
export const whereAndWho = useCase({
  permission: 'read the fleet',
  input: z.object({ depotId: z.uuid(), hybrid: z.boolean() }),
  async run(deps, actor, { depotId, hybrid }) {
    const depotBays = await deps.db
      .select({ id: bays.id, name: bays.name })
      .from(bays)
      .where(and(eq(bays.fleetId, actor.fleetId), eq(bays.depotId, depotId)))
      .orderBy(asc(bays.name));
    const technicians = await deps.db
      .select({ id: people.id, name: people.name, hybridQualified: people.hybridQualified })
      .from(people)
      .where(and(eq(people.fleetId, actor.fleetId), eq(people.role, 'technician'), eq(people.active, true)))
      .orderBy(asc(people.name));
    const [depot] = await deps.db
      .select({ opensMin: depots.opensMin })
      .from(depots)
      .where(and(eq(depots.fleetId, actor.fleetId), eq(depots.id, depotId)));
    return ok({
      opens: timeOf(depot?.opensMin ?? USUAL_HOURS.fromMin),
      bays: depotBays,
      people: technicians.filter((person) => !hybrid || person.hybridQualified),
    });
  },
});
