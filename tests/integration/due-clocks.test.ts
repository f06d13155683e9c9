import { and, eq, isNull } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { blockForm, ceilingForm, policyOptionForm } from '../../src/contracts/forms/due';
import { recordChangeForm } from '../../src/contracts/forms/vehicles';
import { backTests, deferrals, dueInputs, dueStatus, engineHourReadings, fittedComponents } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { backTestFleet } from '../../src/server/due/back-test';
import { blockByFault, deferDue, takeBackDeferral } from '../../src/server/due/defer';
import { dueFilter, listDue, viewDue } from '../../src/server/due/list-due';
import { refreshDue } from '../../src/server/due/refresh-due';
import { find } from '../../src/server/fleet/find';
import { recordChange } from '../../src/server/fleet/record-change';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { confirmImport, uploadFile } from '../../src/server/imports/import-file';
import { readingsInput, recordReadings } from '../../src/server/odometer/record-readings';
import { listSuspectHours, resolveHours } from '../../src/server/odometer/resolve-hours';
import { choosePolicyOption } from '../../src/server/policies/choose-policy-option';
import { setCeiling } from '../../src/server/policies/set-ceiling';
import { openWorkOrder, openWorkOrders } from '../../src/server/work-orders/open-work-order';
import { demoWorkspace, idOfUnit, inRole, TODAY, value, type Workspace } from '../builders/workspace';

/* Clocks that are not the odometer of the plugs: engine hours, other components, other faults, the shop's ceilings. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const idOf = (unit: string) => idOfUnit(w.deps, unit);
const due = async (unit: string) => value(await viewDue(w.deps, actor, await idOf(unit)));
const record = async (unitNumber: string, on: string, text: string) =>
  value(await recordReadings(w.deps, actor, readingsInput.parse({ readings: [{ unitNumber, on, text }] })))[0];
const choose = async (option: string) =>
  value(
    await choosePolicyOption(
      w.deps,
      actor,
      policyOptionForm.schema.parse({ policy: 'engine_hours', scope: 'shop', option, why: option && 'a test' }),
    ),
  );

/** The stored due status and what a rebuild from nothing gives. */
async function equalsRebuild(): Promise<void> {
  const all = () => w.deps.db.select().from(dueInputs).orderBy(dueInputs.vehicleId);
  const statuses = () => w.deps.db.select().from(dueStatus).orderBy(dueStatus.vehicleId, dueStatus.component);
  await listDue(w.deps, actor, dueFilter.parse({}));
  const [before, stood] = [await all(), await statuses()];
  await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
  expect(await all()).toEqual(before);
  expect(await statuses()).toEqual(stood);
}

describe('forecasts of the past', () => {
  const bands = async () =>
    (await w.deps.db.select().from(dueStatus).orderBy(dueStatus.vehicleId, dueStatus.component)).map(
      ({ dueP10, dueP50, dueP90 }) => ({
        dueP10,
        dueP50,
        dueP90,
      }),
    );

  it('are held against what came, widen or narrow every band, move no middle, and are told with the date', async () => {
    await w.deps.db.delete(backTests);
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    const before = await bands();
    expect((await due('33')).tested).toBeNull();
    await w.deps.db.transaction((tx) => backTestFleet(tx, actor.fleetId, TODAY));
    const after = await bands();
    expect(after.map(({ dueP50 }) => dueP50)).toEqual(before.map(({ dueP50 }) => dueP50));
    expect(after).not.toEqual(before);
    const { tested, forecast } = await due('33');
    expect(tested?.forecasts).toBeGreaterThan(20);
    expect(tested?.held).toBeLessThanOrEqual(tested?.forecasts ?? 0);
    expect(forecast.scale).toBeGreaterThan(0);
  });

  it('teach the same when they are held again, and nothing where there are too few', async () => {
    const all = () => w.deps.db.select().from(backTests).orderBy(backTests.dutyGroup);
    const once = await all();
    await w.deps.db.transaction((tx) => backTestFleet(tx, actor.fleetId, TODAY));
    expect(await all()).toEqual(once);
    expect(once.map(({ dutyGroup }) => dutyGroup)).toContain('');
  });
});

