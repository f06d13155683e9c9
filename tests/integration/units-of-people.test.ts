import { beforeAll, describe, expect, it } from 'vitest';
import type { Actor } from '../../src/server/access';
import { printOrder } from '../../src/server/paper/print-order';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { viewWorkOrder } from '../../src/server/work-orders/view-work-order';
import { enter, floorOf } from '../builders/floor';
import { demoWorkspace, value, type Workspace } from '../builders/workspace';

/* Two people with other units at one engine: a bare figure means what it meant to whoever typed it. */

let w: Workspace & { readonly supervisor: Actor };
let metric: Actor;
let us: Actor;
let workOrderId: string;
beforeAll(async () => {
  w = await demoWorkspace();
  metric = w.supervisor;
  us = { ...w.supervisor, unitSystem: 'us' };
  const { rows } = await w.pool.query<{ id: string }>(`select id from vehicles where unit_number = '14'`);
  workOrderId = value(await openWorkOrder(w.deps, metric, { vehicleId: rows[0]?.id ?? '' })).workOrderId;
});

const site = async (person: Actor, id: string) =>
  value(await viewWorkOrder(w.deps, person, workOrderId)).sites.find(
    ({ cylinder, position }) => `${cylinder}${position}` === id,
  );

describe('a bare figure', () => {
  it('is read in the units of whoever types it, and kept as typed', async () => {
    await enter(w.deps, metric, workOrderId, 'site 1A', { newGap: '0.75', removedGap: '0.9' });
    await enter(w.deps, us, workOrderId, 'site 2A', { newGap: '.030', installedTorque: '12.5' });
    expect(await site(metric, '1A')).toMatchObject({ newGapMm: 0.75, newGapAsTyped: '0.75', removedGapMm: 0.9 });
    const second = await site(us, '2A');
    expect(second).toMatchObject({ newGapMm: 0.762, newGapAsTyped: '.030' });
    expect(second?.installedTorqueNm).toBeCloseTo(16.95, 1);
  });

  it('keeps its meaning when another adds to the same site', async () => {
    const good = { newNumber: 'EM-7205', torqueMethod: 'wrench', installedTorque: '12.5' } as const;
    const results = await enter(w.deps, us, workOrderId, 'site 1A', { ...good, done: true });
    expect(results.map(({ outcome, message }) => message ?? outcome)).toEqual(Array(6).fill('kept'));
    expect(await site(metric, '1A')).toMatchObject({ newGapMm: 0.75, newGapAsTyped: '0.75' });
    const job = await floorOf(w.deps, us, workOrderId);
    expect(job.places.find(({ id }) => id === '1A')?.measured.newGap).toEqual({ text: '0.75', si: 0.75 });
  });

  it('that says the same in other units is the same, and no difference', async () => {
    const [said] = await enter(w.deps, metric, workOrderId, 'site 2A', { newGap: '0.762 mm' });
    expect(said?.outcome).toBe('same');
    expect((await site(us, '2A'))?.newGapAsTyped).toBe('.030');
  });
});

describe('paper', () => {
  it('prints for people of either units', async () => {
    for (const person of [metric, us])
      for (const sheet of ['job-card', 'record'] as const) {
        const input = { workOrderId, sheet, size: 'A4', address: 'http://127.0.0.1' } as const;
        const { bytes } = value(await printOrder(w.deps, person, input));
        expect(Buffer.from(bytes).subarray(0, 5).toString()).toBe('%PDF-');
      }
  });
});
