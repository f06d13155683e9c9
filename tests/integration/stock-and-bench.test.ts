import { and, eq, isNotNull } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { policyOptionForm } from '../../src/contracts/forms/due';
import {
  calibrationForm,
  deliveryForm,
  keepResultForm,
  startTrialForm,
  wrenchForm,
} from '../../src/contracts/forms/parts';
import { auditTrail, fittedComponents, parts, specSheets, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { keepResult, listKept } from '../../src/server/bench/keep-result';
import { viewBench } from '../../src/server/bench/view-bench';
import { addWrench, listWrenches, updateWrench } from '../../src/server/bench/wrenches';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { refreshDue } from '../../src/server/due/refresh-due';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { choosePolicyOption } from '../../src/server/policies/choose-policy-option';
import { viewPolicies } from '../../src/server/policies/view-policies';
import { banSeller, liftBan, listBans } from '../../src/server/stock/ban-seller';
import { lotHistory, receiveDelivery } from '../../src/server/stock/check-delivery';
import { quarantineBatch } from '../../src/server/stock/quarantine-batch';
import { listDeliveries, resolveDelivery } from '../../src/server/stock/resolve-delivery';
import { endTrial, listTrials, startTrial } from '../../src/server/stock/trials';
import { listWorkOrders } from '../../src/server/work-orders/list-work-orders';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { demoWorkspace, inRole, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const due = async (unit: string) => {
  const item = value(await listDue(w.deps, actor, dueFilter.parse({}))).items.find((i) => i.unitNumber === unit);
  if (!item) throw new Error(`no unit ${unit}`);
  return item;
};
const vehicle = async (unit: string) => {
  const [row] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit));
  return value(await viewVehicle(w.deps, actor, row?.id ?? ''));
};
const choose = (over: object, who = actor) =>
  choosePolicyOption(
    w.deps,
    who,
    policyOptionForm.schema.parse({ policy: 'interval', scope: 'shop', option: 'early', why: 'tried it', ...over }),
  );
const inForce = async (unit: string, policy: string) =>
  (await vehicle(unit)).policies.find((p) => p.policy.id === policy);

describe('shop policies', () => {
  it('of the demo stand where they were chosen', async () => {
    const { policies, groups } = value(await viewPolicies(w.deps, actor));
    expect(policies).toHaveLength(17);
    expect(groups).toContain('road-gritters');
    expect(policies.find((p) => p.inForce.policy.id === 'opening')?.inForce).toMatchObject({ scope: 'shop' });
    expect(policies.find((p) => p.inForce.policy.id === 'coil_connectors')?.exceptions).toMatchObject([
      { scope: 'vehicle', of: '23' },
    ]);
  });

  it('of the interval move the due date of those concerned, and only theirs', async () => {
    const [library, van] = [await due('51'), await due('11')];
    expect(library).toMatchObject({ limitShare: 0.75 });
    expect(van).toMatchObject({ limitShare: 1 });
    value(await choose({ scope: 'vehicle', scopeName: '11' }));
    const early = await due('11');
    expect(early.lifeUsed).toBeCloseTo((van.lifeUsed ?? 0) / 0.75, 6);
    expect((early.due?.p50 ?? '') < (van.due?.p50 ?? '')).toBe(true);
    expect(await due('51')).toEqual(library);
    value(await choose({ scope: 'vehicle', scopeName: '11', option: '' }));
    expect(await due('11')).toEqual(van);
  });

  it('set for the shop reach everyone who has no choice of their own, and equal a rebuild', async () => {
    value(await choose({}));
    value(await choose({ scope: 'vehicle', scopeName: '12', option: 'to_the_limit' }));
    expect((await due('13')).limitShare).toBe(0.75);
    expect((await due('12')).limitShare).toBe(1);
    const before = value(await listDue(w.deps, actor, dueFilter.parse({}))).items;
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    expect(value(await listDue(w.deps, actor, dueFilter.parse({}))).items).toEqual(before);
    value(await choose({ option: '' }));
    value(await choose({ scope: 'vehicle', scopeName: '12', option: '' }));
    expect((await due('13')).limitShare).toBe(1);
  });

  it('say which is in force on a vehicle and why', async () => {
    expect(await inForce('41', 'thread_compound')).toMatchObject({
      scope: 'group',
      option: { id: 'nickel_always' },
      why: expect.stringContaining('salt'),
    });
    // The sheet leaves it to a bulletin, and a newer one speaks of it.
    expect(await inForce('131', 'engine_temperature')).toMatchObject({
      scope: 'sheet',
      option: { id: 'cold' },
      why: expect.stringContaining('bulletin 24-3'),
    });
    expect(await inForce('141', 'new_gaps')).toMatchObject({ scope: 'sheet', option: { id: 'return' } });
    expect(await inForce('11', 'battery')).toMatchObject({ scope: 'default' });
    const { threads } = await vehicle('42');
    expect(threads).toMatchObject({
      lubricant: 'anti_seize',
      torqueNm: { min: expect.closeTo(14, 6), max: expect.closeTo(18.2, 6) },
    });
  });

  it.each([
    [{ option: 'by moon' }, { kind: 'invalid', fields: { option: expect.any(String) } }],
    [{ why: '' }, { kind: 'invalid', fields: { why: expect.any(String) } }],
    [
      { scope: 'group', scopeName: 'submarines' },
      { kind: 'invalid', fields: { scopeName: expect.any(String) } },
    ],
    [{ scope: 'vehicle', scopeName: '999' }, { kind: 'not-found' }],
  ])('refuse %j and change nothing', async (over, error) => {
    const before = value(await viewPolicies(w.deps, actor));
    expect(await choose(over)).toMatchObject({ ok: false, error });
    expect(value(await viewPolicies(w.deps, actor))).toEqual(before);
  });

  it('are chosen by supervisors', async () => {
    for (const role of ['technician', 'parts_clerk', 'viewer'] as const)
      expect(await choose({}, inRole(actor, role))).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
  });
});