describe('engine hours', () => {
  it('bind where an engine idles more than it drives, and the sum says so', async () => {
    const gritter = await due('143');
    expect(gritter.binds).toBe('hours');
    const [ran, left] = ['ran', 'left'].map((kind) => gritter.breakdown.find((line) => line.kind === kind));
    const limit = gritter.breakdown.find((line) => line.kind === 'limit');
    if (ran?.kind !== 'ran' || left?.kind !== 'left' || limit?.kind !== 'limit') throw new Error('a line is missing');
    expect(ran.km).toBeCloseTo(ran.hours * 40, 6);
    expect(left.km).toBeCloseTo(limit.km - ran.km, 6);
    expect(gritter.lifeUsed).toBeCloseTo(ran.km / limit.km, 9);
  });

  it('count by the option in force, and not at all where the shop says so', async () => {
    const at40 = await due('143');
    await choose('hours_60');
    expect((await due('143')).lifeUsed).toBeCloseTo(1.5 * (at40.lifeUsed ?? 0), 9);
    await choose('hours_not_counted');
    expect((await due('143')).binds).not.toBe('hours');
    await choose('');
    expect(await due('143')).toEqual(at40);
    await equalsRebuild();
  });

  it('come in wherever readings do: typed with an h, once, and doubted where they cannot be', async () => {
    const last = await w.deps.db
      .select()
      .from(engineHourReadings)
      .where(eq(engineHourReadings.vehicleId, await idOf('143')))
      .orderBy(engineHourReadings.readOn);
    const hours = (last.at(-1)?.hours ?? 0) + 40;
    const before = await due('143');
    expect(await record('143', '2026-11-15', `${hours} h`)).toMatchObject({ state: 'accepted', hours, km: null });
    expect((await due('143')).lifeUsed).toBeGreaterThan(before.lifeUsed ?? 0);
    expect(await record('143', '2026-11-15', `${hours} hours`)).toMatchObject({ state: 'known' });
    expect(await record('143', '2026-11-16', `${hours + 30} h`)).toMatchObject({
      state: 'suspect',
      message: 'kept as suspect: more than 24 hours a day',
    });
    expect(await record('143', '2026-11-16', '999,999 h')).toMatchObject({ state: 'refused' });
    await equalsRebuild();
  });

  it('in a file are judged like any, and those here already are skipped', async () => {
    const bytes = new TextEncoder().encode(
      'unit_number,read_on,hours\n143,2026-11-16,1.5\n143,2026-11-16,abc\n143,2027-01-01,9\nnobody,2026-11-16,5\n',
    );
    const { importId } = value(await uploadFile(w.deps, actor, { fileName: 'hours.csv', bytes }));
    expect(value(await confirmImport(w.deps, actor, { importId })).counts).toMatchObject({ add: 1, refuse: 3 });
    const again = value(await uploadFile(w.deps, actor, { fileName: 'hours.csv', bytes }));
    expect(value(await confirmImport(w.deps, actor, again)).counts).toMatchObject({ add: 0, skip: 1, refuse: 3 });
  });

  it('that are suspect are resolved once, by who may', async () => {
    const rows = value(await listSuspectHours(w.deps, actor));
    const backwards = rows.find((row) => row.unitNumber === '44');
    if (!backwards) throw new Error('the demo has one that goes backwards');
    // What it is to be compared with comes with it.
    expect(backwards.lastHours).toBeGreaterThan(backwards.hours);
    expect(String(backwards.lastOn) <= backwards.readOn).toBe(true);
    const input = {
      vehicleId: backwards.vehicleId,
      readOn: backwards.readOn,
      hours: backwards.hours,
      how: 'rejected',
    } as const;
    expect(await resolveHours(w.deps, inRole(actor, 'viewer'), input)).toMatchObject({ error: { kind: 'forbidden' } });
    value(await resolveHours(w.deps, actor, input));
    expect(await resolveHours(w.deps, actor, input)).toMatchObject({ error: { kind: 'not-found' } });
    expect(value(await listSuspectHours(w.deps, actor))).toHaveLength(rows.length - 1);
  });
});

describe('another fault', () => {
  const block = (vehicleId: string, over: object = {}) =>
    blockByFault(w.deps, actor, blockForm.schema.parse({ vehicleId, fault: 'lean code', ...over }));

  it('holds the work, says so where an order is asked for, and lets go when it is mended', async () => {
    const vehicleId = await idOf('11');
    const plain = await due('11');
    value(await block(vehicleId));
    expect(await due('11')).toMatchObject({ state: 'blocked', lifeUsed: plain.lifeUsed, pressure: plain.pressure });
    expect(await openWorkOrder(w.deps, actor, { vehicleId })).toMatchObject({
      error: { kind: 'conflict', message: expect.stringContaining('lean code') },
    });
    expect(value(await openWorkOrders(w.deps, actor, { vehicleIds: [vehicleId] }))).toMatchObject({ opened: [] });
    await equalsRebuild();
    value(await takeBackDeferral(w.deps, actor, { vehicleId }));
    expect(await due('11')).toEqual(plain);
  });

  it('takes the place of a deferral, and needs no day but never one that has passed', async () => {
    const vehicleId = await idOf('11');
    value(await deferDue(w.deps, actor, { vehicleIds: [vehicleId], until: '2026-12-20', reason: 'at the painter' }));
    value(await block(vehicleId, { until: '2026-12-01' }));
    const open = await w.deps.db
      .select()
      .from(deferrals)
      .where(and(eq(deferrals.vehicleId, vehicleId), isNull(deferrals.endedAt)));
    expect(open.length).toBeGreaterThan(0);
    for (const each of open) expect(each).toMatchObject({ fault: 'lean code', until: '2026-12-01' });
    expect(await block(vehicleId, { until: TODAY })).toMatchObject({
      error: { fields: { until: expect.any(String) } },
    });
    expect(
      await blockByFault(w.deps, inRole(actor, 'technician'), blockForm.schema.parse({ vehicleId, fault: 'leak' })),
    ).toMatchObject({
      error: { kind: 'forbidden' },
    });
    value(await takeBackDeferral(w.deps, actor, { vehicleId }));
  });
});

