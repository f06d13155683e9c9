import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { engineFamilies, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { fitmentOf } from '../../src/server/catalogue/fitment-of';
import { recordDistributor } from '../../src/server/fleet/found-distributor';
import { viewVehicle } from '../../src/server/fleet/view-vehicle';
import { listToOrder } from '../../src/server/stock/list-to-order';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { PLUG_SERVICE, type TaskInput } from '../../src/server/work-orders/plan-tasks';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { enter, floorOf } from '../builders/floor';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let technician: Actor;

const vehicle = async (unit: string) => {
  const [row] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit));
  if (!row) throw new Error(`no unit ${unit}`);
  return row;
};
const open = async (unit: string, more: { releaseReason?: string; tasks?: TaskInput[] } = {}) =>
  openWorkOrder(w.deps, w.supervisor, { vehicleId: (await vehicle(unit)).id, ...more });
const matchOf = async (unit: string) => {
  const found = await fitmentOf(w.deps.db, w.supervisor.fleetId, w.deps.today(), (await vehicle(unit)).id);
  if (found?.fitment.kind !== 'match') throw new Error(`unit ${unit} has no match`);
  return { ...found.fitment.spec, blockers: found.blockers };
};

beforeAll(async () => {
  w = await demoWorkspace();
  technician = inRole(w.supervisor, 'technician');
});

describe('sheets that hold together', () => {
  it('narrow gap and torque of an order to what the makers of vehicle and plug both allow', async () => {
    const { workOrderId } = value(await open('124'));
    const { plug } = value(await viewWorkOrder(w.deps, w.supervisor, workOrderId));
    expect(plug).toMatchObject({
      spec: { gapMinMm: 1.05, gapMaxMm: 1.1 },
      threads: { torqueNm: { min: 20, max: 23 } },
    });
    const job = await floorOf(w.deps, technician, workOrderId);
    expect(job.tasks[0]?.rules).toMatchObject({ gap: { minMm: 1.05, maxMm: 1.1 }, torqueNm: { min: 20, max: 23 } });
  });

  it('let a newer bulletin decide how the work is done, above an older sheet that ranks higher', async () => {
    const { workOrderId } = value(await open('132'));
    const job = await floorOf(w.deps, technician, workOrderId);
    const sites = job.steps.find(({ kind }) => kind === 'sites');
    expect(sites?.caution).toContain('Saxholm bulletin 24-3');
    expect(sites?.why).toContain('thinly on the shield');
    const spec = await matchOf('132');
    expect(spec).toMatchObject({ engineTemperature: 'cold', sourceDocument: 'Demo data: Saxholm workshop sheets 52L' });
    expect(spec.others.map((one) => one.for)).toEqual(['engineTemperature', 'method']);
  });
});

describe('more boost than it left the works with', () => {
  it('takes the tighter gap of two known pressures, once a supervisor approves of it', async () => {
    const refused = await open('114');
    expect(refused).toMatchObject({ error: { message: expect.stringContaining('between two known ones') } });
    const { workOrderId } = value(await open('114', { releaseReason: 'tuner agrees, 0.55 mm' }));
    const { plug, tasks } = value(await viewWorkOrder(w.deps, w.supervisor, workOrderId));
    expect(plug?.spec).toMatchObject({ gapMinMm: 0.5, gapMaxMm: 0.6 });
    expect(tasks[0]?.row.releaseReason).toBe('tuner agrees, 0.55 mm');
  });

  it('needs none at a known pressure, and stops above all of them', async () => {
    const { id } = await vehicle('114');
    const at = async (intakeKpa: number) => {
      await w.deps.db.update(vehicles).set({ intakeKpa }).where(eq(vehicles.id, id));
      return matchOf('114');
    };
    expect(await at(180)).toMatchObject({ gapMinMm: 0.6, blockers: [] });
    expect(await at(260)).toMatchObject({ blockers: ['boost-unknown'] });
  });
});

