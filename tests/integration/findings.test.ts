import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { closeForm, finishFollowUpForm, followUpForm, verdictForm } from '../../src/contracts/forms/work-orders';
import { people, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { addFollowUp, finishFollowUp, listFollowUps } from '../../src/server/findings/follow-up';
import { judgeFinding } from '../../src/server/findings/judge-finding';
import { recordReadings } from '../../src/server/odometer/record-readings';
import { closeWorkOrder } from '../../src/server/work-orders/close-work-order';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { doSteps, enter } from '../builders/floor';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
let workOrderId = '';
let vehicleId = '';
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
  const [vehicle] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, '101'));
  vehicleId = vehicle?.id ?? '';
  workOrderId = value(await openWorkOrder(w.deps, actor, { vehicleId })).workOrderId;
  await enter(w.deps, actor, workOrderId, 'order', { trayFirst: '1A' });
});

const view = async () => value(await viewWorkOrder(w.deps, actor, workOrderId));
const causes = async () => (await view()).findings.filter(({ past }) => !past).map(({ cause }) => cause);
const see = async (cylinder: number, ...conditions: string[]) => {
  const seen = Object.fromEntries(conditions.map((word) => [word, 2]));
  await enter(w.deps, actor, workOrderId, `site ${cylinder}A`, { seen });
};
const judge = async (cause: string, over: object, who = actor) => {
  const finding = (await view()).findings.find((f) => f.cause === cause && !f.past);
  return judgeFinding(
    w.deps,
    who,
    verdictForm.schema.parse({ workOrderId, findingKey: finding?.key ?? 'none', ...over }),
  );
};

describe('findings of a work order', () => {
  it('follow what is recorded at its sites', async () => {
    expect(await causes()).toEqual([]);
    await see(1, 'nose tan');
    expect(await causes()).toEqual(['healthy']);
    await see(2, 'nose tan', 'insulator oily');
    expect(await causes()).toEqual(['oil_outside']);
  });

  it('are confirmed, corrected or rejected with both sides kept, and again when somebody knows better', async () => {
    expect(await judge('oil_outside', { verdict: 'rejected' })).toMatchObject({
      error: { fields: { reason: expect.any(String) } },
    });
    expect(await judge('oil_outside', { verdict: 'corrected' })).toMatchObject({
      error: { fields: { insteadText: expect.any(String) } },
    });
    value(await judge('oil_outside', { verdict: 'confirmed' }, inRole(actor, 'technician')));
    value(await judge('oil_outside', { verdict: 'corrected', insteadText: 'spilt at the last oil change' }));
    const [finding] = (await view()).findings;
    expect(finding).toMatchObject({
      cause: 'oil_outside',
      verdict: {
        verdict: { verdict: 'corrected', insteadText: 'spilt at the last oil change', found: { cause: 'oil_outside' } },
      },
    });
    expect(await judge('oil_outside', { verdict: 'confirmed' }, inRole(actor, 'viewer'))).toMatchObject({
      error: { kind: 'forbidden' },
    });
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(await judge('oil_outside', { verdict: 'confirmed' }, stranger)).toMatchObject({
      error: { kind: 'not-found' },
    });
  });

  it('that no longer show stay with what was said to them', async () => {
    await see(2, 'nose tan');
    const past = (await view()).findings.find(({ past }) => past);
    expect(past).toMatchObject({ cause: 'oil_outside', verdict: { verdict: { verdict: 'corrected' } } });
    expect(await judge('oil_outside', { verdict: 'confirmed' })).toMatchObject({ error: { kind: 'conflict' } });
  });

  it('that stop the work hold the order until a supervisor has decided', async () => {
    await see(3, 'electrodes melted');
    expect((await view()).findings[0]).toMatchObject({ cause: 'detonation', urgency: 'stop' });
    expect(
      await judge('detonation', { verdict: 'rejected', reason: 'old damage' }, inRole(actor, 'technician')),
    ).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect((await view()).missing[0]?.says).toMatch(/Stop: Detonation or pre-ignition, cylinder 3\./);
    const close = async () => {
      const { order } = await view();
      return closeWorkOrder(
        w.deps,
        actor,
        closeForm.schema.parse({ workOrderId, version: order.version, odometer: '123456' }),
      );
    };
    expect(await close()).toMatchObject({ error: { message: expect.stringContaining('A supervisor has to decide') } });
    value(await judge('detonation', { verdict: 'confirmed', reason: 'engine to be looked into, order 7' }));
    expect((await view()).missing.map(({ says }) => says).join(' ')).not.toContain('Stop');
    const refused = await doSteps(w.deps, actor, workOrderId);
    expect(refused.join(' ')).toContain('not done yet');
    expect(await close()).toMatchObject({ error: { message: expect.stringContaining('not done yet') } });
  });
});

describe('follow-ups', () => {
  const add = async (over: object, who = actor) => {
    const [owner] = await w.deps.db.select().from(people).where(eq(people.role, 'technician'));
    return addFollowUp(
      w.deps,
      who,
      followUpForm.schema.parse({
        workOrderId,
        what: 'Test the coolant for combustion gas',
        ownerId: owner?.id,
        ...over,
      }),
    );
  };
  const mine = async () =>
    value(await listFollowUps(w.deps, actor, { open: true })).filter(
      ({ followUp }) => followUp.vehicleId === vehicleId,
    );

  it('have an owner and a day or a distance, neither of which has passed unseen', async () => {
    expect(await add({})).toMatchObject({ error: { fields: { dueOn: expect.any(String) } } });
    expect(await add({ dueOn: '2026-11-01' })).toMatchObject({ error: { fields: { dueOn: expect.any(String) } } });
    expect(await add({ dueAt: 'far' })).toMatchObject({ error: { fields: { dueAt: expect.any(String) } } });
    expect(await add({ dueOn: '2026-12-01', ownerId: '00000000-0000-4000-8000-000000000000' })).toMatchObject({
      error: { kind: 'not-found' },
    });
    expect(await add({ dueOn: '2026-12-01' }, inRole(actor, 'viewer'))).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await mine()).toEqual([]);
  });

  it('are due when their distance has been driven, and done once with what came of it', async () => {
    const { vehicle } = await view();
    const [{ km = 0 } = {}] = (
      await w.pool.query<{ km: number }>('select odometer_km::float8 as km from due_inputs where vehicle_id = $1', [
        vehicle.id,
      ])
    ).rows;
    value(await add({ dueAt: `${Math.round(km + 20)} km` }));
    expect((await mine()).map(({ isDue }) => isDue)).toEqual([false]);
    value(
      await recordReadings(w.deps, actor, {
        readings: [{ unitNumber: '101', on: '2026-11-16', text: `${Math.round(km + 21)} km`, source: 'test' }],
      }),
    );
    const [item] = await mine();
    expect(item?.isDue).toBe(true);
    const input = finishFollowUpForm.schema.parse({ followUpId: item?.followUp.id, outcome: 'no gas found' });
    value(await finishFollowUp(w.deps, actor, input));
    expect(await finishFollowUp(w.deps, actor, input)).toMatchObject({ error: { kind: 'not-found' } });
    expect(await mine()).toEqual([]);
  });
});
