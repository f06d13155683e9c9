import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine, engine, inline4, transverseV6 } from './any-engine.fixture';
import { layoutOf, modelFaults, neighbours, siteName, sitePlace, sitesFromText } from './layout';
import { siteId } from './model';

const v6 = engine({ ...transverseV6, ignition: 'waste_spark', coils: undefined });
const twin = engine({
  ...v6,
  coils: undefined,
  mounting: 'longitudinal',
  ignition: 'coil_per_cylinder',
  plugsPerCylinder: 2,
  banks: [
    { place: 'right', cylinders: [1, 2, 3] },
    { place: 'left', cylinders: [4, 5, 6] },
  ],
});

describe('layoutOf', () => {
  it('gives each site once, no two in one place, and as many as plugs', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const { sites, cylinders } = layoutOf(model);
        expect(sites).toHaveLength(cylinders * model.plugsPerCylinder);
        expect(new Set(sites.map(siteId)).size).toBe(sites.length);
        expect(new Set(sites.map((s) => `${s.x.toFixed(3)},${s.y.toFixed(3)}`)).size).toBe(sites.length);
      }),
    );
  });

  it('has symmetric neighbours that never cross a bank', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const layout = layoutOf(model);
        for (const cylinder of model.firingOrder) {
          for (const beside of neighbours(layout, cylinder)) {
            expect(neighbours(layout, beside)).toContain(cylinder);
            expect(model.banks.some((b) => b.cylinders.includes(cylinder) && b.cylinders.includes(beside))).toBe(true);
          }
        }
      }),
    );
  });

  it('names sites as people do', () => {
    const layout = layoutOf(v6);
    expect(layout.sites.map((s) => siteName(layout, s))).toEqual(['1', '2', '3', '4', '5', '6']);
    expect(siteName(layoutOf(twin), { cylinder: 3, position: 'B' })).toBe('3B');
    const third = layout.sites[2];
    expect(third && sitePlace(layout, third)).toBe('rear bank, 2nd of 3 from the left');
    expect(neighbours(layout, 3)).toEqual([1, 5]);
  });
});

describe('modelFaults', () => {
  it.each([
    [{ firingOrder: [1, 3, 4, 4] }, 'firing order'],
    [{ banks: [{ place: 'only' as const, cylinders: [1, 2, 4] }], firingOrder: [1, 2, 4] }, 'each cylinder'],
    [{ banks: v6.banks }, '1 bank'],
    [{ banks: [{ place: 'left' as const, cylinders: [1, 2, 3, 4] }] }, '“only”'],
    [{ banks: [], firingOrder: [] }, '1 to 16'],
  ])('explains %j', (over, words) => {
    expect(modelFaults({ ...inline4, ...over }).join('; ')).toContain(words);
    expect(() => layoutOf({ ...inline4, ...over })).toThrow(RangeError);
  });

  it('wants the banks of a transverse V front and rear', () => {
    expect(modelFaults({ ...v6, mounting: 'longitudinal' }).join()).toContain('left and right');
    expect(modelFaults({ ...v6, banks: [...v6.banks].reverse() }).join()).toContain('bank 1');
  });
});

describe('sitesFromText', () => {
  const layout = layoutOf(twin);
  it.each([
    ['all', 12],
    ['', 12],
    ['1 3', 4],
    ['1A, 1b', 2],
    ['bank 2', 6],
    ['4A', 1],
  ])('%j names %i sites', (text, count) => {
    expect(sitesFromText(layout, text)).toHaveLength(count);
  });
  it.each(['7', '1C', 'bank 3', 'front', '0'])('%j is not on this engine', (text) => {
    expect(sitesFromText(layout, text)).toBeNull();
  });
});
