import { parse } from 'csv-parse/sync';
import { sql } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Actor } from '../../src/server/access';
import { answerFitment } from '../../src/server/catalogue/answer-fitment';
import { fitmentOf } from '../../src/server/catalogue/fitment-of';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { refreshDue } from '../../src/server/due/refresh-due';
import { exportVehicleHistory } from '../../src/server/exports/vehicle-history';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { factsOf } from '../../src/server/misfire/case-facts';
import { cancelWorkOrder, closeWorkOrder, reopenWorkOrder } from '../../src/server/work-orders/close-work-order';
import { liftGate } from '../../src/server/work-orders/lift-gate';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { doSite, doSteps, enter, floorOf } from '../builders/floor';
import { demoWorkspace, inRole, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const list = async (over = {}) => value(await listDue(w.deps, actor, dueFilter.parse(over))).items;
const unit = async (number: string) => {
  const item = (await list()).find((i) => i.unitNumber === number);
  if (!item) throw new Error(`no unit ${number}`);
  return item;
};
const good = {
  observedNumber: 'KM-4180',
  removedGap: '1.21',
  breakawayFeel: 'normal',
  newNumber: 'km 4180',
  newGap: '1.05',
  torqueMethod: 'wrench',
  installedTorque: '25 Nm',
};

describe('the due list', () => {
  it('tells overdue from assumed, and a firm match from a question', async () => {
    expect((await unit('41')).state).toBe('past');
    expect(await unit('4')).toMatchObject({ state: 'inspect', certainty: 'assumed' });
    expect(await unit('22')).toMatchObject({ state: 'no-match', fitmentWhy: 'Which variant of the engine is it?' });
    expect(await unit('24')).toMatchObject({ rate: { borrowed: true } });
    expect(await unit('12')).toMatchObject({ suspectReadings: 1 });
  });

  it('lets the worst site speak where the banks were done apart', async () => {
    const item = await unit('34');
    expect(item.odometerNowKm).not.toBeNull();
    expect(item.lifeUsed).toBeCloseTo(((item.odometerNowKm ?? 0) - 28_000) / 96_000, 6);
  });

  it('filters and sorts', async () => {
    expect((await list({ depot: 'Eastlight' })).every((i) => i.depot === 'Eastlight')).toBe(true);
    expect((await list({ search: 'gritter' })).map((i) => i.unitNumber).sort()).toEqual([
      '141',
      '142',
      '143',
      '144',
      '41',
      '42',
      '43',
      '44',
      '45',
    ]);
    expect((await list({ sort: 'unit' })).map((i) => i.unitNumber).slice(0, 3)).toEqual(['4', '5', '6']);
    expect((await list({ sort: 'unit', descending: true }))[0]?.unitNumber).toBe('158');
    expect((await list({ before: '2026-11-30' })).every((i) => (i.due?.p50 ?? '9') <= '2026-11-30')).toBe(true);
    expect(await list({ state: 'nonsense', sort: 'nonsense' })).toHaveLength(72);
  });
});

describe('a work order from open to closed', () => {
  let id: string;

  it('opens with part, steps and a record a site, once', async () => {
    const { vehicleId } = await unit('11');
    ({ workOrderId: id } = value(await openWorkOrder(w.deps, actor, { vehicleId })));
    const view = value(await viewWorkOrder(w.deps, actor, id));
    expect(view.plug?.spec.part.number).toBe('KM-4180');
    expect(view.sites.map((s) => s.expectedNumber)).toEqual(['KM-4180', 'KM-4180', 'KM-4180', 'KM-4180']);
    expect(view.steps.length).toBeGreaterThan(5);
    expect(await openWorkOrder(w.deps, actor, { vehicleId })).toMatchObject({ ok: false, error: { kind: 'conflict' } });
  });

  it('never names a part without a firm match', async () => {
    expect(await openWorkOrder(w.deps, actor, { vehicleId: (await unit('22')).vehicleId })).toMatchObject({
      ok: false,
      error: { kind: 'conflict' },
    });
  });

  it.each([
    [{ newNumber: 'EM-7310' }, /This engine takes KM-4180/],
    [{ newGap: '0.80' }, /0\.80 mm \(0\.031 in\) is outside/],
    [{ newGap: '0.40 in' }, /did you mean|is 10.16 mm/i],
    [{ newGap: '' }, /Measure the gap/],
    [{ installedTorque: '17 Nm' }, /17 N·m \(12\.5 lbf·ft\) is outside/],
    [{ installedTorque: '' }, /Record the torque/],
    [{ torqueMethod: null }, /Say how it was tightened/],
    [{ removedGap: '.048' }, /0.048/],
    [{ breakawayTorque: '900 Nm' }, /900/],
  ])('refuses what cannot be right in %j and says why, and keeps the rest', async (over, why) => {
    const told = await enter(w.deps, actor, id, 'site 1A', { ...good, ...over, done: true });
    expect(told.flatMap(({ message }) => message ?? []).join(' ')).toMatch(why);
    const [first] = value(await viewWorkOrder(w.deps, actor, id)).sites;
    const isDone = first?.doneAt !== null;
    // A figure that cannot be read is not kept, and does not undo what was right.
    expect(isDone).toBe('removedGap' in over || 'breakawayTorque' in over);
    expect(first?.observedNumber).toBe('KM-4180');
    const blank = Object.fromEntries(Object.keys({ ...good, ...over }).map((field) => [field, '']));
    await enter(w.deps, actor, id, 'site 1A', { done: false, ...blank, breakawayFeel: null, torqueMethod: null });
  });

  it('does not close with a site or a step open', async () => {
    const refused = await closeWorkOrder(w.deps, actor, { workOrderId: id, version: 1, odometer: '121700', note: '' });
    expect(refused).toMatchObject({ ok: false, error: { message: expect.stringContaining('1, 2, 3, 4') } });
  });

  it('closes, moves plugs and due date together, and back when reopened', async () => {
    const before = await unit('11');
    for (const cylinder of [1, 2, 3, 4])
      expect(
        await doSite(w.deps, actor, id, `${cylinder}A`, {
          ...good,
          newGap: '0,041 in',
          observedNumber: cylinder === 2 ? 'EM-7205' : 'KM-4180',
        }),
      ).toBeNull();
    expect(await doSteps(w.deps, actor, id, { road: 'not_done' })).toEqual([]);
    const undriven = await closeWorkOrder(w.deps, actor, {
      workOrderId: id,
      version: 1,
      odometer: '121 700',
      note: '',
    });
    expect(undriven).toMatchObject({ error: { message: expect.stringContaining('have a supervisor lift it') } });
    value(await liftGate(w.deps, actor, { workOrderId: id, gate: 'proved', reason: 'driven on the yard: no plates' }));
    for (const odometer of ['75 500 mi', '12170', '121,700 mi', 'soon'].slice(1)) {
      expect(await closeWorkOrder(w.deps, actor, { workOrderId: id, version: 1, odometer, note: '' })).toMatchObject({
        ok: false,
        error: { fields: { odometer: expect.any(String) } },
      });
    }
    expect((await unit('11')).lifeUsed).toBe(before.lifeUsed);
    value(await closeWorkOrder(w.deps, actor, { workOrderId: id, version: 1, odometer: '121 700 km', note: '' }));
    const after = await unit('11');
    expect(after).toMatchObject({
      state: 'later',
      lifeUsed: 0,
      odometerKm: 121_700,
      certainty: 'exact',
      openWorkOrder: null,
    });
    const vehicle = value(await viewVehicle(w.deps, actor, after.vehicleId));
    expect(vehicle.fitted.map(({ fitted }) => [fitted.installedKm, fitted.gapMm])).toEqual(
      Array(4).fill([121_700, 1.0414]),
    );
    value(await reopenWorkOrder(w.deps, actor, { workOrderId: id, reason: 'wrong odometer' }));
    const again = await unit('11');
    expect(again.lifeUsed).toBeGreaterThan(0.98);
    expect(again.openWorkOrder?.id).toBe(id);
    value(
      await closeWorkOrder(w.deps, actor, {
        workOrderId: id,
        version: 3,
        odometer: '121 710',
        note: 'relay bracket first',
      }),
    );
    expect((await unit('11')).odometerKm).toBe(121_710);
  });

  it('keeps how sure the reading was, and holds the reading against the road test', async () => {
    const close = (odometer: string, over = {}) =>
      closeWorkOrder(w.deps, actor, { workOrderId: id, version: 5, odometer, note: '', ...over });
    value(await reopenWorkOrder(w.deps, actor, { workOrderId: id, reason: 'road test was driven after all' }));
    await enter(w.deps, actor, id, 'step road', { 'answer.from': '61 698', 'answer.to': '61 710' });
    expect(await close('about 121,720')).toMatchObject({
      error: { fields: { odometer: expect.stringContaining('The road test ended at 61710') } },
    });
    value(await close('about 121,720', { roadTestWrong: true }));
    const after = await unit('11');
    expect(after).toMatchObject({ odometerKm: 121_720, lifeUsed: 0, certainty: 'estimated' });
    const sure = async () =>
      value(await viewVehicle(w.deps, actor, after.vehicleId)).fitted.map((row) => row.fitted.installedKmCertainty);
    expect(await sure()).toEqual(Array(4).fill('estimated'));
    value(await reopenWorkOrder(w.deps, actor, { workOrderId: id, reason: 'read again' }));
    await enter(w.deps, actor, id, 'step road', { 'answer.from': '', 'answer.to': '' });
    // What was only about so much is no evidence against the exact figure below.
    const note = 'relay bracket first';
    value(await closeWorkOrder(w.deps, actor, { workOrderId: id, version: 7, odometer: '121 710', note }));
    expect(await sure()).toEqual(Array(4).fill('exact'));
  });

  it('tells a misfire soon after that the gaps on record are in doubt, where they are', async () => {
    const { vehicleId } = await unit('11');
    const inDoubt = async () => {
      const found = await fitmentOf(w.deps.db, actor.fleetId, TODAY, vehicleId);
      if (!found) throw new Error('no unit 11');
      return (await factsOf(w.deps, actor, found, [])).recentWork.map(({ kmAgo, setInDoubt }) => [kmAgo, setInDoubt]);
    };
    expect(await inDoubt()).toEqual([[expect.any(Number), false]]);
    const gapAt2 = (mm: number) =>
      w.deps.db.execute(sql`update task_places set new_gap_mm = ${mm} where work_order_id = ${id} and cylinder = 2`);
    await gapAt2(0.6);
    expect(await inDoubt()).toEqual([[expect.any(Number), true]]);
    await gapAt2(1.0414);
  });

  it('keeps "not looked at" apart from what was seen', async () => {
    expect(value(await viewWorkOrder(w.deps, actor, id)).sites[0]?.conditions).toBeNull();
    const begun = (await unit('32')).openWorkOrder?.id ?? '';
    expect(value(await viewWorkOrder(w.deps, actor, begun)).sites[0]?.conditions).toEqual([
      'electrodes rounded',
      'nose tan',
    ]);
  });

  it('flags the found part that the record denies', async () => {
    const { sites } = value(await viewWorkOrder(w.deps, actor, id));
    expect(sites.map((s) => s.differs)).toEqual([false, true, false, false]);
    expect(sites[0]?.specSheetId).toBeTruthy();
  });

  it('tells how fast each gap has grown, by the plug that came out and never by the new one', async () => {
    const { sites } = value(await viewWorkOrder(w.deps, actor, id));
    // Fitted at 1.05 mm and 77,075 km; one was another part, of which nobody knows.
    const [first] = sites;
    expect(first).toMatchObject({ fittedGapMm: 1.05, sinceKm: 121_710 - 77_075 });
    expect(first?.growth).toBeCloseTo((((first?.removedGapMm ?? 0) - 1.05) * 1e6) / (121_710 - 77_075), 6);
    expect(sites.map(({ growth }) => growth !== null)).toEqual([true, false, true, true]);
    const begun = value(await viewWorkOrder(w.deps, actor, (await unit('32')).openWorkOrder?.id ?? ''));
    expect(begun.sites.filter(({ growth }) => growth !== null).length).toBeGreaterThan(0);
  });

  it('goes with the vehicle as a file: what is in it and what was, with both gaps', async () => {
    const { vehicleId } = await unit('11');
    const rows = parse(value(await exportVehicleHistory(w.deps, actor, vehicleId)), { columns: true }) as Record<
      string,
      string
    >[];
    const plugs = rows.filter(({ component }) => component === 'plug');
    expect(plugs.map(({ site, installed_km, removed_km }) => `${site} ${installed_km} ${removed_km}`)).toEqual([
      ...[1, 2, 3, 4].map((n) => `${n}A 77075 121710`),
      ...[1, 2, 3, 4].map((n) => `${n}A 121710 `),
    ]);
    expect(plugs[0]).toMatchObject({ gap_fitted_mm: '1.05', gap_removed_mm: '1.21', breakaway: 'normal' });
    expect(plugs[1]).toMatchObject({ part_number: 'KM-4180', read_off: 'EM-7205' });
    expect(plugs[4]).toMatchObject({ torque_nm: '25', fitted_by: actor.name, gap_removed_mm: '' });
    const stranger = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    for (const id of [vehicleId, 'no such'])
      expect(await exportVehicleHistory(w.deps, id === vehicleId ? stranger : actor, id)).toMatchObject({
        error: { kind: 'not-found' },
      });
  });

  it('shows to the next what the last left behind', async () => {
    const { vehicleId } = await unit('11');
    const { workOrderId } = value(await openWorkOrder(w.deps, actor, { vehicleId }));
    expect(value(await viewWorkOrder(w.deps, actor, workOrderId)).before).toMatchObject({
      note: 'relay bracket first',
    });
    expect((await floorOf(w.deps, actor, workOrderId)).noteBefore).toBe('relay bracket first');
    value(await cancelWorkOrder(w.deps, actor, { workOrderId, reason: 'only to look' }));
  });

  it('takes old boxes of a renumbered part off the shelf first', async () => {
    const closed = value(await viewWorkOrder(w.deps, actor, id));
    expect(closed.plug?.pick).toBeNull();
    const begun = value(await viewWorkOrder(w.deps, actor, (await unit('32')).openWorkOrder?.id ?? ''));
    // Three sites to go; six old boxes of the renumbered EM-7310 lie there.
    expect(begun.plug?.pick).toEqual({ kind: 'own', lines: [{ number: 'EM-7301', count: 3 }], newest: 'EM-7310' });
  });

  it('cancels only what has not been begun', async () => {
    const { workOrderId } = value(await openWorkOrder(w.deps, actor, { vehicleId: (await unit('52')).vehicleId }));
    value(await cancelWorkOrder(w.deps, actor, { workOrderId, reason: 'sold' }));
    expect((await unit('52')).openWorkOrder).toBeNull();
    const begun = (await unit('32')).openWorkOrder?.id ?? '';
    expect(await cancelWorkOrder(w.deps, actor, { workOrderId: begun, reason: 'sold' })).toMatchObject({ ok: false });
  });
});

describe('fitment answer', () => {
  it('resolves the question once, for the vehicle', async () => {
    const { vehicleId } = await unit('22');
    const { vehicle } = value(await viewVehicle(w.deps, actor, vehicleId));
    expect(
      await answerFitment(w.deps, actor, { vehicleId, version: vehicle.version, variant: 'none such' }),
    ).toMatchObject({ ok: false });
    value(await answerFitment(w.deps, actor, { vehicleId, version: vehicle.version, variant: 'without deactivation' }));
    expect(await unit('22')).toMatchObject({ partNumber: 'FS-3807', state: 'later' });
  });
});

describe('what is kept', () => {
  it('is the same when rebuilt from scratch', async () => {
    const before = await list();
    await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
    expect(await list()).toEqual(before);
  });

  it('leaves an audit trail that nobody can change', async () => {
    const { rows } = await w.deps.db.execute(
      sql`select count(*)::int as n from audit_trail where entity = 'work-order'`,
    );
    expect(Number(rows[0]?.n)).toBeGreaterThan(10);
    for (const attempt of [
      sql`update audit_trail set action = 'x'`,
      sql`delete from audit_trail`,
      sql`truncate audit_trail`,
      sql`delete from spec_sheets`,
    ]) {
      await expect(w.deps.db.execute(attempt)).rejects.toThrow();
    }
  });

  it('is closed to roles that may not, and to other fleets', async () => {
    const { vehicleId } = await unit('13');
    for (const role of ['technician', 'parts_clerk', 'viewer'] as const) {
      expect(await openWorkOrder(w.deps, inRole(actor, role), { vehicleId })).toMatchObject({
        ok: false,
        error: { kind: 'forbidden' },
      });
    }
    const stranger: Actor = { ...actor, fleetId: '00000000-0000-4000-8000-000000000000' };
    expect(await openWorkOrder(w.deps, stranger, { vehicleId })).toMatchObject({
      ok: false,
      error: { kind: 'not-found' },
    });
    expect(value(await listDue(w.deps, stranger, dueFilter.parse({}))).items).toEqual([]);
  });
});
