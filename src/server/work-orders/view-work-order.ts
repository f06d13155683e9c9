import { and, asc, eq } from 'drizzle-orm';
import { siteName, sitePlace } from '@/core/engine/layout';
import type { SupersessionGraph } from '@/core/fitment/supersession';
import { gapGrowth } from '@/core/gap/check';
import { ok } from '@/core/shared/result';
import { auditOf } from '@/db/queries/audit';
import { loadFollowUps } from '@/db/queries/findings';
import { loadLabour, loadTimes, loadWaits } from '@/db/queries/floor';
import { listWorkOrderRows, loadFittedPlugs, loadWorkOrder, type SiteRow } from '@/db/queries/work-orders';
import { bays, people, vehicles } from '@/db/schema';
import { type Actor, refusal } from '../access';
import { listKept } from '../bench/keep-result';
import { currentOf, loadGraph } from '../catalogue/fitment-of';
import { sheetNow } from '../catalogue/sheet-now';
import type { Deps } from '../deps';
import { notFound } from '../failure';
import { findingsOf, foundDiffers, gapLimitOf } from '../findings/findings-of';
import { loadFloorState } from '../floor/floor-state';
import { needsRedo } from '../floor/view-floor';
import { threadsFor } from '../policies/threads';
import { blockersOf } from './blockers-of';
import { setBefore } from './earlier-set';

/** A work order with all that its pages show. */
export async function viewWorkOrder(deps: Deps, actor: Actor, id: string) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
  const order = await loadWorkOrder(deps.db, actor.fleetId, id);
  const [vehicle] = order ? await deps.db.select().from(vehicles).where(eq(vehicles.id, order.vehicleId)) : [];
  if (!order || !vehicle) return notFound('work order');
  const state = await loadFloorState(deps.db, order, deps.today());
  const [row] = await listWorkOrderRows(deps.db, actor.fleetId, { id });
  if (!state || !row) return notFound('work order');
  const { family, spec, layout, sites, steps, counts, codes, photos, choices } = state;
  const fitted = await loadFittedPlugs(deps.db, order.vehicleId);
  const places = new Map(layout.sites.map((site) => [`${site.cylinder}${site.position}`, site]));
  const fittedBySite = new Map(fitted.map(({ fitted: f }) => [`${f.cylinder}${f.position}`, f]));
  const now = order.closedKm ?? null;
  const { graph, byKey } = await loadGraph(deps.db, actor.fleetId);
  const named = sites.map((site) => {
    const place = places.get(`${site.cylinder}${site.position}`);
    const before = fittedBySite.get(`${site.cylinder}${site.position}`);
    return {
      ...site,
      name: siteName(layout, site),
      where: place ? sitePlace(layout, place) : '',
      differs: foundDiffers(site, graph),
      fitted: before ?? null,
      fittedGapMm: before?.gapMm ?? null,
      growth: growthOf(site, before, now, graph),
      redo: needsRedo(site, order),
    };
  });
  const findings = await findingsOf(deps.db, state);
  const live = order.state !== 'closed' && order.state !== 'cancelled';
  const sheet = live ? await sheetNow(deps.db, actor.fleetId, deps.today(), order) : null;
  const sheetChanged = sheet?.changed ?? null;
  const blockers = live ? await blockersOf(deps.db, state, findings, sheetChanged) : [];
  const [waits, times] = await Promise.all([
    loadWaits(deps.db, actor.fleetId, { workOrderId: id }),
    loadTimes(deps.db, id),
  ]);
  const kept = await listKept(deps, actor, id);
  return ok({
    order,
    current: currentOf(graph, byKey, spec.part),
    threads: threadsFor(spec, family.headMaterial, choices),
    kept: kept.ok ? kept.value : [],
    row,
    vehicle,
    family,
    spec,
    layout,
    sites: named,
    steps,
    blockers,
    findings,
    gapLimitMm: gapLimitOf(spec),
    counts,
    codes,
    photos,
    before: await setBefore(deps.db, order),
    waits,
    times,
    sheetChanged,
    labour: await loadLabour(deps.db, actor.fleetId, family.id),
    handedOverName: order.handedOverBy
      ? ((await deps.db.select({ name: people.name }).from(people).where(eq(people.id, order.handedOverBy)))[0]?.name ??
        null)
      : null,
    followUps: await loadFollowUps(deps.db, actor.fleetId, { workOrderId: id }),
    history: await auditOf(deps.db, actor.fleetId, 'work-order', id),
  });
}

export type WorkOrderView = Extract<Awaited<ReturnType<typeof viewWorkOrder>>, { ok: true }>['value'];
export type WorkOrderSiteView = WorkOrderView['sites'][number];

/** µm per 1,000 km, only where the gap was measured both times and the part is the one that was fitted. */
function growthOf(
  site: SiteRow,
  before: { gapMm: number | null; installedKm: number; installedKmCertainty: string } | undefined,
  nowKm: number | null,
  graph: SupersessionGraph,
): number | null {
  if (
    !before?.gapMm ||
    !site.removedGapMm ||
    nowKm === null ||
    before.installedKmCertainty !== 'exact' ||
    foundDiffers(site, graph)
  )
    return null;
  return gapGrowth(before.gapMm, site.removedGapMm, nowKm - before.installedKm);
}

/** Bays of the vehicle's depot and people who can take the job, for the planning form. */
export async function whereAndWho(deps: Deps, actor: Actor, depotId: string, hybrid: boolean) {
  const refused = refusal(actor, 'read the fleet');
  if (refused) return refused;
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
  return ok({ bays: depotBays, people: technicians.filter((person) => !hybrid || person.hybridQualified) });
}

export async function listWorkOrders(deps: Deps, actor: Actor) {
  const refused = refusal(actor, 'read the fleet');
  return refused ?? ok(await listWorkOrderRows(deps.db, actor.fleetId));
}
