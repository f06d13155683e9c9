import { eq } from 'drizzle-orm';
import { beforeAll, describe, expect, it } from 'vitest';
import { GATES } from '../../src/core/work/gate-table';
import { vehicles } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { closeWorkOrder } from '../../src/server/work-orders/close-work-order';
import { handOver } from '../../src/server/work-orders/hand-over';
import { liftGate } from '../../src/server/work-orders/lift-gate';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { recordEntries } from '../../src/server/work-orders/record-entries';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { doSteps, entry, floorOf } from '../builders/floor';
import { walkGates } from '../builders/gate-walk';
import { demoWorkspace, inRole, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let technician: Actor;

const openFor = async (unit: string): Promise<string> => {
  const [vehicle] = await w.deps.db.select().from(vehicles).where(eq(vehicles.unitNumber, unit));
  return value(await openWorkOrder(w.deps, w.supervisor, { vehicleId: vehicle?.id ?? '' })).workOrderId;
};
const send = async (workOrderId: string, entries: Parameters<typeof recordEntries>[2]['entries']) =>
  value(await recordEntries(w.deps, technician, { workOrderId, entries }));

beforeAll(async () => {
  w = await demoWorkspace();
  technician = inRole(w.supervisor, 'technician');
});

describe('the gates', () => {
  it('each refuse what a device that was offline pressed too early, and the close waits for the last two', async () => {
    const id = await openFor('33');
    const held = await walkGates({
      job: () => floorOf(w.deps, technician, id),
      send: (entries) => send(id, [...entries]),
    });
    const { order, gates } = value(await viewWorkOrder(w.deps, w.supervisor, id));
    expect(gates.filter(({ state }) => state === 'shut').map(({ gate }) => gate)).toEqual(['codes', 'proved']);
    const close = () =>
      closeWorkOrder(w.deps, w.supervisor, { workOrderId: id, version: order.version, odometer: '99000', note: '' });
    expect(await close()).toMatchObject({ error: { kind: 'conflict' } });
    expect(await handOver(w.deps, technician, id)).toMatchObject({ error: { kind: 'conflict' } });
    expect([...held, 'codes', 'proved'].sort()).toEqual([...GATES].sort());
    expect(await doSteps(w.deps, technician, id)).toEqual([]);
    expect(value(await viewWorkOrder(w.deps, w.supervisor, id)).gates.every(({ state }) => state === 'open')).toBe(
      true,
    );
  });

  it('are lifted by a supervisor alone, with a reason that stays, for a visit or for one place', async () => {
    const id = await openFor('35');
    const lift = { workOrderId: id, gate: 'safe', reason: 'on the lift of the body shop' } as const;
    const early = () => [entry('step cold', 'answer.temperature', 'cold'), entry('step cold', 'state', 'done', 'open')];
    expect((await send(id, early())).map(({ outcome }) => outcome)).toEqual(['kept', 'refused']);
    expect(await liftGate(w.deps, technician, lift)).toMatchObject({ error: { kind: 'forbidden' } });
    expect(await liftGate(w.deps, w.supervisor, { ...lift, reason: ' ' })).toMatchObject({
      error: { kind: 'invalid' },
    });
    expect(await liftGate(w.deps, w.supervisor, { ...lift, target: 'site 1A' })).toMatchObject({
      error: { message: expect.stringContaining('whole visit') },
    });
    expect(await liftGate(w.deps, w.supervisor, { ...lift, gate: 'threads' })).toMatchObject({
      error: { message: expect.stringContaining('name the place') },
    });
    expect(await liftGate(w.deps, w.supervisor, { ...lift, gate: 'threads', target: 'site 9A' })).toMatchObject({
      error: { kind: 'not-found' },
    });
    value(await liftGate(w.deps, w.supervisor, lift));
    value(await liftGate(w.deps, w.supervisor, { ...lift, reason: 'again' }));
    expect((await send(id, early())).map(({ outcome }) => outcome)).toEqual(['same', 'kept']);
    const view = value(await viewWorkOrder(w.deps, w.supervisor, id));
    expect(view.gates.find(({ gate }) => gate === 'safe')).toMatchObject({
      state: 'lifted',
      lift: { reason: lift.reason, by: w.supervisor.name },
    });
    expect(view.history.filter(({ action }) => action === 'lift gate')).toHaveLength(1);
  });
});

describe('the parts gate', () => {
  const bench = (places: readonly { readonly target: string }[], number: string, gap: string, base = '') =>
    places.flatMap(({ target }) => [
      entry(target, 'newNumber', number, base),
      entry(target, 'newGap', gap, base === '' ? '' : '1.05'),
    ]);

  it('lets no look-alike, no gap out of range and no mixed design through, and says how the part differs', async () => {
    const id = await openFor('107');
    const job = await floorOf(w.deps, technician, id);
    const plugs = job.places.filter(({ component }) => component === 'plug');
    const [first] = plugs;
    const step = job.steps.find(({ kind }) => kind === 'parts')?.key ?? '';
    const tick = async () => (await send(id, [entry(`step ${step}`, 'state', 'done', 'open')]))[0]?.message ?? null;
    const say = (field: string, value: string, base: string) =>
      send(id, [entry(first?.target ?? '', field, value, base)]);
    const right = job.plug?.rules.partNumber ?? '';
    await send(id, [
      entry('step safe', 'state', 'done', 'open'),
      ...bench(plugs, right, '1.05'),
      entry(`step ${step}`, 'answer.shape', 'as the record says'),
      entry(`step ${step}`, 'answer.kit', 'nothing missing, extra or double'),
    ]);
    await say('newNumber', 'FS-4190', right);
    expect(await tick()).toMatch(/This engine takes KM-4180; FS-4190 has reach 26\.5 mm instead of 19 mm: Longer/);
    await say('newNumber', right, 'FS-4190');
    await say('newGap', '0.65', '1.05');
    expect(await tick()).toMatch(/0\.65 mm.* is outside 1\.00 to 1\.10 mm/);
    await say('newGap', '1.05', '0.65');
    expect(await tick()).toBeNull();
  });
});
