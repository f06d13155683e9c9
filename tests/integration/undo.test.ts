import { and, eq, isNull } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { policyOptionForm } from '../../src/contracts/forms/due';
import { POLICIES } from '../../src/core/policy/policies';
import { auditOf } from '../../src/db/queries/audit';
import { absences, bays, bookings, deferrals, electrodeCeilings, people, policyChoices } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { setCosts, viewCosts } from '../../src/server/due/costs';
import { blockByFault, deferDue } from '../../src/server/due/defer';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { recordReadings } from '../../src/server/odometer/record-readings';
import { addAbsence, removeAbsence } from '../../src/server/planning/absences';
import { planWorkOrder, unplanWorkOrder } from '../../src/server/planning/plan-work-order';
import { choosePolicyOption } from '../../src/server/policies/choose-policy-option';
import { setCeiling } from '../../src/server/policies/set-ceiling';
import { undoChange } from '../../src/server/undo/undo-change';
import { addTasks, takeOffTask } from '../../src/server/work-orders/change-tasks';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { demoWorkspace, idOfUnit, inRole, value, type Workspace } from '../builders/workspace';

/* A change is undone by its line of the record, by whoever may make it, as long as nobody has built on it. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const undo = (id: number, as = actor) => undoChange(w.deps, as, { undo: id });
const refusal = async (id: number, as = actor) => {
  const done = await undo(id, as);
  return done.ok ? null : done.error;
};
/** The same use-cases some hours later. */
const later = (hours: number) => ({ ...w.deps, now: () => new Date(w.deps.now().getTime() + hours * 3_600_000) });

describe('tasks of a work order', () => {
  const task = (component: 'coil' | 'plug') => ({
    action: 'replace' as const,
    component,
    why: 'due' as const,
    note: '',
  });
  const open = async (unit: string) =>
    value(await openWorkOrder(w.deps, actor, { vehicleId: await idOfUnit(w.deps, unit), tasks: [task('plug')] }))
      .workOrderId;
  const taskRows = async (id: string) =>
    value(await viewWorkOrder(w.deps, actor, id)).tasks.map(({ row, places }) => [row.component, places.length]);

  it('come off again, and back on as they were, as often as somebody changes their mind', async () => {
    const workOrderId = await open('103');
    const added = value(await addTasks(w.deps, actor, { workOrderId, tasks: [{ ...task('coil'), places: ['2'] }] }));
    const both = await taskRows(workOrderId);
    expect(both.map(([component]) => component)).toEqual(['plug', 'coil']);
    value(await undo(added.undo));
    expect(await taskRows(workOrderId)).toEqual(both.slice(0, 1));
    const { history } = value(await viewWorkOrder(w.deps, actor, workOrderId));
    const off = history.find(({ action }) => action === 'take off task');
    value(await undo(off?.id ?? 0));
    expect(await taskRows(workOrderId)).toEqual(both);
  });

  it('stay where somebody has changed them since: the refusal names who, and nothing is half undone', async () => {
    const workOrderId = await open('109');
    const first = value(await addTasks(w.deps, actor, { workOrderId, tasks: [{ ...task('coil'), places: ['1'] }] }));
    const clerk = { ...inRole(actor, 'supervisor') };
    value(await addTasks(w.deps, clerk, { workOrderId, tasks: [{ ...task('coil'), places: ['3'] }] }));
    const before = await taskRows(workOrderId);
    expect(await refusal(first.undo)).toMatchObject({
      kind: 'conflict',
      message: expect.stringMatching(/^R\. Tolland has changed the tasks since, .*Undo that first/),
    });
    expect(await taskRows(workOrderId)).toEqual(before);
  });

  it('are undone by nobody who may not change them, and by no other fleet', async () => {
    const workOrderId = await open('106');
    const { undo: id } = value(
      await addTasks(w.deps, actor, { workOrderId, tasks: [{ ...task('coil'), places: ['1'] }] }),
    );
    expect(await refusal(id, inRole(actor, 'viewer'))).toMatchObject({ kind: 'forbidden' });
    expect(await refusal(id, { ...actor, fleetId: crypto.randomUUID() })).toMatchObject({ kind: 'not-found' });
    value(
      await takeOffTask(w.deps, actor, { workOrderId, taskId: (await lastTask(workOrderId)) ?? '', reason: 'not now' }),
    );
    expect(await refusal(id)).toMatchObject({ kind: 'conflict' });
  });

  const lastTask = async (id: string) => value(await viewWorkOrder(w.deps, actor, id)).tasks.at(-1)?.row.id;
});