const delivery = (over: object = {}) =>
  receiveDelivery(
    w.deps,
    actor,
    deliveryForm.schema.parse({
      orderedNumber: 'KM-2912',
      orderedQuantity: 12,
      orderReference: 'PO-400',
      deliveredNumber: 'KM-2912',
      quantity: 12,
      source: 'Ferry Parts Store',
      price: '3,40',
      lot: 'K26-50',
      gaps: '0.95 0.95 .037 in 0,94 mm',
      again: true,
      ...over,
    }),
  );
const onHand = async (number: string) =>
  (await w.deps.db.select().from(parts).where(eq(parts.number, number)))[0]?.onHand;

describe('receiving', () => {
  it('of the demo holds what is doubtful, with its reasons', async () => {
    const list = value(await listDeliveries(w.deps, actor));
    const of = (reference: string) => list.find((row) => row.delivery.orderReference === reference)?.delivery;
    expect(of('PO-311')).toMatchObject({ verdict: 'accepted', reasons: [] });
    expect(of('PO-312')).toMatchObject({ verdict: 'quarantined', reasons: [{ code: 'gaps_off' }] });
    expect(of('PO-313')).toMatchObject({ verdict: 'back_to_supplier' });
    expect(of('PO-314')?.reasons.map((r) => r.code)).toEqual([
      'unapproved_source',
      'price_low',
      'no_lot',
      'differs_boot',
    ]);
    expect(of('PO-315')).toMatchObject({ verdict: 'accepted', reasons: [{ code: 'gaps_damaged' }] });
  });

  it('puts on the shelf only what is accepted', async () => {
    const before = (await onHand('KM-2912')) ?? 0;
    expect(value(await delivery())).toMatchObject({ verdict: 'accepted' });
    expect(await onHand('KM-2912')).toBe(before + 12);
    expect(value(await delivery({ lot: '', source: 'Market stall' })).verdict).toBe('quarantined');
    expect(await onHand('KM-2912')).toBe(before + 12);
  });

  it('asks before the same order, lot and part are booked twice', async () => {
    const once = { orderReference: 'PO-450', lot: 'K26-99', again: false };
    const before = (await onHand('KM-2912')) ?? 0;
    expect(value(await delivery(once))).toMatchObject({ verdict: 'accepted' });
    expect(await delivery({ ...once, orderReference: 'po-450' })).toMatchObject({
      error: { kind: 'conflict', fields: { again: expect.stringContaining('received on') } },
    });
    expect(await onHand('KM-2912')).toBe(before + 12);
    expect(value(await delivery({ ...once, lot: 'K26-98' })).verdict).toBe('accepted');
    expect(value(await delivery({ ...once, again: 'on' })).verdict).toBe('accepted');
    expect(await onHand('KM-2912')).toBe(before + 36);
  });

  it('counts as stock only what is not set aside, and holds gaps that no engine takes', async () => {
    const before = (await onHand('KM-2912')) ?? 0;
    const one = value(await delivery({ orderReference: 'PO-451', gaps: '0.95 0.95 0.94 0.70' }));
    expect(one.message).toContain('1 set aside');
    expect(await onHand('KM-2912')).toBe(before + 11);
    const wide = value(await delivery({ orderReference: 'PO-452', gaps: '1.17 1.18 1.19 1.17 1.18 1.19 1.18 0.95' }));
    expect(wide).toMatchObject({
      verdict: 'quarantined',
      message: expect.stringContaining('outside the sheet of every'),
    });
    expect(await onHand('KM-2912')).toBe(before + 11);
  });

  it('takes a renumbered box as the part, on its own shelf', async () => {
    const before = (await onHand('EM-7301')) ?? 0;
    const answer = value(
      await delivery({ orderedNumber: 'EM-7310', deliveredNumber: 'em 7301', price: '10', gaps: '1.05 1.05' }),
    );
    expect(answer.verdict).toBe('accepted');
    expect(await onHand('EM-7301')).toBe(before + 12);
    expect(
      value(await delivery({ orderedNumber: 'FS-5201', deliveredNumber: 'FS-5210', price: '15', gaps: '' })).verdict,
    ).toBe('back_to_supplier');
  });

  it('lets a supervisor resolve what is quarantined, once, with a reason', async () => {
    const quarantined = value(await listDeliveries(w.deps, actor)).find(
      (row) => row.delivery.orderReference === 'PO-312',
    );
    const resolve = (over: object, who = actor) =>
      resolveDelivery(w.deps, who, {
        deliveryId: quarantined?.delivery.id ?? '',
        version: 1,
        resolved: 'returned',
        reason: 'gapped for another engine',
        ...over,
      });
    expect(await resolve({}, inRole(actor, 'parts_clerk'))).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
    expect(await resolve({ version: 7 })).toMatchObject({ ok: false, error: { kind: 'edited-meanwhile' } });
    const before = await onHand('EM-7310');
    const both = await Promise.all([resolve({}), resolve({})]);
    expect(both.map((answer) => answer.ok).sort()).toEqual([false, true]);
    expect(await onHand('EM-7310')).toBe(before);
  });

  it.each([
    [{ orderedNumber: 'NO-1' }, 'orderedNumber'],
    [{ gaps: '0.95 9.5' }, 'gaps'],
    [{ price: 'cheap' }, 'price'],
  ])('refuses %j, keeps nothing', async (over, field) => {
    const before = value(await listDeliveries(w.deps, actor)).length;
    expect(await delivery(over)).toMatchObject({ ok: false, error: { fields: { [field]: expect.any(String) } } });
    expect(value(await listDeliveries(w.deps, actor))).toHaveLength(before);
  });
});

