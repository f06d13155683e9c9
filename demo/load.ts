import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { parse } from 'csv-parse/sync';
import { stringify } from 'csv-stringify/sync';
import { and, eq, isNull } from 'drizzle-orm';
import { z } from 'zod';
import { blockForm, costsForm, policyOptionForm } from '../src/contracts/forms/due';
import { banForm, deliveryForm, keepResultForm, startTrialForm, wrenchForm } from '../src/contracts/forms/parts';
import { addPersonForm } from '../src/contracts/forms/people';
import { followUpForm, waitForm } from '../src/contracts/forms/work-orders';
import { timeOf } from '../src/core/calendar/zone';
import { GRADES } from '../src/core/inspection/trainer';
import type { Entry, Json } from '../src/core/work/entry';
import { siteTarget } from '../src/core/work/targets';
import { loadSheets } from '../src/db/queries/catalogue';
import { bays, depots, people, vehicles, workOrders } from '../src/db/schema';
import type { Actor } from '../src/server/access';
import { makeToken } from '../src/server/auth/access-tokens';
import { keepResult } from '../src/server/bench/keep-result';
import { addWrench } from '../src/server/bench/wrenches';
import { checkSheet } from '../src/server/catalogue/check-sheet';
import type { Deps } from '../src/server/deps';
import { backTestFleet } from '../src/server/due/back-test';
import { setCosts } from '../src/server/due/costs';
import { blockByFault } from '../src/server/due/defer';
import { addFollowUp } from '../src/server/findings/follow-up';
import { gradePlug } from '../src/server/findings/trainer';
import { changeDepot, listDepots } from '../src/server/fleet/bays';
import { createFirstSupervisor } from '../src/server/fleet/first-run';
import { addPerson } from '../src/server/fleet/people';
import { IMPORT_KINDS, type ImportKindName } from '../src/server/imports/kind';
import { addAbsence } from '../src/server/planning/absences';
import { planWorkOrder } from '../src/server/planning/plan-work-order';
import { choosePolicyOption } from '../src/server/policies/choose-policy-option';
import { banSeller } from '../src/server/stock/ban-seller';
import { receiveDelivery } from '../src/server/stock/check-delivery';
import { startTrial } from '../src/server/stock/trials';
import { liftGate } from '../src/server/work-orders/lift-gate';
import { openWorkOrder } from '../src/server/work-orders/open-work-order';
import { viewFloor } from '../src/server/work-orders/view-job';
import { waitFor } from '../src/server/work-orders/wait-for';
import { inOrder, opening, send } from './device';
import { importFile } from './import-file';
import { pastMisfires, playMisfires } from './misfires';
import { must } from './must';
import { PARTS_ON_THE_WAY, playPast, playTuneUp } from './past';

const plan = z.object({
  day: z.string(),
  start: z.string(),
  minutes: z.number(),
  depot: z.string(),
  bay: z.string(),
  person: z.string(),
});
const siteRecord = z.object({
  cylinder: z.number(),
  observedNumber: z.string(),
  removedGap: z.string(),
  conditions: z.array(z.string()),
  breakawayFeel: z.string(),
  /** The new plug, where one is in already. */
  fitted: z.object({ newNumber: z.string(), newGap: z.string(), installedTorque: z.string() }).optional(),
});
const scenario = z
  .object({
    today: z.string(),
    fleetName: z.string(),
    password: z.string(),
    supervisor: z.object({ name: z.string(), email: z.string() }),
    people: z.array(addPersonForm.schema.omit({ password: true })),
    ferryDays: z.array(z.number()),
    ferryFrom: z.string(),
    /** Minutes from one depot to another. */
    ways: z.array(z.tuple([z.string(), z.string(), z.number()])),
    closures: z.array(z.object({ depot: z.string(), what: z.string(), from: z.string(), to: z.string() })),
    /** Counted today: the rest of what is needed comes by the ferry. */
    shelf: z.array(z.object({ number: z.string(), onHand: z.string(), leadDays: z.string() })),
    absences: z.array(z.object({ person: z.string(), what: z.string(), from: z.string(), to: z.string() })),
    wrenches: z.array(wrenchForm.schema),
    policies: z.array(policyOptionForm.schema),
    costs: costsForm.schema,
    /** What technicians made of the drawn plugs of the trainer, from the first on. */
    grades: z.array(z.object({ name: z.string(), said: z.array(z.enum(GRADES)) })),
    faults: z.array(blockForm.schema.omit({ vehicleId: true }).extend({ unit: z.string() })),
    followUps: z.array(
      followUpForm.schema.omit({ workOrderId: true, ownerId: true }).extend({ unit: z.string(), owner: z.string() }),
    ),
    waits: z.array(waitForm.schema.omit({ workOrderId: true }).extend({ unit: z.string() })),
    bans: z.array(banForm.schema),
    deliveries: z.array(deliveryForm.schema),
    trials: z.array(startTrialForm.schema),
    kept: z.array(keepResultForm.schema.omit({ workOrderNumber: true }).extend({ unit: z.string() })),
    workOrders: z.array(z.object({ unit: z.string(), plan: plan.nullable(), sites: z.array(siteRecord) })),
  })
  .parse(JSON.parse(readFileSync(path.join(process.cwd(), 'demo/scenario.json'), 'utf8')));