describe('a booking', () => {
  it('goes back to where it was: off the plan, or the slot before', async () => {
    const workOrderId = value(
      await openWorkOrder(w.deps, actor, { vehicleId: await idOfUnit(w.deps, '121') }),
    ).workOrderId;
    const { order, row } = value(await viewWorkOrder(w.deps, actor, workOrderId));
    const [bay] = await w.deps.db.select().from(bays).where(eq(bays.depotId, row.depotId));
    const [person] = await w.deps.db.select().from(people).where(eq(people.name, 'S. Pirie'));
    const slot = { workOrderId, minutes: order.minutes, bayId: bay?.id ?? '', personId: person?.id ?? '' };
    const starts = async () =>
      (await w.deps.db.select().from(bookings).where(eq(bookings.workOrderId, workOrderId))).map(({ during }) =>
        String(during).slice(2, 18),
      );
    const planned = value(await planWorkOrder(w.deps, actor, { ...slot, day: '2026-11-26', start: '08:00' }));
    const moved = value(await planWorkOrder(w.deps, actor, { ...slot, day: '2026-11-27', start: '09:00' }));
    expect(await refusal(planned.undo)).toMatchObject({ kind: 'conflict' });
    value(await undo(moved.undo));
    expect(await starts()).toEqual(['2026-11-26 08:00']);
    const off = value(await unplanWorkOrder(w.deps, actor, workOrderId));
    expect(await starts()).toEqual([]);
    value(await undo(off.undo));
    expect(await starts()).toEqual(['2026-11-26 08:00']);
  });
});

describe('a deferral', () => {
  it('ends, and the deferral that it took the place of holds again', async () => {
    const vehicleId = await idOfUnit(w.deps, '42');
    const defer = (until: string, hours: number) =>
      deferDue(later(hours), actor, { vehicleIds: [vehicleId], until, reason: 'at the painter' });
    const holding = async () => {
      const live = and(eq(deferrals.vehicleId, vehicleId), isNull(deferrals.endedAt));
      return [...new Set((await w.deps.db.select().from(deferrals).where(live)).map(({ until }) => until))];
    };
    value(await defer('2026-12-01', 1));
    const second = value(await defer('2026-12-20', 2));
    expect(await holding()).toEqual(['2026-12-20']);
    value(await undoChange(later(3), actor, { undo: second.undo }));
    expect(await holding()).toEqual(['2026-12-01']);
    const lines = await auditOf(w.deps.db, actor.fleetId, 'vehicle', vehicleId);
    expect(lines.map(({ action }) => action).slice(0, 3)).toEqual(['take back deferral', 'defer', 'defer']);
  });

  it('is taken off the record with the fault it was for', async () => {
    const vehicleId = await idOfUnit(w.deps, '44');
    const { undo: id } = value(
      await blockByFault(later(1), actor, { vehicleId, fault: 'exhaust leak at the manifold', until: '' }),
    );
    value(await undo(id));
    const [line] = await auditOf(w.deps.db, actor.fleetId, 'vehicle', vehicleId);
    expect(line).toMatchObject({ action: 'take back deferral', changes: { fault: 'exhaust leak at the manifold' } });
  });
});