describe('counterfeits', () => {
  it('of a banned seller are quarantined with their points, and its ban can be lifted', async () => {
    const quarantined = value(await listDeliveries(w.deps, actor)).find((r) => r.delivery.orderReference === 'PO-316');
    expect(quarantined?.delivery).toMatchObject({ verdict: 'quarantined', suspicion: 10 });
    const from = () => delivery({ source: 'slipway bargains' });
    expect(value(await from())).toMatchObject({ verdict: 'quarantined' });
    const [ban] = value(await listBans(w.deps, actor));
    expect(await liftBan(w.deps, inRole(actor, 'parts_clerk'), { banId: ban?.ban.id ?? '' })).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
    expect(await banSeller(w.deps, actor, { name: 'SLIPWAY bargains', reason: 'again' })).toMatchObject({
      ok: false,
      error: { kind: 'conflict' },
    });
    value(await liftBan(w.deps, actor, { banId: ban?.ban.id ?? '' }));
    expect(value(await listBans(w.deps, actor))).toEqual([]);
    expect(value(await from()).message).toContain('no approved source');
    expect(await liftBan(w.deps, actor, { banId: 'no id' })).toMatchObject({ ok: false, error: { kind: 'not-found' } });
  });

  it('that show late are taken off the shelf, as far as they still lie there', async () => {
    value(await delivery({ orderReference: 'PO-401', lot: 'K26-77' }));
    const of = async () =>
      value(await listDeliveries(w.deps, actor)).find((r) => r.delivery.orderReference === 'PO-401')?.delivery;
    const row = await of();
    await w.deps.db.update(parts).set({ onHand: 5 }).where(eq(parts.number, 'KM-2912'));
    const quarantine = (version: number) =>
      quarantineBatch(w.deps, actor, { deliveryId: row?.id ?? '', version, reason: 'two failed at 8,000 km' });
    expect(await quarantine(9)).toMatchObject({ ok: false, error: { kind: 'edited-meanwhile' } });
    expect(value(await quarantine(row?.version ?? 0))).toEqual({ taken: 5 });
    expect(await onHand('KM-2912')).toBe(0);
    expect(await of()).toMatchObject({ verdict: 'quarantined', quantity: 5, reasons: [{ code: 'quarantined_later' }] });
    expect(await quarantine(2)).toMatchObject({ ok: false, error: { kind: 'conflict' } });
  });

  it('are looked for in what earlier plugs of the lot did', async () => {
    const [base] = await w.deps.db.select().from(fittedComponents).where(eq(fittedComponents.component, 'plug'));
    const [sheet] = await w.deps.db.select().from(specSheets).where(isNotNull(specSheets.intervalKm)).limit(1);
    if (!base || !sheet) throw new Error('no plug or no sheet');
    const early = (cylinder: number) => ({
      ...base,
      id: undefined,
      cylinder,
      partId: sheet.partId,
      specSheetId: sheet.id,
      lot: 'BAD-1',
      removedOn: TODAY,
      removedKm: base.installedKm + 1000,
      removalReason: 'failed' as const,
    });
    await w.deps.db.insert(fittedComponents).values([early(1), early(2)]);
    expect(await lotHistory(w.deps.db, actor.fleetId, sheet.partId, 'bad-1')).toEqual({ fitted: 2, early: 2 });
    expect(await lotHistory(w.deps.db, actor.fleetId, sheet.partId, 'BAD-2')).toEqual({ fitted: 0, early: 0 });
  });
});

