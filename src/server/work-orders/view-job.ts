import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { sameNumbers } from '@/core/catalogue/same-part';
import { siteName, siteWhere } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { isOfEngine, servedBy } from '@/core/engine/places';
import { shownToday } from '@/core/odometer/intake';
import type { FleetId, Nm } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Json } from '@/core/work/entry';
import type { FloorJob, FloorPlace, FloorPlug, FloorStep, FloorTask } from '@/core/work/job-record';
import { isLive } from '@/core/work/order-state';
import type { Querier } from '@/db/client';
import type { ComponentSheet } from '@/db/queries/catalogue';
import { loadVerdicts } from '@/db/queries/findings';
import { loadDifferences, loadTimes, loadWaits } from '@/db/queries/work-entries';
import { type FittedRow, loadWorkOrder, type StepRow } from '@/db/queries/work-orders';
import { people, vehicles } from '@/db/schema';
import { may } from '../access';
import { sheetChange } from '../catalogue/current-sheet';
import { notFound, type Outcome } from '../failure';
import { isDemoFleet, portsFor } from '../ports/ports';
import { useCase } from '../use-case';
import {
  type FloorState,
  jobRecordOf,
  leadLengthOf,
  loadFloorState,
  mayIsolate,
  needsRedo,
  orderModelOf,
  type TaskState,
} from './order-state';
import { placeModelOf, targetOf } from './place-record';
import { previousSet } from './previous-set';
import { stopOf } from './wait-for';
import { minutesWorked } from './work-time';

function dashOf({ lastKm, vehicle }: FloorState): FloorJob['dash'] {
  const unit = vehicle.odometerUnit;
  return lastKm === null ? null : { shown: shownToday(lastKm, unit, vehicle), unit };
}

/** An order as a device at the vehicle carries it. */
export const viewFloor = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, id): Promise<Outcome<FloorJob>> {
    const order = await loadWorkOrder(deps.db, actor.fleetId, id);
    const state = order ? await loadFloorState(deps.db, order, deps.today()) : null;
    const [vehicle] = order ? await deps.db.select().from(vehicles).where(eq(vehicles.id, order.vehicleId)) : [];
    if (!order || !state || !vehicle) return notFound('work order');
    const { family } = state;
    const times = await loadTimes(deps.db, id);
    const before = await previousSet(deps.db, order);
    const live = isLive(order);
    const demo = await isDemoFleet(deps.db, actor.fleetId);
    const tasks = state.tasks.map(({ row }) => row);
    const sheetChanged = live ? await sheetChange(deps.db, actor.fleetId, deps.today(), state, tasks) : null;
    return ok({
      orderId: id,
      orderNumber: order.number,
      live: live && may(actor, 'record work'),
      unitNumber: vehicle.unitNumber,
      vehicleName: vehicle.name,
      engineCode: family.code,
      hybrid: family.hybrid,
      ...orderModelOf(state, await mayIsolate(deps.db, state, actor.personId)),
      dash: dashOf(state),
      caution: cautionOf(state),
      plug: plugOf(state),
      tasks: state.tasks.map(toTask),
      sheetChanged,
      noteBefore: before?.note || null,
      sites: state.layout.sites.map((site) => ({
        ...site,
        id: siteId(site),
        name: siteName(state.layout, site),
        where: siteWhere(state.layout, site),
      })),
      places: await placesOf(deps.db, state),
      steps: state.steps.map(toStep),
      record: jobRecordOf(state),
      ...(await saidSince(deps.db, state)),
      photosBefore: before
        ? before.photos.map(({ id: photo, target }) => ({ id: photo, orderId: before.id, target, on: before.on }))
        : [],
      workingSince:
        times.find(({ time }) => time.personId === actor.personId && time.toAt === null)?.time.fromAt.toISOString() ??
        null,
      minutes: order.minutes,
      minutesWorked: minutesWorked(
        times.map(({ time }) => time),
        deps.now(),
      ),
      hasCodeReader: portsFor(demo).codeReader !== null,
      demo,
      units: actor.unitSystem,
      personId: actor.personId,
      today: deps.today(),
      asOf: deps.now().toISOString(),
    });
  },
});