/** The day on which the scenario stands still. */
export const DEMO_TODAY = scenario.today;

/**
 * Fills an empty workspace with the demo scenario, through the same use-cases as a customer's own.
 *
 * @param withPast with three years of closed work orders before today
 */
export async function loadDemo(deps: Deps, withPast = false): Promise<{ actor: Actor; token: string }> {
  const { fleetName, password } = scenario;
  const actor = must(
    'supervisor',
    await createFirstSupervisor(deps, { fleetName, password, ...scenario.supervisor }, true),
  );
  for (const person of scenario.people) must(person.name, await addPerson(deps, actor, { ...person, password }));
  await importSamples(deps, actor, withPast ? IMPORT_KINDS.filter((kind) => kind !== 'odometer') : IMPORT_KINDS);
  await checkSheets(deps, actor);
  for (const choice of scenario.policies) must(choice.policy, await choosePolicyOption(deps, actor, choice));
  if (withPast) {
    // What was read came after, or with, what was done.
    const people = await peopleOf(deps, actor);
    await playPast(deps, actor, people, pastMisfires(deps, actor, people));
    await importSamples(deps, actor, ['odometer']);
  }
  await setDepots(deps, actor);
  const persons = await peopleOf(deps, actor);
  for (const { person, ...away } of scenario.absences)
    must(
      person,
      await addAbsence(deps, actor, {
        of: 'person',
        ofId: persons.get(person)?.personId ?? '',
        ...away,
      }),
    );
  // A week with more work than hours; the small scenario has work enough.
  for (const { depot, ...closed } of withPast ? scenario.closures : [])
    must(depot, await addAbsence(deps, actor, { of: 'depot', ofId: await depotId(deps, actor, depot), ...closed }));
  for (const order of scenario.workOrders) await makeWorkOrder(deps, actor, order);
  must('costs', await setCosts(deps, actor, scenario.costs));
  for (const wrench of scenario.wrenches) must(wrench.name, await addWrench(deps, actor, wrench));
  for (const { unit, ...held } of scenario.faults)
    must(held.fault, await blockByFault(deps, actor, { ...held, vehicleId: await vehicleId(deps, actor, unit) }));
  for (const one of scenario.grades) await gradePlugs(deps, actor, one);
  for (const one of scenario.followUps) await makeFollowUp(deps, actor, one);
  for (const { unit, ...wait } of scenario.waits)
    must(wait.reason, await waitFor(deps, actor, { ...wait, workOrderId: (await orderOf(deps, actor, unit)).id }));
  for (const ban of scenario.bans) must(ban.name, await banSeller(deps, actor, ban));
  for (const delivery of scenario.deliveries)
    must(delivery.orderReference, await receiveDelivery(deps, actor, delivery));
  for (const trial of scenario.trials) must(trial.number, await startTrial(deps, actor, trial));
  for (const { unit, ...kept } of scenario.kept)
    must(
      kept.tool,
      await keepResult(deps, actor, { ...kept, workOrderNumber: String((await orderOf(deps, actor, unit)).number) }),
    );
  if (withPast) await playTuneUp(deps, actor, await peopleOf(deps, actor)).then(() => countShelf(deps, actor));
  await playMisfires(deps, actor, await peopleOf(deps, actor));
  await deps.db.transaction((tx) => backTestFleet(tx, actor.fleetId, DEMO_TODAY));
  const { token } = must('token', await makeToken(deps, actor, { name: 'Demo token' }));
  return { actor, token };
}

