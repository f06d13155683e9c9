import { eq } from 'drizzle-orm';
import { z } from 'zod';
import { partKey } from '@/core/fitment/match';
import { mixing, type SupersessionGraph } from '@/core/fitment/supersession';
import { checkGaps, type RegapPolicy } from '@/core/gap/check';
import { regapPolicy } from '@/core/policy/apply';
import { policyInForce } from '@/core/policy/policies';
import { ALL_CONDITIONS, BREAKAWAY_FEELS, TORQUE_METHODS } from '@/core/reading/vocabulary';
import { ok } from '@/core/shared/result';
import { PLAUSIBLE_BREAKAWAY, readQuantity, type Window } from '@/core/units/read-quantity';
import type { UnitName } from '@/core/units/unit';
import type { Tx } from '@/db/client';
import { writeAudit } from '@/db/queries/audit';
import { loadFamilies, loadSpecs, type SpecSheet } from '@/db/queries/catalogue';
import { choicesFor, loadPolicyChoices } from '@/db/queries/policies';
import { loadVehicleKeys } from '@/db/queries/status';
import { loadSites, type WorkOrderRow } from '@/db/queries/work-orders';
import { workOrderSites, workOrders } from '@/db/schema';
import { type Actor, refusal } from '../access';
import { gapSpecOf, loadGraph } from '../catalogue/fitment-of';
import type { Deps } from '../deps';
import { editedMeanwhile, fail, notFound, type Outcome } from '../failure';
import { sheetChoices } from '../policies/sheet-choices';
import { type Threads, threadsFor } from '../policies/threads';
import { takeOpenOrder } from './take-order';

const typed = z.string().trim().max(60).default('');

export const siteInput = z.object({
  workOrderId: z.uuid(),
  cylinder: z.number().int().min(1).max(16),
  position: z.enum(['A', 'B']),
  version: z.number().int(),
  observedNumber: typed,
  believedNumber: typed,
  removedGap: typed,
  conditions: z
    .array(z.enum(ALL_CONDITIONS as [string, ...string[]]))
    .min(1)
    .max(20)
    .nullable()
    .default(null),
  breakawayFeel: z.enum(BREAKAWAY_FEELS).nullable().default(null),
  breakawayTorque: typed,
  newNumber: typed,
  newGap: typed,
  newLot: typed,
  compound: typed,
  compoundBatch: typed,
  torqueMethod: z.enum(TORQUE_METHODS).nullable().default(null),
  wrenchSetting: typed,
  installedTorque: typed,
  remark: z.string().trim().max(500).default(''),
  done: z.boolean().default(false),
});
export type SiteInput = z.output<typeof siteInput>;

/**
 * Keeps what was found and done at one site. Quantities are typed in any unit; what cannot be right is refused with the
 * nearest reading that can. A site counts as done only with the right part, a gap in range, and its tightening recorded.
 */
export async function recordSite(deps: Deps, actor: Actor, input: SiteInput): Promise<Outcome<{ version: number }>> {
  const refused = refusal(actor, 'record work');
  if (refused) return refused;
  return deps.db.transaction(async (tx) => {
    const taken = await takeOpenOrder(tx, actor, input.workOrderId);
    if (!taken.ok) return taken;
    const order = taken.value;
    const before = (await loadSites(tx, order.id)).find(
      (site) => site.cylinder === input.cylinder && site.position === input.position,
    );
    const [spec] = await loadSpecs(tx, actor.fleetId, deps.today(), [order.specSheetId]);
    if (!before || !spec) return notFound('site');
    if (before.version !== input.version) return editedMeanwhile();
    const read = readFields(input, actor);
    const shop = input.done ? await shopRules(tx, order, spec) : null;
    const faults = { ...read.faults, ...(shop ? notDone(input, read.values, spec, shop) : {}) };
    if (Object.keys(faults).length > 0)
      return fail('invalid', 'Something here cannot be right yet. See the marked fields.', faults);
    const values = {
      ...read.values,
      specSheetId: order.specSheetId,
      version: before.version + 1,
      ...(input.done
        ? { doneAt: before.doneAt ?? deps.now(), doneBy: before.doneBy ?? actor.personId }
        : { doneAt: null, doneBy: null }),
    };
    await tx.update(workOrderSites).set(values).where(eq(workOrderSites.id, before.id));
    if (order.state !== 'in_bay')
      await tx.update(workOrders).set({ state: 'in_bay' }).where(eq(workOrders.id, order.id));
    const changes = Object.fromEntries(
      Object.entries(values).filter(
        ([key, value]) => JSON.stringify(value) !== JSON.stringify(before[key as keyof typeof before]),
      ),
    );
    const was = Object.fromEntries(Object.keys(changes).map((key) => [key, before[key as keyof typeof before]]));
    await writeAudit(tx, {
      fleetId: actor.fleetId,
      personId: actor.personId,
      action: 'record',
      entity: 'work-order',
      entityId: order.id,
      changes: { site: `${input.cylinder}${input.position}`, from: was, to: changes },
    });
    return ok({ version: values.version });
  });
}