/** What people have said that is not in the record itself: differences, pictures, verdicts, waits. */
async function saidSince(q: Querier, { order, layout, photos }: FloorState) {
  const waits = await loadWaits(q, order.fleetId, { workOrderId: order.id, open: true });
  return {
    differences: (await loadDifferences(q, order.id)).map(({ entry, who }) => ({
      id: entry.id,
      target: entry.target,
      field: entry.field,
      said: entry.value as Json,
      by: who,
      at: entry.enteredAt.toISOString(),
    })),
    photos: photos.map(({ id, target, takenAt, who }) => ({ id, target, by: who, at: takenAt.toISOString() })),
    decided: (await loadVerdicts(q, order.id)).flatMap(({ verdict, role }) =>
      role === 'supervisor' ? [verdict.findingKey] : [],
    ),
    stops: waits.map((wait) => stopOf(wait, layout)),
  };
}

function cautionOf({ family }: FloorState): string {
  const first = family.hybrid
    ? 'Hybrid: qualified people only; the engine can start by itself, isolate the traction system first.'
    : 'Cold engine, ignition off, eye protection with air or solvent.';
  return `${first} The manufacturer’s service information comes first.`;
}

const middle = ({ min, max }: { readonly min: Nm; readonly max: Nm }): Nm => Math.round((min + max) * 5) / 10;

const sourceOf = (sheet: ComponentSheet): string =>
  `${sheet.sourceDocument}, revision ${sheet.revision}${sheet.checkedBy ? `, checked by ${sheet.checkedBy}` : ', not checked by anyone else yet'}`;

const toTask = ({ row, sheet, rules }: TaskState): FloorTask => ({
  id: row.id,
  action: row.action,
  component: row.component,
  why: row.why,
  rules,
  targetNm: rules.torqueNm ? middle(rules.torqueNm) : null,
  source: sheet ? sourceOf(sheet) : null,
});

/** The plug of the order and how it is tightened; null: no task takes one out. */
function plugOf({ tasks, spec }: FloorState): FloorPlug | null {
  const rules = tasks.flatMap((task) => (task.rules.component === 'plug' ? [task.rules] : []))[0];
  if (!rules || !spec) return null;
  const { seat, thread } = spec.part;
  return { rules, seat, thread, targetNm: middle(rules.torqueNm), source: sourceOf(spec) };
}

async function placesOf(q: Querier, state: FloorState): Promise<readonly FloorPlace[]> {
  const { order, layout, places, outgoing, graph, tasks } = state;
  const names = await namesOf(
    q,
    order.fleetId,
    places.flatMap(({ doneBy }) => doneBy ?? []),
  );
  return places.map((row) => {
    const before = outgoing.get(targetOf(row));
    return {
      ...placeModelOf(layout, row),
      sites: isOfEngine(row.component) ? [] : servedBy(layout, row.component, row).map(siteId),
      expectedNumber: row.expectedNumber,
      expectedKeys: row.expectedNumber === null ? null : sameNumbers(row.expectedNumber, graph),
      expectedTag: row.expectedTag,
      lengthMm: leadLengthOf(state, row),
      fittedGapMm: before?.fitted.gapMm ?? null,
      sinceKm: before?.sinceKm ?? null,
      fittedWith: before ? fittedWith(before.fitted) : null,
      doneBy: row.doneBy ? (names.get(row.doneBy) ?? null) : null,
      redo: needsRedo(row, tasks),
    };
  });
}

function fittedWith({ lot, compound, compoundBatch }: FittedRow): string | null {
  if (!lot && !compound) return null;
  const threads = compound ? `${compound}${compoundBatch ? `, batch ${compoundBatch}` : ''}` : 'threads dry';
  return [lot && `lot ${lot}`, threads].filter(Boolean).join('; ');
}

async function namesOf(q: Querier, fleetId: FleetId, ids: readonly string[]): Promise<ReadonlyMap<string, string>> {
  if (ids.length === 0) return new Map();
  const rows = await q
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(and(eq(people.fleetId, fleetId), inArray(people.id, [...ids])));
  return new Map(rows.map(({ id, name }) => [id, name]));
}

const toStep = ({ tools, consumables, asks, ...step }: StepRow): FloorStep => ({
  key: step.key,
  kind: step.kind,
  phase: step.phase,
  title: step.title,
  why: step.why,
  caution: step.caution,
  tools: tools ?? [],
  consumables: consumables ?? [],
  asks: asks ?? [],
  minutes: step.minutes,
  perSite: step.perSite,
});