/** Hours, deliveries and ways between depots. */
async function setDepots(deps: Deps, actor: Actor): Promise<void> {
  const depots = must('depots', await listDepots(deps, actor));
  const idOf = (depot: string): string => depots.find(({ name }) => name === depot)?.id ?? depot;
  for (const { id, name, timeZone, hours } of depots)
    must(
      name,
      await changeDepot(deps, actor, {
        depotId: id,
        timeZone,
        workingDays: [...hours.workingDays],
        opens: timeOf(hours.fromMin),
        closes: timeOf(hours.toMin),
        deliveryDays: scenario.ferryDays,
        deliveryFrom: scenario.ferryFrom,
        ways: Object.fromEntries(
          scenario.ways.flatMap(([from, to, minutes]) => (from === name ? [[idOf(to), minutes]] : [])),
        ),
      }),
    );
}

/** The sample files, in the order in which they build on each other. */
export async function importSamples(
  deps: Deps,
  actor: Actor,
  kinds: readonly ImportKindName[] = IMPORT_KINDS,
): Promise<void> {
  for (const kind of kinds) {
    const bytes = readFileSync(path.join(process.cwd(), 'samples', `${kind}.csv`));
    await importFile(deps, actor, { fileName: `${kind}.csv`, bytes });
  }
}

/** A count of some parts on the shelf, as a file says it. */
async function countShelf(deps: Deps, actor: Actor): Promise<void> {
  const rows: Record<string, string>[] = parse(readFileSync(path.join(process.cwd(), 'samples', 'parts.csv')), {
    columns: true,
  });
  const counted = rows.flatMap((row) => {
    const count = scenario.shelf.find(({ number }) => number === row.number);
    return count ? [{ ...row, on_hand: count.onHand, lead_days: count.leadDays }] : [];
  });
  const bytes = Buffer.from(stringify(counted, { header: true }));
  await importFile(deps, actor, { fileName: 'shelf.csv', kind: 'parts', bytes });
}

/** Sheets that their file says were checked are checked here by that person. */
async function checkSheets(deps: Deps, actor: Actor): Promise<void> {
  const sheets = await loadSheets(deps.db, actor.fleetId, DEMO_TODAY);
  for (const { id, saidCheckedBy } of sheets) {
    if (saidCheckedBy === null) continue;
    const checker = { ...actor, personId: await personIdOf(deps, actor, saidCheckedBy), name: saidCheckedBy };
    must('check', await checkSheet(deps, checker, { sheetId: id }));
  }
}

async function depotId({ db }: Deps, actor: Actor, name: string): Promise<string> {
  const [depot] = await db
    .select()
    .from(depots)
    .where(and(eq(depots.fleetId, actor.fleetId), eq(depots.name, name)));
  if (!depot) throw new Error(`demo: no depot ${name}`);
  return depot.id;
}

async function vehicleId({ db }: Deps, actor: Actor, unitNumber: string): Promise<string> {
  const [vehicle] = await db
    .select({ id: vehicles.id })
    .from(vehicles)
    .where(and(eq(vehicles.fleetId, actor.fleetId), eq(vehicles.unitNumber, unitNumber)));
  if (!vehicle) throw new Error(`demo: no unit ${unitNumber}`);
  return vehicle.id;
}

/** The open order of a vehicle. */
async function orderOf(
  deps: Deps,
  actor: Actor,
  unit: string,
): Promise<{ readonly id: string; readonly number: number }> {
  const [order] = await deps.db
    .select({ id: workOrders.id, number: workOrders.number })
    .from(workOrders)
    .where(and(eq(workOrders.vehicleId, await vehicleId(deps, actor, unit)), isNull(workOrders.closedOn)));
  if (!order) throw new Error(`demo: unit ${unit} has no open order`);
  return order;
}

