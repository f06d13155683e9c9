import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine, inline4 } from './any-engine.fixture';
import { codeCylinders, codesIn, sayCode } from './fault-code';
import { layoutOf } from './layout';

const four = layoutOf(inline4);

describe('a fault code in the words of the engine', () => {
  it('names its cylinder and where it is, or its coil', () => {
    expect(sayCode(four, 'P0303')).toMatch(/^misfire, cylinder 3: 3rd of 4/);
    expect(sayCode(four, 'p0352')).toMatch(/^coil circuit 2: coil 2, 2nd of 4/);
    expect(sayCode(four, 'P0300')).toBe('misfire, at no cylinder alone');
    expect(sayCode(four, 'P0204')).toMatch(/^injector circuit 4: 4th of 4/);
    expect(sayCode(four, 'P0171')).toBe('mixture too lean');
  });

  it('says nothing of a cylinder that is not there, or of another fault', () => {
    for (const code of ['P0305', 'P0174', 'P0205', 'P0340', 'U0301', 'P030A', '', 'P03'])
      expect(sayCode(four, code)).toBeNull();
  });

  it('finds the codes in whatever another program printed, each once', () => {
    expect(codesIn('DTC p0302 (stored)\nP0302 pending; P0171, speed 48 km/h, P0')).toEqual(['P0302', 'P0171']);
    expect(codesIn('none stored')).toEqual([]);
  });

  it('names the cylinders to draw: its own, or those of its bank', () => {
    fc.assert(
      fc.property(anyEngine, (model) => {
        const layout = layoutOf(model);
        expect(codeCylinders(layout, 'P0171')).toEqual(model.banks[0]?.cylinders);
        expect(codeCylinders(layout, 'P0175')).toEqual(model.banks[1]?.cylinders ?? []);
        expect(codeCylinders(layout, 'P0300')).toEqual([]);
        for (const cylinder of model.firingOrder.filter((n) => n <= 12))
          for (const code of [`P03${String(cylinder).padStart(2, '0')}`, `P02${String(cylinder).padStart(2, '0')}`])
            expect(codeCylinders(layout, code)).toEqual([cylinder]);
      }),
    );
  });

  it('knows every cylinder of any engine, and no other', () => {
    fc.assert(
      fc.property(anyEngine, fc.integer({ min: 1, max: 16 }), (model, n) => {
        const layout = layoutOf(model);
        const said = sayCode(layout, `P03${String(n).padStart(2, '0')}`);
        expect(said !== null).toBe(n <= layout.cylinders);
        if (said) expect(said).toContain(`cylinder ${n}:`);
      }),
    );
  });
});