describe('a new plug that is bent', () => {
  it('keeps each bend with its direction, and is not fitted once it was bent too far', async () => {
    const { workOrderId } = value(await open('4', { tasks: [PLUG_SERVICE] }));
    const at = (fields: Parameters<typeof enter>[4]) => enter(w.deps, technician, workOrderId, 'site 1A', fields);
    const spec = await matchOf('4');
    const mid = (spec.gapMinMm + spec.gapMaxMm) / 2;
    await at({ newNumber: spec.part.number, bentFrom: `${mid - 0.4}`, newGap: `${mid} mm` });
    const far = (await at({ done: true })).at(-1);
    expect(far).toMatchObject({ outcome: 'refused', message: expect.stringContaining('in all') });
    // Another plug was taken: what was done to the first no longer counts.
    await at({ bentFrom: '' });
    expect((await at({ done: true })).at(-1)).toMatchObject({ message: expect.not.stringContaining('in all') });
  });
});

describe('a distributor found turned', () => {
  it('is kept for the vehicle from two leads and its proof, and every drawing of it follows', async () => {
    const before = await vehicle('5');
    const say = (traced: string, version: number, by: Actor = technician) =>
      recordDistributor(w.deps, by, {
        vehicleId: before.id,
        version,
        traced,
        proof: 'rotor at 3, cylinder 1 at its mark',
      });
    const family = value(await viewVehicle(w.deps, technician, before.id)).layout.model;
    const at = (cylinder: number): string => {
      const i = family.firingOrder.indexOf(cylinder);
      const turn = family.distributor?.rotation === 'clockwise' ? 1 : -1;
      return `${((((3 - 1 + turn * i) % 6) + 6) % 6) + 1}=${cylinder}`;
    };
    expect(await say(at(1), before.version)).toMatchObject({ error: { fields: { traced: expect.any(String) } } });
    expect(await say(`${at(1)} 5=9`, before.version)).toMatchObject({
      error: { message: expect.stringContaining('agree with no turn') },
    });
    expect(await say(`${at(1)} ${at(4)}`, before.version, inRole(w.supervisor, 'viewer'))).toMatchObject({
      error: { kind: 'forbidden' },
    });
    value(await say(`${at(1)} ${at(4)}`, before.version));
    expect(await say(`${at(1)} ${at(4)}`, before.version)).toMatchObject({ error: { kind: 'edited-meanwhile' } });
    const { layout } = value(await viewVehicle(w.deps, technician, before.id));
    expect(layout.model.distributor).toMatchObject({ towerOfCylinder1: 3 });
    const { workOrderId } = value(await open('5'));
    expect((await floorOf(w.deps, technician, workOrderId)).layout.model.distributor).toMatchObject({
      towerOfCylinder1: 3,
    });
    // Other vehicles of the family stand as before.
    const other = value(await viewVehicle(w.deps, technician, (await vehicle('6')).id));
    expect(other.layout.model.distributor).toEqual(family.distributor);
  });
});

describe('parts for the way in', () => {
  it('are on the drafted order: always new with what comes off, and what was found broken', async () => {
    const { workOrderId } = value(await open('35'));
    const job = await floorOf(w.deps, technician, workOrderId);
    const [family] = await w.deps.db.select().from(engineFamilies).where(eq(engineFamilies.code, 'PW-34M'));
    const items = family?.accessItems ?? [];
    const seal = items.find(
      (item) => item.seal?.rule === 'new' && job.steps.some(({ key }) => key === `open_${item.key}`),
    );
    const breaks = items.find((item) => item.breaks?.number && job.steps.some(({ key }) => key === `open_${item.key}`));
    const draft = async () => value(await listToOrder(w.deps, w.supervisor, { weeks: 1 })).lines;
    expect((await draft()).find(({ number }) => number === seal?.seal?.number)?.whys).toContain('new_seal');
    await enter(w.deps, technician, workOrderId, `step open_${breaks?.key}`, { 'answer.found': 'tab broken off' });
    expect((await draft()).find(({ number }) => number === breaks?.breaks?.number)?.whys).toContain('found_broken');
  });
});
