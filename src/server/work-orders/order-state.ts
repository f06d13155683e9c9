import { eq } from 'drizzle-orm';
import type { SupersessionGraph } from '@/core/catalogue/supersession';
import { type Layout, layoutOf, siteName } from '@/core/engine/layout';
import { siteId } from '@/core/engine/model';
import { restingCylinders } from '@/core/engine/resting';
import type { PolicyChoice } from '@/core/policy/policies';
import type { Km } from '@/core/shared/kinds';
import type { Fields, JobRecord, Json } from '@/core/work/entry';
import type { OrderModel, SiteModel } from '@/core/work/order-model';
import type { SiteRules } from '@/core/work/site-done';
import type { SiteField, SiteQuantity } from '@/core/work/site-fields';
import { answerField, countTarget, ORDER_TARGET, siteTarget, stepTarget } from '@/core/work/targets';
import type { Querier } from '@/db/client';
import { type EngineFamily, loadFamilies, loadSpecs, type SpecSheet } from '@/db/queries/catalogue';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { loadFollowUps } from '@/db/queries/findings';
import { choicesFor, loadPolicyChoices } from '@/db/queries/policies';
import { type CountRow, loadCodes, loadCounts, loadPhotos } from '@/db/queries/work-entries';
import {
  type FittedRow,
  loadOutgoingPlugs,
  loadSites,
  loadSteps,
  type SiteRow,
  type StepRow,
  type WorkOrderRow,
} from '@/db/queries/work-orders';
import { dueInputs } from '@/db/schema';
import { loadGraph } from '../catalogue/fitment-of';
import { siteRulesOf } from './site-rules';

export interface FloorState {
  readonly order: WorkOrderRow;
  readonly family: EngineFamily;
  readonly spec: SpecSheet;
  readonly layout: Layout;
  /** Cylinders that this vehicle rests at part load. */
  readonly resting: readonly number[];
  readonly graph: SupersessionGraph;
  readonly choices: readonly PolicyChoice[];
  readonly rules: SiteRules;
  readonly sites: readonly SiteRow[];
  /** What comes out of each site, by its id. */
  readonly outgoing: ReadonlyMap<string, Outgoing>;
  readonly steps: readonly StepRow[];
  readonly counts: readonly CountRow[];
  readonly photos: Awaited<ReturnType<typeof loadPhotos>>;
  readonly codes: Awaited<ReturnType<typeof loadCodes>>;
  readonly followUps: number;
}

/** A plug as it was fitted, on its way out. */
interface Outgoing {
  readonly fitted: FittedRow;
  /** Distance since it was fitted, km, where both ends are sure; by the last reading as long as the order is open. */
  readonly sinceKm: Km | null;
}

async function loadOutgoing(q: Querier, order: WorkOrderRow): Promise<ReadonlyMap<string, Outgoing>> {
  const [status] = await q
    .select({ km: dueInputs.odometerKm })
    .from(dueInputs)
    .where(eq(dueInputs.vehicleId, order.vehicleId));
  const now = order.closedKm ?? status?.km ?? null;
  return new Map(
    (await loadOutgoingPlugs(q, order)).map((fitted) => {
      const km = now !== null && fitted.installedKmCertainty === 'exact' ? now - fitted.installedKm : 0;
      return [siteId(fitted), { fitted, sinceKm: km > 0 ? km : null }];
    }),
  );
}

/** An order with all that decides at the vehicle; null where its vehicle or sheet is gone. */
export async function loadFloorState(q: Querier, order: WorkOrderRow, today: string): Promise<FloorState | null> {
  const { fleetId } = order;
  const [vehicle] = await loadVehicleKeys(q, fleetId, [order.vehicleId]);
  const family = (await loadFamilies(q, fleetId)).find(({ id }) => id === vehicle?.engineFamilyId);
  const [spec] = await loadSpecs(q, fleetId, today, [order.specSheetId]);
  if (!vehicle || !family || !spec) return null;
  const { graph } = await loadGraph(q, fleetId);
  const choices = choicesFor(await loadPolicyChoices(q, fleetId), vehicle);
  return {
    order,
    family,
    spec,
    layout: layoutOf(family.model),
    resting: restingCylinders(family.resting, vehicle.variant ?? spec.variant),
    graph,
    choices,
    rules: siteRulesOf(spec, family, choices, graph),
    sites: await loadSites(q, order.id),
    outgoing: await loadOutgoing(q, order),
    steps: await loadSteps(q, order.id),
    counts: await loadCounts(q, order.id),
    photos: await loadPhotos(q, order.id),
    codes: await loadCodes(q, order.id),
    followUps: (await loadFollowUps(q, fleetId, { workOrderId: order.id })).length,
  };
}

