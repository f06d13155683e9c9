import { eq, sql } from 'drizzle-orm';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { addDays } from '../../src/core/calendar/plain-date';
import { bays, people } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { dueFilter, listDue } from '../../src/server/due/list-due';
import { refreshDue } from '../../src/server/due/refresh-due';
import { confirmImport, uploadFile } from '../../src/server/imports/import-file';
import { planWorkOrder } from '../../src/server/planning/plan-work-order';
import { closeWorkOrder } from '../../src/server/work-orders/close-work-order';
import { openWorkOrder } from '../../src/server/work-orders/open-work-order';
import { recordEntries } from '../../src/server/work-orders/record-entries';
import { doSite, doSteps, entry, floorOf, openGates } from '../builders/floor';
import { demoWorkspace, TODAY, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
let actor: Actor;
beforeAll(async () => {
  w = await demoWorkspace();
  actor = w.supervisor;
});

const list = async () => value(await listDue(w.deps, actor, dueFilter.parse({}))).items;
const unit = async (number: string) => (await list()).find((item) => item.unitNumber === number)?.vehicleId ?? '';
const winners = (outcomes: readonly { ok: boolean }[]) => outcomes.filter((outcome) => outcome.ok).length;
const count = async (query: ReturnType<typeof sql>) => Number((await w.deps.db.execute(query)).rows[0]?.n);

describe('at the same time', () => {
  it('two people open one work order, numbers stay without gap or double', async () => {
    const vehicleId = await unit('13');
    const tries = await Promise.all([1, 2, 3, 4].map(() => openWorkOrder(w.deps, actor, { vehicleId })));
    expect(winners(tries)).toBe(1);
    const others = await Promise.all(
      [await unit('14'), await unit('52'), await unit('42')].map((id) =>
        openWorkOrder(w.deps, actor, { vehicleId: id }),
      ),
    );
    const numbers = others.map((outcome) => value(outcome).number).sort();
    expect(numbers).toEqual([1008, 1009, 1010]);
  });

  it('two orders want one person, one gets it', async () => {
    const [bay1, bay2] = await w.deps.db.select().from(bays).where(sql`name = 'Bay 1'`);
    const [holm] = await w.deps.db.select().from(people).where(eq(people.name, 'J. Holm'));
    const open = (await list()).filter((item) => item.openWorkOrder && !item.openWorkOrder.plannedOn);
    const depotOf = async (bayId: string) =>
      String(
        (
          await w.deps.db.execute(
            sql`select d.name from bays b join depots d on d.id = b.depot_id where b.id = ${bayId}`,
          )
        ).rows[0]?.name,
      );
    const jobs = await Promise.all([bay1, bay2].map(async (bay) => ({ bay, depot: await depotOf(bay?.id ?? '') })));
    const tries = await Promise.all(
      jobs.flatMap(({ bay, depot }) =>
        open
          .filter((item) => item.depot === depot)
          .map((item) =>
            planWorkOrder(w.deps, actor, {
              workOrderId: item.openWorkOrder?.id ?? '',
              day: '2026-11-20',
              start: '09:00',
              minutes: 30,
              bayId: bay?.id ?? '',
              personId: holm?.id ?? '',
            }),
          ),
      ),
    );
    expect(tries.length).toBeGreaterThan(0);
    expect(winners(tries)).toBe(1);
    expect(tries.every((outcome) => outcome.ok || outcome.error.kind === 'conflict')).toBe(true);
  });

  it('three people answer one field, one stands and the others are kept beside it', async () => {
    const order = (await list()).find((item) => item.unitNumber === '14')?.openWorkOrder?.id ?? '';
    await openGates(w.deps, actor, order);
    const tries = await Promise.all(
      ['1.01 mm', '1.02 mm', '1.03 mm'].map((gap) =>
        recordEntries(w.deps, actor, { workOrderId: order, entries: [entry('site 1A', 'removedGap', gap, '')] }),
      ),
    );
    expect(tries.flatMap((outcome) => value(outcome).map((result) => result.outcome)).sort()).toEqual([
      'differs',
      'differs',
      'kept',
    ]);
    const { record, differences } = await floorOf(w.deps, actor, order);
    expect([record['site 1A']?.removedGap, ...differences.map(({ said }) => said)].sort()).toEqual([
      '1.01 mm',
      '1.02 mm',
      '1.03 mm',
    ]);
  });

  it('an order is closed twice, the plugs move once', async () => {
    const order = (await list()).find((item) => item.unitNumber === '13')?.openWorkOrder?.id ?? '';
    for (const site of ['1A', '2A', '3A'])
      expect(
        await doSite(w.deps, actor, order, site, { newNumber: 'EM-7205', newGap: '0.70', torqueMethod: 'angle' }),
      ).toBeNull();
    expect(await doSteps(w.deps, actor, order)).toEqual([]);
    const tries = await Promise.all(
      [1, 2, 3].map(() =>
        closeWorkOrder(w.deps, actor, { workOrderId: order, version: 1, odometer: '88600', note: '' }),
      ),
    );
    expect(winners(tries)).toBe(1);
    expect(await count(sql`select count(*)::int as n from fitted_components where work_order_id = ${order}`)).toBe(3);
    expect(await count(sql`select count(*)::int as n from odometer_readings where source like 'work order%'`)).toBe(1);
  });

  it('one file is confirmed twice, its rows go in once', async () => {
    const bytes = new TextEncoder().encode('unit_number,read_on,odometer,unit\n34,2026-11-15,101950,km');
    const { importId } = value(await uploadFile(w.deps, actor, { fileName: 'odometer.csv', bytes }));
    const tries = await Promise.all([1, 2, 3].map(() => confirmImport(w.deps, actor, { importId })));
    expect(winners(tries)).toBe(1);
    expect(await count(sql`select count(*)::int as n from odometer_readings where read_on = '2026-11-15'`)).toBe(1);
  });
});

describe('where each vehicle stands', () => {
  it('is the same after any readings as when rebuilt from scratch', async () => {
    const reading = fc.record({
      unit: fc.constantFrom('11', '12', '21', '24', '51'),
      back: fc.integer({ min: 0, max: 400 }),
      km: fc.integer({ min: 0, max: 200_000 }),
    });
    await fc.assert(
      fc.asyncProperty(fc.array(reading, { minLength: 1, maxLength: 12 }), async (readings) => {
        const rows = readings.map(({ unit: number, back, km }) => `${number},${addDays(TODAY, -back)},${km},km`);
        const bytes = new TextEncoder().encode(['unit_number,read_on,odometer,unit', ...rows].join('\n'));
        const { importId } = value(await uploadFile(w.deps, actor, { fileName: 'odometer.csv', bytes }));
        value(await confirmImport(w.deps, actor, { importId }));
        const step = await list();
        await w.deps.db.transaction((tx) => refreshDue(tx, actor.fleetId, TODAY, null));
        expect(await list()).toEqual(step);
      }),
      { numRuns: 15 },
    );
  });
});
