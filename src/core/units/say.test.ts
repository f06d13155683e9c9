import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readQuantity } from './read-quantity';
import { keptKm, keptMm, keptNm, roundToStep } from './round';
import { sayGap, sayGaps, saySmallTorque, sayTorque, sayTorques } from './say';

describe('a quantity within a sentence', () => {
  it('is said in both systems', () => {
    expect(sayGap(1.05)).toBe('1.05 mm (0.041 in)');
    expect(sayGaps({ min: 1, max: 1.1 })).toBe('1.00 to 1.10 mm (0.039 to 0.043 in)');
    expect(sayTorque(17.5)).toBe('17.5 N·m (12.9 lbf·ft)');
    expect(sayTorques({ min: 17.5, max: 17.5 })).toBe('17.5 N·m (12.9 lbf·ft)');
    expect(saySmallTorque(9)).toBe('9 N·m (6.6 lbf·ft, 80 lbf·in)');
  });

  it('says the same quantity twice, to the last figure that is shown', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.5, max: 1.9, noNaN: true }), (mm) => {
        const [metric, us] = sayGap(mm).slice(0, -1).split(' (');
        const [a, b] = [metric, us].map((text = '') => readQuantity({ kind: 'gap', text, personUnit: 'mm' }));
        if (a?.verdict !== 'ok' || b?.verdict !== 'ok') throw new Error(sayGap(mm));
        expect(Math.abs(a.valueSi - b.valueSi)).toBeLessThan(0.005 + 0.0005 * 25.4);
      }),
    );
  });
});

describe('rounding', () => {
  it('changes a kept quantity by no more than half of what is kept, and only once', () => {
    const any = fc.double({ min: 0, max: 3_000_000, noNaN: true });
    for (const [kept, half] of [
      [keptMm, 0.00005],
      [keptNm, 0.005],
      [keptKm, 0.05],
    ] as const)
      fc.assert(
        fc.property(any, (value) => {
          expect(Math.abs(kept(value) - value)).toBeLessThanOrEqual(half * 1.0001 + 1e-9);
          expect(kept(kept(value))).toBe(kept(value));
        }),
      );
  });

  it('goes to a step, and refuses one that is none', () => {
    expect(roundToStep(17.26, 0.25)).toBe(17.25);
    expect(roundToStep(0.1 + 0.2, 0.1)).toBe(0.3);
    expect(() => roundToStep(1, 0)).toThrow(RangeError);
  });
});