describe('a reading', () => {
  it('is withdrawn, with what it was kept in the record', async () => {
    const vehicleId = await idOfUnit(w.deps, '41');
    const km = async () => value(await viewVehicle(w.deps, actor, vehicleId)).due.odometerKm;
    const before = await km();
    const [result] = value(
      await recordReadings(w.deps, actor, {
        readings: [{ unitNumber: '41', on: '2026-11-16', text: `${(before ?? 0) + 60} km` }],
      }),
    );
    expect(await km()).toBe((before ?? 0) + 60);
    value(await undo(result?.undo ?? 0));
    expect(await km()).toBe(before);
    const { readings } = value(await viewVehicle(w.deps, actor, vehicleId));
    expect(readings.at(-1)).toMatchObject({ state: 'rejected', resolvedReason: 'undone' });
  });
});

describe('what is set for the shop', () => {
  const costs = async () => value(await viewCosts(w.deps, actor));
  const chosen = () =>
    w.deps.db
      .select({ scope: policyChoices.scope, option: policyChoices.option })
      .from(policyChoices)
      .where(eq(policyChoices.policy, 'coils_with_plugs'));

  it('has the amounts again that held before, of every duty group', async () => {
    const before = await costs();
    const groups = { ...before.groups, library: 999 };
    const { undo: id } = value(await setCosts(w.deps, actor, { ...before, failureCost: 777, groups }));
    expect(await refusal(id, inRole(actor, 'technician'))).toMatchObject({ kind: 'forbidden' });
    value(await undo(id));
    expect(await costs()).toEqual(before);
  });

  it('has the limit again that held before, and none where there was none', async () => {
    const set = async (km: number | '') =>
      value(await setCeiling(w.deps, actor, { electrode: 'nickel', km, why: 'a test' })).undo;
    const limits = () => w.deps.db.select().from(electrodeCeilings).where(eq(electrodeCeilings.electrode, 'nickel'));
    await set('');
    const first = await set(30_000);
    const second = await set(40_000);
    expect(await refusal(first)).toMatchObject({ kind: 'conflict' });
    value(await undo(second));
    expect(await limits()).toMatchObject([{ km: 30_000, why: 'a test' }]);
    await set('');
    value(await undo(await set(35_000)));
    expect(await limits()).toEqual([]);
  });

  it('has the option of a policy again that was chosen before', async () => {
    const input = { policy: 'coils_with_plugs', scope: 'shop', why: 'a test' };
    const choose = async (option: string) =>
      value(await choosePolicyOption(w.deps, actor, policyOptionForm.schema.parse({ ...input, option }))).undo;
    const options = POLICIES.find(({ id }) => id === 'coils_with_plugs')?.options.map(({ id }) => id) ?? [];
    await choose(options[0] ?? '');
    const before = await chosen();
    value(await undo(await choose(options[1] ?? '')));
    expect(await chosen()).toEqual(before);
    value(await undo(await choose('')));
    expect(await chosen()).toEqual(before);
  });
});

describe('an absence', () => {
  const add = async () =>
    value(
      await addAbsence(w.deps, actor, {
        of: 'person',
        ofId: actor.personId,
        what: 'course',
        from: '2026-12-07',
        to: '2026-12-08',
        fromTime: '08:00',
        toTime: '12:00',
        rule: 'FREQ=WEEKLY;COUNT=3',
      }),
    );
  const courses = () => w.deps.db.select().from(absences).where(eq(absences.what, 'course'));

  it('that was added is gone, and one that was removed is back as it was', async () => {
    const added = await add();
    const [before] = await courses();
    const removed = value(await removeAbsence(w.deps, actor, { absenceId: added.absenceId }));
    expect(await courses()).toEqual([]);
    expect(await refusal(added.undo)).toMatchObject({ kind: 'conflict' });
    expect(await refusal(removed.undo, inRole(actor, 'technician'))).toMatchObject({ kind: 'forbidden' });
    value(await undo(removed.undo));
    expect(await courses()).toEqual([{ ...before, createdAt: expect.any(Date) }]);
    value(await removeAbsence(w.deps, actor, { absenceId: added.absenceId }));
    value(await undo((await add()).undo));
    expect(await courses()).toEqual([]);
  });
});
