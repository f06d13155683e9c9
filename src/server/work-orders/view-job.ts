import { and, eq, inArray } from 'drizzle-orm';
import { z } from 'zod';
import { sameNumbers } from '@/core/catalogue/same-part';
import { siteName, sitePlace } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import type { FleetId, SpecSheetId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import type { Json } from '@/core/work/entry';
import type { FloorJob, FloorSite, FloorStep } from '@/core/work/job-record';
import { isLive } from '@/core/work/order-state';
import type { Querier } from '@/db/client';
import { loadVerdicts } from '@/db/queries/findings';
import { loadDifferences, loadTimes, loadWaits, type WaitRow } from '@/db/queries/work-entries';
import { type FittedRow, loadWorkOrder, type StepRow } from '@/db/queries/work-orders';
import { people, vehicles } from '@/db/schema';
import { may } from '../access';
import { currentSheet } from '../catalogue/current-sheet';
import { notFound, type Outcome } from '../failure';
import { isDemoFleet } from '../ports/ports';
import { useCase } from '../use-case';
import { type FloorState, jobRecordOf, loadFloorState, measuredAt, orderModelOf } from './order-state';
import { previousSet } from './previous-set';
import { minutesWorked } from './work-time';

/** An order as a device at the vehicle carries it. */
export const viewFloor = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, id): Promise<Outcome<FloorJob>> {
    const order = await loadWorkOrder(deps.db, actor.fleetId, id);
    const state = order ? await loadFloorState(deps.db, order, deps.today()) : null;
    const [vehicle] = order ? await deps.db.select().from(vehicles).where(eq(vehicles.id, order.vehicleId)) : [];
    if (!order || !state || !vehicle) return notFound('work order');
    const { family, spec, rules } = state;
    const times = await loadTimes(deps.db, id);
    const before = await previousSet(deps.db, order);
    const live = isLive(order);
    const now = live ? await currentSheet(deps.db, actor.fleetId, deps.today(), order) : null;
    return ok({
      orderId: id,
      orderNumber: order.number,
      live: live && may(actor, 'record work'),
      unitNumber: vehicle.unitNumber,
      vehicleName: vehicle.name,
      engineCode: family.code,
      hybrid: family.hybrid,
      ...orderModelOf(state),
      caution: cautionOf(state),
      seat: spec.part.seat,
      thread: spec.part.thread,
      targetNm: Math.round((rules.torqueNm.min + rules.torqueNm.max) * 5) / 10,
      source: `${spec.sourceDocument}, revision ${spec.revision}${spec.checkedBy ? `, checked by ${spec.checkedBy}` : ', not checked by anyone else yet'}`,
      sheetChanged: now?.changed ?? null,
      noteBefore: before?.note || null,
      sites: await sitesOf(deps.db, state),
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
      demo: await isDemoFleet(deps.db, actor.fleetId),
      units: actor.unitSystem,
      personId: actor.personId,
      today: deps.today(),
      asOf: deps.now().toISOString(),
    });
  },
});

/** What people have said that is not in the record itself: differences, pictures, verdicts, waits. */
async function saidSince(q: Querier, { order, photos }: FloorState) {
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
    waits: waits.map(({ wait }) => ({ id: wait.id, words: waitWords(wait) })),
  };
}

const waitWords = ({ site, reason, partNumber, quantity }: WaitRow): string =>
  [site && `site ${site}`, reason, partNumber && `${quantity} × ${partNumber}`].filter(Boolean).join(', ');

function cautionOf({ family }: FloorState): string {
  const first = family.hybrid
    ? 'Hybrid: qualified people only; the engine can start by itself, isolate the traction system first.'
    : 'Cold engine, ignition off, eye protection with air or solvent.';
  return `${first} The manufacturer’s service information comes first.`;
}

async function sitesOf(
  q: Querier,
  { order, layout, sites, outgoing, graph }: FloorState,
): Promise<readonly FloorSite[]> {
  const names = await namesOf(
    q,
    order.fleetId,
    sites.flatMap(({ doneBy }) => doneBy ?? []),
  );
  const rows = new Map(sites.map((row) => [siteId(row), row]));
  return layout.sites.flatMap((site) => {
    const row = rows.get(siteId(site));
    const before = outgoing.get(siteId(site));
    if (!row) return [];
    return {
      ...site,
      id: siteId(site),
      name: siteName(layout, site),
      measured: measuredAt(row),
      where: sitePlace(layout, site),
      expectedNumber: row.expectedNumber,
      expectedKeys: row.expectedNumber === null ? null : sameNumbers(row.expectedNumber, graph),
      fittedGapMm: before?.fitted.gapMm ?? null,
      sinceKm: before?.sinceKm ?? null,
      fittedWith: before ? fittedWith(before.fitted) : null,
      doneBy: row.doneBy ? (names.get(row.doneBy) ?? null) : null,
      redo: needsRedo(row, order),
    };
  });
}

function fittedWith({ lot, compound, compoundBatch }: FittedRow): string | null {
  if (!lot && !compound) return null;
  const threads = compound ? `${compound}${compoundBatch ? `, batch ${compoundBatch}` : ''}` : 'threads dry';
  return [lot && `lot ${lot}`, threads].filter(Boolean).join('; ');
}

/** Done under another revision than the order works by now, and nobody let it stand. */
export const needsRedo = (
  site: { readonly doneAt: Date | null; readonly specSheetId: SpecSheetId; readonly releasedReason: string | null },
  order: { readonly specSheetId: SpecSheetId },
): boolean => site.doneAt !== null && site.specSheetId !== order.specSheetId && site.releasedReason === null;

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
