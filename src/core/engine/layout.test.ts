import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine, engine, inline4, transverseV6 } from './any-engine.fixture';
import {
  alongBank,
  holesFromText,
  holesText,
  layoutOf,
  modelFaults,
  neighbours,
  siteName,
  sitePlace,
  sitesFromText,
} from './layout';
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

describe('the order of holes', () => {
  const text = '1A 2A 1B 3A 2B 3B | 4A 5A 4B 6A 5B 6B';
  const inARow = engine({ ...twin, holes: holesFromText(text) });

  it('is read, said again and drawn: holes in a row, as far apart as others', () => {
    expect(holesText(inARow.holes ?? [])).toBe(text);
    const layout = layoutOf(inARow);
    const right = layout.sites.filter(({ bank }) => bank === 1).sort((a, b) => b.y - a.y);
    expect(right.map(siteId)).toEqual(['1A', '2A', '1B', '3A', '2B', '3B']);
    expect(new Set(right.map(({ x }) => x)).size).toBe(1);
    expect(alongBank(layout, 1)).toEqual(right);
    expect(alongBank(layoutOf(twin), 2).map(siteId)).toEqual(['4A', '4B', '5A', '5B', '6A', '6B']);
    const second = layout.sites.find((site) => siteId(site) === '1B');
    expect(second && sitePlace(layout, second)).toBe('right bank, 3rd hole of 6 from the front');
  });

  it.each([
    ['1A 2A 1B 3A 2B | 4A 5A 4B 6A 5B 6B', 'the holes of bank 1 are 1A 1B 2A 2B 3A 3B'],
    ['1A 2A 1B 3A 2B 3B', 'for each bank: 2, got 1'],
  ])('is refused as %j', (wrong, words) => {
    expect(modelFaults({ ...twin, holes: holesFromText(wrong) }).join()).toContain(words);
  });

  it('belongs to two plugs a cylinder, and to plugs alone', () => {
    expect(modelFaults({ ...v6, holes: holesFromText('1A 3A 5A | 2A 4A 6A') }).join()).toContain(
      'two plugs a cylinder',
    );
    expect(holesFromText('1 2 3')).toBeNull();
    expect(holesFromText('1A 1B |')).toBeNull();
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
