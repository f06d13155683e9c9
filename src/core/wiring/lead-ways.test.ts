import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine, engine, inline4 } from '../engine/any-engine.fixture';
import { layoutOf } from '../engine/layout';
import { siteId } from '../engine/model';
import type { Mm } from '../shared/kinds';
import { leadWays } from './lead-ways';

const mm = (...lengths: number[]) => lengths as Mm[];
const four = layoutOf(
  engine({
    ...inline4,
    coils: undefined as never,
    ignition: 'distributor',
    distributor: { rotation: 'clockwise', towerOfCylinder1: 2 },
  }),
);

describe('leads of an engine', () => {
  it('run from the tower that fires their cylinder, each with a new one that is long enough', () => {
    expect(leadWays(four, mm(700, 600, 500, 400), mm(420, 510, 720, 610))).toEqual([
      { site: '1A', name: '1', from: 'tower 2', neededMm: 700, newMm: 720 },
      { site: '2A', name: '2', from: 'tower 1', neededMm: 600, newMm: 610 },
      { site: '3A', name: '3', from: 'tower 3', neededMm: 500, newMm: 510 },
      { site: '4A', name: '4', from: 'tower 4', neededMm: 400, newMm: 420 },
    ]);
  });

  it('have no new length where the set does not reach, or nobody has measured', () => {
    expect(leadWays(four, mm(700, 600, 500, 400), mm(420, 510, 610, 610)).map(({ newMm }) => newMm)).toEqual(
      Array(4).fill(null),
    );
    expect(leadWays(four, null, mm(420, 510, 720, 610)).map(({ newMm }) => newMm)).toEqual(Array(4).fill(null));
  });

  it('are one for each plug and say where they begin, whatever the engine', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const layout = layoutOf(model);
        const ways = leadWays(layout, null, null);
        expect(ways.map(({ site }) => site)).toEqual(layout.sites.map(siteId));
        for (const { from } of ways) expect(from).toMatch(model.distributor ? /^tower \d+$/ : /coil .+$/);
      }),
    );
  });
});
