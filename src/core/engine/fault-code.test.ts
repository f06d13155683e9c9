import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anyEngine, inline4 } from './any-engine.fixture';
import { sayCode } from './fault-code';
import { layoutOf } from './layout';

const four = layoutOf(inline4);

describe('a fault code in the words of the engine', () => {
  it('names its cylinder and where it is, or its coil', () => {
    expect(sayCode(four, 'P0303')).toMatch(/^misfire, cylinder 3: 3rd of 4/);
    expect(sayCode(four, 'p0352')).toMatch(/^coil circuit 2: coil 2, 2nd of 4/);
    expect(sayCode(four, 'P0300')).toBe('misfire, at no cylinder alone');
  });

  it('says nothing of a cylinder that is not there, or of another fault', () => {
    for (const code of ['P0305', 'P0171', 'P0340', 'U0301', 'P030A', '', 'P03']) expect(sayCode(four, code)).toBeNull();
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