const orNull = (text: string): string | null => (text === '' ? null : text);

/** What a person's unit system makes of a number without a unit. */
export function personUnits({ unitSystem }: Pick<Actor, 'unitSystem'>): {
  gap: UnitName;
  torque: UnitName;
  distance: UnitName;
} {
  return unitSystem === 'us'
    ? { gap: 'in', torque: 'lbf·ft', distance: 'mi' }
    : { gap: 'mm', torque: 'N·m', distance: 'km' };
}

function readFields(input: SiteInput, actor: Actor) {
  const faults: Record<string, string> = {};
  const units = personUnits(actor);
  const quantity = (
    field: 'removedGap' | 'breakawayTorque' | 'newGap' | 'wrenchSetting' | 'installedTorque',
    kind: 'gap' | 'torque',
    window?: Window,
  ): number | null => {
    const text = input[field];
    if (text === '') return null;
    const reading = readQuantity({ kind, text, personUnit: units[kind], window });
    if (reading.verdict === 'ok') return Number(reading.valueSi.toFixed(kind === 'gap' ? 4 : 2));
    faults[field] = reading.message;
    return null;
  };
  const values = {
    observedNumber: orNull(input.observedNumber),
    believedNumber: orNull(input.believedNumber),
    removedGapMm: quantity('removedGap', 'gap'),
    removedGapAsTyped: orNull(input.removedGap),
    conditions: input.conditions,
    breakawayFeel: input.breakawayFeel,
    breakawayTorqueNm: quantity('breakawayTorque', 'torque', PLAUSIBLE_BREAKAWAY),
    breakawayTorqueAsTyped: orNull(input.breakawayTorque),
    newNumber: orNull(input.newNumber),
    newGapMm: quantity('newGap', 'gap'),
    newGapAsTyped: orNull(input.newGap),
    newLot: orNull(input.newLot),
    compound: orNull(input.compound),
    compoundBatch: orNull(input.compoundBatch),
    torqueMethod: input.torqueMethod,
    wrenchSettingNm: quantity('wrenchSetting', 'torque'),
    wrenchSettingAsTyped: orNull(input.wrenchSetting),
    installedTorqueNm: quantity('installedTorque', 'torque'),
    installedTorqueAsTyped: orNull(input.installedTorque),
    remark: orNull(input.remark),
  };
  return { values, faults };
}

/** Why a site cannot be called done yet, by field. */
function notDone(
  input: SiteInput,
  values: ReturnType<typeof readFields>['values'],
  spec: SpecSheet,
  shop: ShopRules,
): Record<string, string> {
  const faults: Record<string, string> = {};
  const wrongNumber =
    values.newNumber === null ? 'Read the number off the new plug.' : numberFault(values.newNumber, spec, shop);
  if (wrongNumber) faults.newNumber = wrongNumber;
  if (input.newGap === '') faults.newGap = 'Measure the gap of the new plug.';
  else if (values.newGapMm !== null) {
    const message = gapFault(values.newGapMm, spec, shop);
    if (message) faults.newGap = message;
  }
  const compound = compoundFault(values.compound, shop.threads);
  if (compound) faults.compound = compound;
  if (values.torqueMethod === null) faults.torqueMethod = 'Say how it was tightened.';
  if (values.torqueMethod === 'wrench') {
    const torque = values.installedTorqueNm;
    const { min, max } = shop.threads.torqueNm;
    if (input.installedTorque === '') faults.installedTorque = 'Record the torque it was tightened to.';
    else if (torque !== null && (torque < min - 0.05 || torque > max + 0.05)) {
      const lowered = shop.threads.reduction > 0 ? ', lowered for the compound on the threads' : '';
      faults.installedTorque = `${torque} N·m is outside ${Number(min.toFixed(1))} to ${Number(max.toFixed(1))} N·m${lowered}. ${torque < min ? 'Tighten it again' : 'Loosen it, check thread and gasket, then tighten it again'}.`;
    }
  }
  return faults;
}

