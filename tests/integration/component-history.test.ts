import { parse } from 'csv-parse/sync';
import { and, eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { recordChangeForm } from '../../src/contracts/forms/vehicles';
import { closeForm } from '../../src/contracts/forms/work-orders';
import { repeatFailures } from '../../src/core/components/history';
import type { Component } from '../../src/core/engine/quantities';
import { plugRulesOf } from '../../src/core/work/order-model';
import { fittedComponents } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { exportVehicleHistory } from '../../src/server/exports/vehicle-history';
import { recordChange } from '../../src/server/fleet/record-change';
import { swapCoils } from '../../src/server/fleet/swap-coils';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { confirmImport, uploadFile } from '../../src/server/imports/import-file';
import { closeWorkOrder, reopenWorkOrder } from '../../src/server/work-orders/close-work-order';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { doSite, doSteps, floorOf } from '../builders/floor';
import { demoWorkspace, idOfUnit, value, type Workspace } from '../builders/workspace';

/* One history of components, whoever writes it: closing, reopening, a recorded change, a swap, an import. */

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const idOf = (unit: string) => idOfUnit(w.deps, unit);
const stays = async (unit: string, component: Component) =>
  w.deps.db
    .select()
    .from(fittedComponents)
    .where(and(eq(fittedComponents.vehicleId, await idOf(unit)), eq(fittedComponents.component, component)))
    .orderBy(fittedComponents.cylinder, fittedComponents.installedOn);
const now = async (unit: string, component: Component) =>
  (await stays(unit, component)).filter(({ removedOn }) => removedOn === null);
const change = async (unit: string, over: object) =>
  value(
    await recordChange(
      w.deps,
      actor,
      recordChangeForm.schema.parse({ vehicleId: await idOf(unit), component: 'coil', odometer: '95,000 km', ...over }),
    ),
  );
const importHistory = async (lines: readonly string[]) => {
  const text = ['unit_number,serviced_on,odometer,unit,sites,part_number,component,tag,removal_reason', ...lines].join(
    '\n',
  );
  const bytes = new TextEncoder().encode(text);
  const upload = { fileName: 'service-history.csv', bytes, kind: 'service-history' as const };
  const { importId } = value(await uploadFile(w.deps, actor, upload));
  return value(await confirmImport(w.deps, actor, { importId })).counts;
};

/** What must hold of a history whoever has written it. */
const isWhole = async () => {
  const rows = await w.deps.db.select().from(fittedComponents);
  const sitting = rows.filter(({ removedOn }) => removedOn === null);
  const places = sitting.map((row) => `${row.vehicleId} ${row.component} ${row.cylinder}${row.position}`);
  const tags = sitting.flatMap(({ tag }) => tag ?? []);
  expect([new Set(places).size, new Set(tags).size]).toEqual([places.length, tags.length]);
  for (const row of rows) {
    expect((row.removedOn === null) === (row.removalReason === null)).toBe(true);
    expect(row.removedOn === null || row.removedOn >= row.installedOn).toBe(true);
  }
};

describe('a work order', () => {
  let workOrderId: string;
  const close = async (over: object = {}) => {
    const { order, vehicle } = value(await viewWorkOrder(w.deps, actor, workOrderId));
    const odometer = `${Math.round((value(await viewVehicle(w.deps, actor, vehicle.id)).due.odometerNowKm ?? 0) + 1)} km`;
    return closeWorkOrder(
      w.deps,
      actor,
      closeForm.schema.parse({ workOrderId, version: order.version, odometer, ...over }),
    );
  };

  it('takes the plugs out with its reason, and puts the new ones in', async () => {
    const before = await now('14', 'plug');
    workOrderId = value(await openWorkOrder(w.deps, actor, { vehicleId: await idOf('14') })).workOrderId;
    const job = await floorOf(w.deps, actor, workOrderId);
    const rules = plugRulesOf(job);
    if (!rules) throw new Error('no plugs');
    for (const { id } of job.sites)
      expect(
        await doSite(w.deps, actor, workOrderId, id, {
          observedNumber: rules.partNumber,
          newNumber: rules.partNumber,
          newGap: `${rules.gap.minMm} mm`,
          torqueMethod: 'wrench',
          installedTorque: `${rules.torqueNm.min} N·m`,
          compound: rules.lubricant === 'dry' ? null : 'nickel compound',
        }),
      ).toBeNull();
    await doSteps(w.deps, actor, workOrderId);
    value(await close({ removalReason: 'recalled_lot' }));
    const rows = await stays('14', 'plug');
    const out = rows.filter(({ removedByWorkOrderId }) => removedByWorkOrderId === workOrderId);
    expect(out).toHaveLength(before.length);
    expect(new Set(out.map(({ removalReason, observedNumber }) => `${removalReason} ${observedNumber}`))).toEqual(
      new Set([`recalled_lot ${rules.partNumber}`]),
    );
    expect((await now('14', 'plug')).map(({ workOrderId: by }) => by)).toEqual(job.sites.map(() => workOrderId));
    await isWhole();
  });

  it('that is reopened leaves the history as it was before', async () => {
    const fitted = await now('14', 'plug');
    value(await reopenWorkOrder(w.deps, actor, { workOrderId, reason: 'closed on the wrong vehicle' }));
    const again = await now('14', 'plug');
    expect(again.every(({ workOrderId: by }) => by !== workOrderId)).toBe(true);
    expect(again).toHaveLength(fitted.length);
    await isWhole();
  });

  it('takes no reason that there is not', () => {
    const input = { workOrderId: '00000000-0000-4000-8000-000000000000', version: 1, odometer: '1' };
    expect(closeForm.schema.safeParse({ ...input, removalReason: 'by moon' }).success).toBe(false);
    // Left out, it is as the task says.
    expect(closeForm.schema.parse(input).removalReason).toBeUndefined();
  });
});

describe('a recorded change', () => {
  it('says why the old one came out, and a planned one is no failure', async () => {
    for (const [on, tag, removalReason] of [
      ['2026-03-01', 'T-1', 'planned'],
      ['2026-05-01', 'T-2', 'failed'],
      ['2026-07-01', 'T-3', 'failed'],
      ['2026-09-01', 'T-4', 'failed'],
    ] as const)
      await change('32', {
        sites: '1',
        on,
        tag,
        removalReason,
        odometer: `${95_000 + Number(on.slice(5, 7)) * 100} km`,
      });
    const coils = await stays('32', 'coil');
    const own = coils.filter(({ tag }) => tag?.startsWith('T-'));
    expect(own.map(({ tag, removalReason }) => [tag, removalReason])).toEqual([
      ['T-1', 'failed'],
      ['T-2', 'failed'],
      ['T-3', 'failed'],
      ['T-4', null],
    ]);
    expect(repeatFailures(coils).find(({ cylinder }) => cylinder === 1)?.lost).toBe(3);
    await isWhole();
  });
});

describe('a swap', () => {
  it('ends both stays as one, and may be made back on the same day', async () => {
    const vehicleId = await idOf('11');
    const before = (await now('11', 'coil')).map(({ cylinder, tag }) => [cylinder, tag]);
    for (let i = 0; i < 2; i++)
      value(await swapCoils(w.deps, actor, { vehicleId, first: 1, second: 2, reason: 'misfire on 1' }));
    expect((await now('11', 'coil')).map(({ cylinder, tag }) => [cylinder, tag])).toEqual(before);
    const moved = (await stays('11', 'coil')).filter(({ removalReason }) => removalReason === 'swap');
    expect(moved).toHaveLength(4);
    await isWhole();
  });
});

describe('an import', () => {
  it('puts each service where it belongs in time, with its own reason', async () => {
    const [first] = (await now('11', 'coil')).filter(({ cylinder }) => cylinder === 4);
    expect(
      await importHistory(['11,2021-06-01,40000,km,4,,coil,OLD-4,failed', '11,2019-06-01,20000,km,4,,coil,OLDER-4,']),
    ).toMatchObject({ add: 2, refuse: 0 });
    const own = (await stays('11', 'coil')).filter(({ cylinder }) => cylinder === 4);
    expect(own.map(({ tag, removedOn, removalReason }) => [tag, removedOn, removalReason])).toEqual([
      [first?.tag, '2019-06-01', 'unknown'],
      ['OLDER-4', '2021-06-01', 'failed'],
      ['OLD-4', null, null],
    ]);
    await isWhole();
  });

  it('refuses a reason that there is not, by line and column', async () => {
    expect(await importHistory(['11,2022-06-01,50000,km,1,,coil,X-1,by moon'])).toMatchObject({ add: 0, refuse: 1 });
  });

  it('is told again in the export, part by part', async () => {
    const csv = value(await exportVehicleHistory(w.deps, actor, await idOf('11')));
    const rows = parse(csv, { columns: true, bom: true }) as readonly Record<string, string>[];
    const told = rows.filter((row) => row.removal_reason !== '').map((row) => row.removal_reason);
    expect(new Set(told)).toEqual(new Set((await stays11()).flatMap(({ removalReason }) => removalReason ?? [])));
  });
  const stays11 = async () =>
    w.deps.db
      .select()
      .from(fittedComponents)
      .where(eq(fittedComponents.vehicleId, await idOf('11')));
});