describe('trials', () => {
  const trial = (over: object) =>
    startTrialForm.schema.parse({
      number: 'FS-3115',
      controlNumber: 'KM-3110',
      why: 'cheaper',
      reviewOn: '2027-05-01',
      ...over,
    });

  it('hold the part against the usual one', async () => {
    const [row] = value(await listTrials(w.deps, actor));
    expect(row).toMatchObject({
      part: { number: 'EM-4182' },
      control: { number: 'KM-4180' },
      onTrial: { vehicles: 3, early: 0 },
      comparison: { verdict: 'no-difference' },
    });
    expect(row?.usual.vehicles).toBeGreaterThan(8);
  });

  it('begin once, and end with what came of them', async () => {
    value(await startTrial(w.deps, actor, trial({})));
    expect(await startTrial(w.deps, actor, trial({}))).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    const running = value(await listTrials(w.deps, actor)).find((t) => t.part.number === 'FS-3115');
    const end = { trialId: running?.trial.id ?? '', version: 1, outcome: 'no difference' };
    value(await endTrial(w.deps, actor, end));
    expect(await endTrial(w.deps, actor, end)).toMatchObject({ ok: false, error: { kind: 'conflict' } });
    value(await startTrial(w.deps, actor, trial({})));
  });

  it.each([
    [{ number: 'NO-1' }, 'number'],
    [{ controlNumber: 'NL-1804' }, 'controlNumber'],
    [{ reviewOn: '2020-01-01' }, 'reviewOn'],
  ])('refuse %j', async (over, field) => {
    expect(await startTrial(w.deps, actor, trial({ number: 'EM-4177', ...over }))).toMatchObject({
      ok: false,
      error: { fields: { [field]: expect.any(String) } },
    });
  });
});