interface ShopRules {
  readonly regap: RegapPolicy;
  readonly threads: Threads;
  readonly graph: SupersessionGraph;
  /** Numbers already fitted under this order at other sites. */
  readonly fitted: readonly string[];
}

async function shopRules(tx: Tx, order: WorkOrderRow, spec: SpecSheet): Promise<ShopRules> {
  const [vehicle] = await loadVehicleKeys(tx, order.fleetId, [order.vehicleId]);
  const choices = vehicle ? choicesFor(await loadPolicyChoices(tx, order.fleetId), vehicle) : [];
  const family = (await loadFamilies(tx, order.fleetId)).find((f) => f.id === vehicle?.engineFamilyId);
  const school = policyInForce('new_gaps', [...choices, ...sheetChoices(spec)]).school.id;
  const sites = await loadSites(tx, order.id);
  return {
    regap: regapPolicy(school, spec.part.electrode ?? 'fine_wire', spec.regap),
    threads: threadsFor(spec, family?.headMaterial ?? 'aluminium', choices),
    graph: (await loadGraph(tx, order.fleetId)).graph,
    fitted: sites.flatMap((site) => (site.doneAt && site.newNumber ? partKey(site.newNumber) : [])),
  };
}

/** A renumbered box is the same part; a redesigned one may replace the set, never one of it. */
function numberFault(number: string, spec: SpecSheet, { graph, fitted }: ShopRules): string | null {
  const key = partKey(number);
  const mixed = fitted.find((other) => mixing(graph, key, other) === 'never-mix');
  if (mixed)
    return `${number} is a redesign of the plugs already fitted (${mixed}): the two are never mixed within one engine. Fit one kind throughout.`;
  if (mixing(graph, key, spec.part.numberKey) === 'same-part') return null;
  const end = graph.current(spec.part.numberKey);
  if (end.kind === 'current' && graph.sameParts(end.part).has(key)) return null;
  return `This engine takes ${spec.part.number}. Do not fit another: set the plug aside and compare the box.`;
}

/** Compound makes a dry torque too much, and its absence makes the lowered one too little. */
function compoundFault(compound: string | null, { lubricant, says }: Threads): string | null {
  if (lubricant === 'anti_seize' && compound === null)
    return `The torque here is lowered for compound, so name the one that is on the threads. ${says}`;
  if (lubricant === 'dry' && compound !== null)
    return `The torque here is for dry threads. ${says} Clean it off, or let the supervisor choose another school.`;
  return null;
}

function gapFault(gapMm: number, spec: SpecSheet, { regap }: ShopRules): string | null {
  const { plugs } = checkGaps(gapSpecOf(spec), spec.part.electrode ?? 'fine_wire', regap, [gapMm]);
  const [plug] = plugs;
  if (!plug || plug.action === 'accept') return null;
  const range = `${spec.gapMinMm.toFixed(2)} to ${spec.gapMaxMm.toFixed(2)} mm`;
  if (plug.action === 'reject')
    return `${gapMm.toFixed(2)} mm is outside ${range} and neither this electrode nor the shop’s rule lets it be bent. Set the plug aside and return it.`;
  return `${gapMm.toFixed(2)} mm is outside ${range}: ${plug.action} it by ${plug.byMm.toFixed(2)} mm with a wire or feeler gauge, bending only the ground electrode, then measure again.`;
}