describe('a ceiling of the shop', () => {
  const set = (km: string) =>
    setCeiling(w.deps, actor, ceilingForm.schema.parse({ electrode: 'nickel', km, why: 'a test' }));

  it('binds where it is below the sheet, says so, and is taken back whole', async () => {
    const [nickel, wire] = [await due('12'), await due('143')];
    value(await set('20000'));
    expect(await due('12')).toMatchObject({ limitKm: 20_000, limitBy: 'shop' });
    expect(await due('143')).toMatchObject({ limitKm: wire.limitKm, limitBy: 'sheet' });
    await equalsRebuild();
    value(await set('500000'));
    expect(await due('12')).toMatchObject({ limitKm: nickel.limitKm, limitBy: 'sheet' });
    value(await set(''));
    expect(await due('12')).toEqual(nickel);
  });

  it('is for those who choose policies, and whole km', async () => {
    expect(ceilingForm.schema.safeParse({ electrode: 'nickel', km: '12.5' }).success).toBe(false);
    const input = ceilingForm.schema.parse({ electrode: 'nickel', km: '30000' });
    expect(await setCeiling(w.deps, inRole(actor, 'technician'), input)).toMatchObject({
      error: { kind: 'forbidden' },
    });
  });
});

describe('other components', () => {
  const change = async (over: object) =>
    recordChange(
      w.deps,
      actor,
      recordChangeForm.schema.parse({
        vehicleId: await idOf('11'),
        component: 'coil',
        on: '2026-06-01',
        odometer: '90,000 km',
        ...over,
      }),
    );
  const coils = async () =>
    w.deps.db
      .select()
      .from(fittedComponents)
      .where(
        and(
          eq(fittedComponents.vehicleId, await idOf('11')),
          eq(fittedComponents.component, 'coil'),
          isNull(fittedComponents.removedOn),
        ),
      )
      .orderBy(fittedComponents.cylinder);

  it('are changed at some sites, each with its own clock; the others stay', async () => {
    const before = await coils();
    expect(value(await change({ sites: '2', tag: 'AC-200' }))).toEqual({ changed: 1 });
    const after = await coils();
    expect(after.find((row) => row.cylinder === 2)).toMatchObject({
      tag: 'AC-200',
      installedOn: '2026-06-01',
      installedKm: 90_000,
    });
    expect(after.filter((row) => row.cylinder !== 2)).toEqual(before.filter((row) => row.cylinder !== 2));
  });

  it.each([
    ['sites that it does not have', { sites: '9' }, 'sites'],
    ['one tag for several', { tag: 'AC-9' }, 'tag'],
    ['a day to come', { on: '2026-12-01' }, 'on'],
    ['a day before a later change', { sites: '2', on: '2026-01-01' }, 'on'],
    ['a component it has none of', { component: 'cap' }, 'component'],
    ['a distance that is none', { odometer: 'far' }, 'odometer'],
  ])('are refused with %s', async (_, over, field) => {
    const before = await coils();
    expect(await change(over)).toMatchObject({ ok: false, error: { fields: { [field]: expect.any(String) } } });
    expect(await coils()).toEqual(before);
  });

  it('that nobody recorded are as old as the vehicle until all of them are known', async () => {
    const view = async () => value(await viewVehicle(w.deps, actor, await idOf('42'))).companions;
    expect((await view()).find(({ component }) => component === 'lead_set')).toMatchObject({ certainty: 'assumed' });
    value(
      await recordChange(
        w.deps,
        actor,
        recordChangeForm.schema.parse({
          vehicleId: await idOf('42'),
          component: 'lead_set',
          on: '2026-05-01',
          odometer: '60000',
        }),
      ),
    );
    expect((await view()).find(({ component }) => component === 'lead_set')).toMatchObject({
      certainty: 'exact',
      installed: { on: '2026-05-01' },
    });
  });
});

describe('the box to go anywhere', () => {
  it('finds by number and name, what begins with it first, and takes a wildcard as it stands', async () => {
    const found = value(await find(w.deps, actor, '14'));
    expect(found[0]).toMatchObject({ kind: 'vehicle', label: expect.stringMatching(/^14\d? /) });
    expect(value(await find(w.deps, actor, 'em 7310'))).toContainEqual(
      expect.objectContaining({ kind: 'part', label: 'EM-7310' }),
    );
    expect(value(await find(w.deps, actor, '1001'))).toContainEqual(expect.objectContaining({ kind: 'work order' }));
    expect(value(await find(w.deps, actor, '%'))).toEqual([]);
  });
});