describe('the bench', () => {
  it('takes sheets, engines, lead sets and wrenches from the catalogue', async () => {
    const view = value(await viewBench(w.deps, inRole(actor, 'viewer')));
    expect(view.engines).toHaveLength(13);
    expect(view.leadSets.map((s) => s.number).sort()).toEqual(['KM-L29', 'KM-L31', 'KM-L46']);
    expect(view.wrenches).toHaveLength(4);
    expect(view.sheets.every((s) => !s.label.includes('said at the bench'))).toBe(true);
    expect(view.sheets.find((s) => s.label.includes('workshop sheets 61T'))).toMatchObject({ regap: 'never' });
  });

  const keep = (over: object, who = actor) =>
    keepResult(
      w.deps,
      who,
      keepResultForm.schema.parse({ tool: 'torque', input: { sheet: 'AG-18' }, summary: 'Set T1 to 24 N·m.', ...over }),
    );

  it('keeps a result on a work order, where it is seen', async () => {
    const order = value(await listWorkOrders(w.deps, actor)).items.find((o) => o.number === 1002);
    expect(value(await keep({ workOrderNumber: '1002' })).workOrderId).toBe(order?.id);
    expect(value(await viewWorkOrder(w.deps, actor, order?.id ?? '')).kept).toMatchObject([
      { kept: { summary: 'Set T1 to 24 N·m.' } },
    ]);
    expect(value(await keep({})).workOrderId).toBeNull();
    expect(value(await listKept(w.deps, actor))).toHaveLength(3);
  });

  it('refuses an order that is not there, and viewers', async () => {
    expect(await keep({ workOrderNumber: '77' })).toMatchObject({
      ok: false,
      error: { fields: { workOrderNumber: expect.any(String) } },
    });
    expect(await keep({}, inRole(actor, 'viewer'))).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
    expect(keepResultForm.schema.safeParse({ tool: 'torque', input: {}, summary: '' }).success).toBe(false);
  });
});

describe('the register of wrenches', () => {
  const wrench = {
    name: 'T9',
    unit: 'N·m',
    min: '5',
    max: '25',
    step: '0.5',
    lengthMm: '230',
    calibratedOn: '2026-05-05',
  };

  it('takes a wrench once, a new calibration, and its retirement', async () => {
    value(await addWrench(w.deps, actor, wrenchForm.schema.parse(wrench)));
    expect(await addWrench(w.deps, actor, wrenchForm.schema.parse(wrench))).toMatchObject({
      ok: false,
      error: { fields: { name: expect.any(String) } },
    });
    const t9 = value(await listWrenches(w.deps, actor)).find((row) => row.name === 'T9');
    value(
      await updateWrench(w.deps, actor, calibrationForm.schema.parse({ wrenchId: t9?.id, calibratedOn: '2026-11-01' })),
    );
    expect(value(await listWrenches(w.deps, actor)).find((row) => row.name === 'T9')?.calibratedOn).toBe('2026-11-01');
    value(await updateWrench(w.deps, actor, calibrationForm.schema.parse({ wrenchId: t9?.id, retired: true })));
    expect(value(await listWrenches(w.deps, actor)).map((row) => row.name)).not.toContain('T9');
    const trail = await w.deps.db
      .select()
      .from(auditTrail)
      .where(and(eq(auditTrail.entity, 'wrench'), eq(auditTrail.entityId, t9?.id ?? '')));
    expect(trail).toHaveLength(3);
  });

  it.each([
    [{ min: '30' }, 'min'],
    [{ step: '0' }, 'step'],
    [{ lengthMm: '3' }, 'lengthMm'],
    [{ calibratedOn: 'May' }, 'calibratedOn'],
    [{ max: 'much' }, 'max'],
  ])('refuses %j', (over, field) => {
    const parsed = wrenchForm.schema.safeParse({ ...wrench, ...over });
    expect(parsed.error?.issues.map((issue) => issue.path[0])).toContain(field);
  });

  it('knows no calibration that is yet to come, and no stranger', async () => {
    const future = wrenchForm.schema.parse({ ...wrench, name: 'T8', calibratedOn: '2027-01-01' });
    expect(await addWrench(w.deps, actor, future)).toMatchObject({
      ok: false,
      error: { fields: { calibratedOn: expect.any(String) } },
    });
    expect(await addWrench(w.deps, inRole(actor, 'technician'), future)).toMatchObject({
      ok: false,
      error: { kind: 'forbidden' },
    });
    expect(
      await updateWrench(w.deps, actor, { wrenchId: '00000000-0000-4000-8000-000000000000', retired: true }),
    ).toMatchObject({ ok: false, error: { kind: 'not-found' } });
  });
});
