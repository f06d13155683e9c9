import { and, eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { policyOptionForm } from '../../src/contracts/forms/due';
import { normalFor } from '../../src/core/work/place-fields';
import { findingVerdicts, workOrders } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { viewDue } from '../../src/server/due/list-due';
import { choosePolicyOption } from '../../src/server/policies/choose-policy-option';
import { addOtherWork } from '../../src/server/work-orders/change-tasks';
import { closeWorkOrder } from '../../src/server/work-orders/close-work-order';
import { openWorkOrder, openWorkOrders } from '../../src/server/work-orders/open-work-order';
import { toTask, viewProposal } from '../../src/server/work-orders/propose-visit';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { doSteps, enter } from '../builders/floor';
import { demoWorkspace, idOfUnit, inRole, TODAY, value, type Workspace } from '../builders/workspace';

/* What belongs to a visit when it is opened. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const idOf = (unit: string) => idOfUnit(w.deps, unit);
const propose = async (unit: string) => value(await viewProposal(w.deps, actor, await idOf(unit)));
const said = async (unit: string) =>
  (await propose(unit)).proposals.map(({ action, component, isTaken, reason }) => [
    action,
    component,
    isTaken,
    reason.kind,
  ]);
const choose = (policy: string, option: string) =>
  choosePolicyOption(w.deps, actor, policyOptionForm.schema.parse({ policy, scope: 'shop', option, why: 'a test' }));

describe('a visit', () => {
  it('proposes what is due with minutes and cost, and coils by expected cost with the sum behind it', async () => {
    const { proposals, coilChance, currency } = await propose('36');
    expect(proposals[0]).toMatchObject({
      action: 'replace',
      component: 'plug',
      places: 'all',
      why: 'due',
      isTaken: true,
    });
    expect(proposals[0]?.minutes).toBeGreaterThan(60);
    expect(proposals[0]?.partsCost).toBeGreaterThan(10);
    const coil = proposals.find(({ component }) => component === 'coil');
    expect(coil?.reason).toMatchObject({ kind: 'policy', advice: { advice: expect.stringMatching(/one|all/) } });
    expect(coilChance).toBeGreaterThan(0);
    expect(currency).toBe('EUR');
  });

  it('follows the policies: coils with the plugs, on failure, leads always', async () => {
    value(await choose('coils_with_plugs', 'with_plugs'));
    expect(await said('36')).toContainEqual(['replace', 'coil', true, 'policy']);
    value(await choose('coils_with_plugs', 'on_failure'));
    expect((await said('36')).map(([, component]) => component)).not.toContain('coil');
    value(await choose('leads_with_plugs', 'always'));
    // Unit 8 leaves the fleet in six weeks: nothing is taken for it by itself.
    expect(await said('8')).toContainEqual(['replace', 'lead_set', false, 'policy']);
    expect(await said('42')).toContainEqual(['replace', 'lead_set', true, 'policy']);
  });

  it('looks at what nobody knows the age of, so many as the policy says', async () => {
    const first = async () => (await propose('110')).proposals[0];
    expect(await first()).toMatchObject({
      action: 'inspect',
      component: 'plug',
      places: ['1A'],
      reason: { kind: 'assumed' },
    });
    value(await choose('inspection_sample', 'all'));
    expect(await first()).toMatchObject({ action: 'inspect', places: 'all' });
  });

  it('opens with what is due where nobody says otherwise, and proposes it no more', async () => {
    const vehicleId = await idOf('6');
    const taken = (await propose('6')).proposals.filter(({ reason }) => ['due', 'assumed'].includes(reason.kind));
    const { workOrderId } = value(await openWorkOrder(w.deps, actor, { vehicleId }));
    const { tasks } = value(await viewWorkOrder(w.deps, actor, workOrderId));
    expect(tasks.map(({ row }) => [row.action, row.component])).toEqual(
      taken.map((one) => [one.action, one.component]),
    );
    const left = (await propose('6')).proposals.map(({ component }) => component);
    for (const { component } of taken) expect(left).not.toContain(component);
  });

  it('opens with all that is taken by itself where somebody asks for that', async () => {
    value(await choose('coils_with_plugs', 'with_plugs'));
    const [vehicleId, ...others] = [await idOf('33'), await idOf('34')];
    const taken = (await propose('33')).proposals.filter(({ isTaken }) => isTaken);
    expect(taken.map(({ component }) => component)).toContain('coil');
    value(await openWorkOrders(w.deps, actor, { vehicleIds: [vehicleId, ...others], take: 'proposed' }));
    const [order] = await w.deps.db.select().from(workOrders).where(eq(workOrders.vehicleId, vehicleId));
    const { tasks } = value(await viewWorkOrder(w.deps, actor, order?.id ?? ''));
    expect(tasks.map(({ row }) => [row.action, row.component])).toEqual(
      taken.map((one) => [one.action, one.component]),
    );
    value(await choose('coils_with_plugs', 'by_cost'));
  });

  it('answers a finding that was confirmed on a visit before, until a task is put on for it', async () => {
    const [order] = await w.deps.db
      .select()
      .from(workOrders)
      .where(and(eq(workOrders.vehicleId, await idOf('105'))));
    if (!order) throw new Error('no order');
    await w.deps.db
      .update(workOrders)
      .set({ state: 'closed', closedOn: TODAY, closedKm: 100_000 as never })
      .where(eq(workOrders.id, order.id));
    await w.deps.db.insert(findingVerdicts).values({
      fleetId: actor.fleetId,
      workOrderId: order.id,
      findingKey: 'boot_spent 3A',
      found: { cause: 'boot_spent', sites: [{ cylinder: 3, position: 'A' }] } as never,
      verdict: 'confirmed',
      saidBy: actor.personId,
      saidAt: w.deps.now(),
    });
    const found = (await propose('105')).proposals.find(({ why }) => why === 'finding');
    expect(found).toMatchObject({ action: 'replace', component: 'boot', places: ['3A'], isTaken: true });
    if (!found) throw new Error('nothing found');
    expect(toTask(found)).toMatchObject({ findingKey: 'boot_spent 3A' });
  });

  it('shows what else the engine needs, and knows when that was done last', async () => {
    const vehicleId = await idOf('121');
    const filter = async () =>
      value(await viewProposal(w.deps, actor, vehicleId)).otherWork.find(({ what }) => what === 'air filter');
    expect(await filter()).toMatchObject({ last: null, lifeUsed: null, inReach: true, isTaken: false });
    const coil = { action: 'inspect', component: 'coil', places: ['1'], why: 'reported', note: '' } as const;
    const wrong = { vehicleId, tasks: [coil], otherWork: ['sun roof'] };
    const refused = await openWorkOrder(w.deps, actor, wrong);
    expect(refused).toMatchObject({ error: { kind: 'invalid', message: expect.stringContaining('air filter') } });
    const { workOrderId } = value(
      await openWorkOrder(w.deps, actor, { vehicleId, tasks: [coil], otherWork: ['air filter'] }),
    );
    const before = value(await viewWorkOrder(w.deps, actor, workOrderId)).order.minutes;
    value(await addOtherWork(w.deps, actor, { workOrderId, what: ['drive belt'] }));
    expect(await addOtherWork(w.deps, actor, { workOrderId, what: ['drive belt'] })).toMatchObject({
      error: { kind: 'conflict' },
    });
    const { steps, order } = value(await viewWorkOrder(w.deps, actor, workOrderId));
    expect(order.minutes).toBe(before + 40);
    expect(steps.filter(({ kind }) => kind === 'other').map(({ title }) => title)).toEqual([
      'With it: air filter',
      'With it: drive belt',
    ]);
    await enter(w.deps, actor, workOrderId, 'coil 1A', { seen: normalFor('coil'), result: 'good', done: true });
    expect(await doSteps(w.deps, actor, workOrderId, { other_2: 'not_done' })).toEqual([]);
    const { odometerKm } = value(await viewDue(w.deps, actor, vehicleId));
    const odometer = `${Math.round(odometerKm ?? 0) + 60} km`;
    value(await closeWorkOrder(w.deps, actor, { workOrderId, version: order.version, odometer, note: '' }));
    expect(await filter()).toMatchObject({ last: { on: TODAY }, lifeUsed: 0, isTaken: false });
    const belt = value(await viewProposal(w.deps, actor, vehicleId)).otherWork.find(
      ({ what }) => what === 'drive belt',
    );
    expect(belt?.last).toBeNull();
  });

  it('is for those who may open work orders, and of this fleet', async () => {
    const id = await idOf('36');
    expect(await viewProposal(w.deps, inRole(actor, 'viewer'), id)).toMatchObject({ error: { kind: 'forbidden' } });
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' as never };
    expect(await viewProposal(w.deps, stranger, id)).toMatchObject({ error: { kind: 'not-found' } });
  });
});