async function personIdOf({ db }: Deps, actor: Actor, name: string): Promise<string> {
  const [person] = await db
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.fleetId, actor.fleetId), eq(people.name, name)));
  if (!person) throw new Error(`demo: nobody is called ${name}`);
  return person.id;
}

/** Everyone who works here, as they would be asked for. */
async function peopleOf({ db }: Deps, actor: Actor): Promise<ReadonlyMap<string, Actor>> {
  const rows = await db.select().from(people).where(eq(people.fleetId, actor.fleetId));
  return new Map(
    rows.map(({ id, name, role, hybridQualified }) => [name, { ...actor, personId: id, name, role, hybridQualified }]),
  );
}

async function gradePlugs(deps: Deps, actor: Actor, { name, said }: (typeof scenario.grades)[number]): Promise<void> {
  const personId = await personIdOf(deps, actor, name);
  for (const [plug, grade] of said.entries())
    must(name, await gradePlug(deps, { ...actor, personId, role: 'technician' }, { plug, said: grade }));
}

async function makeFollowUp(
  deps: Deps,
  actor: Actor,
  { unit, owner, ...rest }: (typeof scenario.followUps)[number],
): Promise<void> {
  const { id: workOrderId } = await orderOf(deps, actor, unit);
  const ownerId = await personIdOf(deps, actor, owner);
  must(rest.what, await addFollowUp(deps, actor, { ...rest, workOrderId, ownerId }));
}

async function makeWorkOrder(deps: Deps, actor: Actor, order: (typeof scenario.workOrders)[number]): Promise<void> {
  const { workOrderId } = must(
    `unit ${order.unit}`,
    await openWorkOrder(deps, actor, { vehicleId: await vehicleId(deps, actor, order.unit) }),
  );
  if (order.plan) {
    const { day, start, minutes, depot, bay, person } = order.plan;
    const [bayRow] = await deps.db
      .select()
      .from(bays)
      .where(and(eq(bays.depotId, await depotId(deps, actor, depot)), eq(bays.name, bay)));
    must(
      'plan',
      await planWorkOrder(deps, actor, {
        workOrderId,
        day,
        start,
        minutes,
        bayId: bayRow?.id ?? '',
        personId: await personIdOf(deps, actor, person),
      }),
    );
  }
  if (order.sites.length > 0) {
    const what = `unit ${order.unit}`;
    const job = must(what, await viewFloor(deps, actor, workOrderId));
    const entries = [
      entry('order', 'trayFirst', '1A', null),
      ...opening(job, { at: AT, waitedFrom: AT }),
      ...order.sites.flatMap((site) => siteEntries(site.cylinder, site)),
    ];
    must(what, await liftGate(deps, actor, { workOrderId, gate: 'parts', reason: PARTS_ON_THE_WAY }));
    await send(deps, actor, what, workOrderId, inOrder(job, entries));
  }
}

/** When this morning’s work was entered. */
const AT = '2026-11-16T08:00:00Z';

const entry = (target: string, field: string, value: Json, base: Json): Entry => ({
  id: randomUUID(),
  target,
  field,
  value,
  base,
  at: AT,
});

/** What a technician entered at one site: the old plug read, and the new one in. */
function siteEntries(
  cylinder: number,
  {
    observedNumber,
    removedGap,
    conditions,
    breakawayFeel,
    fitted,
  }: (typeof scenario.workOrders)[number]['sites'][number],
): readonly Entry[] {
  const target = siteTarget(`${cylinder}A`);
  return [
    ...Object.entries({ observedNumber, removedGap, ...fitted }).map(([field, value]) =>
      entry(target, field, value, ''),
    ),
    entry(target, 'seen', Object.fromEntries(conditions.map((word) => [word, 2])), {}),
    entry(target, 'breakawayFeel', breakawayFeel, null),
    entry(target, 'hole', 'sound', null),
    ...(fitted
      ? [
          entry(target, 'start', 'by hand', null),
          entry(target, 'torqueMethod', 'wrench', null),
          entry(target, 'done', true, false),
        ]
      : []),
  ];
}