const orEmpty = (text: string | null): string => text ?? '';

/** One site's row as the fields that devices speak of. */
export function siteFields(site: SiteRow): Fields {
  return {
    observedNumber: orEmpty(site.observedNumber),
    believedNumber: orEmpty(site.believedNumber),
    removedGap: orEmpty(site.removedGapAsTyped),
    seen: Object.fromEntries((site.conditions ?? []).map((word) => [word, site.severities[word] ?? 2])),
    breakawayFeel: site.breakawayFeel,
    breakawayTorque: orEmpty(site.breakawayTorqueAsTyped),
    newNumber: orEmpty(site.newNumber),
    newGap: orEmpty(site.newGapAsTyped),
    newLot: orEmpty(site.newLot),
    compound: orEmpty(site.compound),
    compoundBatch: orEmpty(site.compoundBatch),
    torqueMethod: site.torqueMethod,
    wrenchSetting: orEmpty(site.wrenchSettingAsTyped),
    installedTorque: orEmpty(site.installedTorqueAsTyped),
    curve: site.curve,
    soakedAt: site.soakedAt?.toISOString() ?? null,
    remark: orEmpty(site.remark),
    done: site.doneAt !== null,
  } satisfies Readonly<Record<SiteField, Json>>;
}

/** The quantities of a site as they were read when they were typed. */
export function measuredAt(site: SiteRow): SiteModel['measured'] {
  const found = (text: string | null, si: number | null) => (text === null || si === null ? undefined : { text, si });
  return {
    removedGap: found(site.removedGapAsTyped, site.removedGapMm),
    breakawayTorque: found(site.breakawayTorqueAsTyped, site.breakawayTorqueNm),
    newGap: found(site.newGapAsTyped, site.newGapMm),
    wrenchSetting: found(site.wrenchSettingAsTyped, site.wrenchSettingNm),
    installedTorque: found(site.installedTorqueAsTyped, site.installedTorqueNm),
  } satisfies Record<SiteQuantity, unknown>;
}

export const stepFields = (step: StepRow): Fields => ({
  state: step.state,
  ...Object.fromEntries(Object.entries(step.answers).map(([key, value]) => [answerField(key), value])),
});

type Rows = Pick<FloorState, 'order' | 'sites' | 'steps' | 'counts'>;

/** The record as devices speak of it: fields by target. */
export function jobRecordOf({ order, sites, steps, counts }: Rows): JobRecord {
  return Object.fromEntries([
    [ORDER_TARGET, { trayFirst: order.trayFirst }],
    ...sites.map((site) => [siteTarget(siteId(site)), siteFields(site)] as const),
    ...steps.map((step) => [stepTarget(step.key), stepFields(step)] as const),
    ...counts.map(({ key, out, back }) => [countTarget(key), { out, back }] as const),
  ]);
}

/** The order as the rules of the core see it. */
export function orderModelOf(state: FloorState): OrderModel {
  const { layout, rules, sites, steps, counts, codes, photos, followUps } = state;
  return {
    layout,
    rules,
    sites: sites.map((site) => ({
      id: siteId(site),
      name: siteName(layout, site),
      measured: measuredAt(site),
    })),
    steps: steps.map(({ key, kind, title, perSite, asks }) => ({ key, kind, title, perSite, asks: asks ?? [] })),
    counts: counts.map(({ key, kind, what, expected, backStep }) => ({ key, kind, what, expected, backStep })),
    codesKept: codes.map(({ moment }) => moment),
    photos,
    followUps,
  };
}
