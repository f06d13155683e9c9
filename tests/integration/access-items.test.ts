import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { engineFamilies, vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { exportAccessItems, saveAccessItems, viewAccessItems } from '../../src/server/catalogue/access-items';
import { confirmImport, uploadFile } from '../../src/server/imports/import-file';
import { chooseWay } from '../../src/server/work-orders/choose-way';
import { closeWorkOrder } from '../../src/server/work-orders/close-work-order';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { doSite, doSteps, enter } from '../builders/floor';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };

const familyOf = async (code: string): Promise<string> => {
  const [family] = await w.deps.db.select().from(engineFamilies).where(eq(engineFamilies.code, code));
  return family?.id ?? '';
};
const view = async (code: string) => value(await viewAccessItems(w.deps, w.supervisor, { id: await familyOf(code) }));
const openFor = async (unit: string): Promise<string> => {
  const [vehicle] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit));
  return value(await openWorkOrder(w.deps, w.supervisor, { vehicleId: vehicle?.id ?? '' })).workOrderId;
};

beforeAll(async () => {
  w = await demoWorkspace();
});

describe('the way to the plugs of a family', () => {
  it('is saved whole or not at all, by who may, against the list that was seen', async () => {
    const before = await view('AG-18');
    const save = (rows: unknown, version = before.family.version, actor = w.supervisor) =>
      saveAccessItems(w.deps, actor, { familyId: before.family.id, version, rows } as never);
    const cover = { part: 'cover', what: 'top cover', minutes_off: '2', minutes_on: '2' };
    expect(await save([...before.rows, cover], undefined, inRole(w.supervisor, 'technician'))).toMatchObject({
      error: { kind: 'forbidden' },
    });
    expect(await save([...before.rows, { ...cover, torque: '9 mm' }])).toMatchObject({
      error: { kind: 'invalid', message: expect.stringMatching(/Nothing was saved.*Row 3, torque/) },
    });
    expect(await save([cover, cover])).toMatchObject({ error: { message: expect.stringContaining('twice') } });
    expect((await view('AG-18')).rows).toEqual(before.rows);
    value(await save([...before.rows, cover]));
    expect((await view('AG-18')).rows.map(({ what }) => what)).toEqual([
      ...before.rows.map(({ what }) => what),
      'top cover',
    ]);
    expect(await save(before.rows)).toMatchObject({ error: { kind: 'edited-meanwhile' } });
  });

  it('goes out as a file that says the same when it comes in, and one wrong row keeps its family out', async () => {
    const csv = value(await exportAccessItems(w.deps, w.supervisor));
    const send = async (text: string) => {
      const file = { fileName: 'access-items.csv', bytes: Buffer.from(text) };
      const { importId } = value(await uploadFile(w.deps, w.supervisor, file));
      return value(await confirmImport(w.deps, w.supervisor, { importId })).counts;
    };
    const lines = csv.trim().split('\r\n');
    expect(lines[0]).toContain('engine_family,part,what,opens');
    const own = lines.filter((line) => line.startsWith('PW-34M'));
    expect(await send(csv)).toMatchObject({ skip: lines.length - 1, add: 0, change: 0, refuse: 0 });
    expect(await send(csv.replace('intake manifold,rear bank', 'intake manifold,left bank'))).toMatchObject({
      refuse: own.length,
      change: 0,
    });
    expect(await send([lines[0], ...own.slice(1)].join('\n'))).toMatchObject({ change: own.length - 1 });
    expect((await view('PW-34M')).rows).toHaveLength(own.length - 1);
    expect(await send([lines[0], ...own].join('\n'))).toMatchObject({ change: own.length });
  });

  it('shows the other way with what speaks for it, and steps and minutes follow the one that is taken', async () => {
    const id = await openFor('33');
    const before = value(await viewWorkOrder(w.deps, w.supervisor, id));
    const [choice] = before.way.choices;
    expect([choice?.usual.what, choice?.others.map(({ what }) => what)]).toEqual([
      'intake manifold',
      ['manifold raised on its hoses'],
    ]);
    expect(before.way.parts.find(({ why }) => why === 'seal_new')).toMatchObject({
      what: 'manifold gaskets',
      number: 'PM-3420',
    });
    const way = { workOrderId: id, usual: 'intake_manifold', taken: 'manifold_raised_on_its_hoses' };
    expect(await chooseWay(w.deps, w.supervisor, { ...way, taken: 'wiper_cowl' })).toMatchObject({
      error: { kind: 'invalid' },
    });
    value(await chooseWay(w.deps, w.supervisor, way));
    const after = value(await viewWorkOrder(w.deps, w.supervisor, id));
    expect(after.steps.some(({ key }) => key === 'open_manifold_raised_on_its_hoses')).toBe(true);
    expect(after.steps.some(({ key }) => key === 'close_intake_manifold')).toBe(false);
    expect(after.order.minutes).toBeLessThan(before.order.minutes);
    expect(after.steps.reduce((sum, { minutes }) => sum + (minutes ?? 0), 0)).toBe(after.order.minutes);
  });

  it('keeps what was broken on arrival with the part to order, not charged to who says it', async () => {
    const id = await openFor('35');
    await enter(w.deps, w.supervisor, id, 'step open_wiper_cowl', { 'answer.found': 'two clips gone' });
    await doSteps(w.deps, w.supervisor, id);
    const { way } = value(await viewWorkOrder(w.deps, w.supervisor, id));
    expect(way.defects).toMatchObject([{ says: 'two clips gone', part: { what: 'cowl clip', number: 'PM-3401' } }]);
  });

  it('passes on what a technician wrote at an item to the next at this engine, with name and vehicle', async () => {
    const first = await openFor('34');
    const good = { newNumber: 'EM-7310', newGap: '1.05 mm', torqueMethod: 'wrench', installedTorque: '17.5 N·m' };
    for (const site of ['1A', '2A', '3A', '4A', '5A', '6A'])
      expect(await doSite(w.deps, w.supervisor, first, site, good)).toBeNull();
    await enter(w.deps, w.supervisor, first, 'step open_intake_duct', {
      'answer.note': 'clamp turned to the bulkhead',
    });
    expect(await doSteps(w.deps, w.supervisor, first)).toEqual([]);
    const { order } = value(await viewWorkOrder(w.deps, w.supervisor, first));
    value(
      await closeWorkOrder(w.deps, w.supervisor, {
        workOrderId: first,
        version: order.version,
        odometer: '103000 km',
        note: '',
      }),
    );
    const { steps } = value(await viewWorkOrder(w.deps, w.supervisor, await openFor('36')));
    expect(steps.find(({ key }) => key === 'open_intake_duct')?.why).toContain(
      `Note of ${w.supervisor.name}, unit 34: clamp turned to the bulkhead.`,
    );
  });
});
