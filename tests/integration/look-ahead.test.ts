import { beforeAll, describe, expect, it } from 'vitest';
import { bays } from '../../src/db/schema';
import type { Actor } from '../../src/server/access';
import { viewLookAhead } from '../../src/server/planning/view-look-ahead';
import { demoWorkspace, value, type Workspace } from '../builders/workspace';

let w: Workspace & { readonly supervisor: Actor };
beforeAll(async () => {
  w = await demoWorkspace();
});
const look = async () => value(await viewLookAhead(w.deps, w.supervisor));

describe('looking ahead', () => {
  it('tells six months by depot, with what is overdue in what is left of the first', async () => {
    const { months, depots, currency } = await look();
    expect(months).toEqual(['2026-11', '2026-12', '2027-01', '2027-02', '2027-03', '2027-04']);
    expect(currency).toBe('EUR');
    expect(depots.length).toBeGreaterThan(2);
    const quarry = depots.find(({ name }) => name === 'Quarry Cross');
    expect(quarry?.months[0]?.mean).toBeGreaterThan(600);
    for (const { months: each, cost, options } of depots) {
      for (const month of each) {
        expect(month.p10).toBeLessThanOrEqual(month.mean);
        expect(month.p90).toBeGreaterThanOrEqual(month.mean);
      }
      for (const option of options) expect(option.cost).toBeLessThanOrEqual(cost + 1e-6);
    }
  });

  it('runs out of hours where bays are hardly open, and a bay day a week helps where people are enough', async () => {
    await w.deps.db.update(bays).set({ hours: { 3: { fromMin: 480, toMin: 540 } } });
    const { depots } = await look();
    const quarry = depots.find(({ name }) => name === 'Quarry Cross');
    expect(quarry?.months[0]).toMatchObject({ binds: 'bays' });
    expect(quarry?.months[0]?.chance).toBeGreaterThan(0.9);
    expect(quarry?.months[0]?.left).toBeGreaterThan(60);
    const [bayDay, person] = quarry?.options ?? [];
    expect(bayDay?.cost).toBeLessThan(quarry?.cost ?? 0);
    // Another person changes nothing where bays run out.
    expect(person?.cost).toBeCloseTo(quarry?.cost ?? 0, 6);
  });
});
