import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readQuantity } from '../units/read-quantity';
import {
  doubtOfFastener,
  FASTENER_PLACES,
  FASTENER_SIZES,
  fastenersFromText,
  fastenersText,
  TIGHTENING_ORDERS,
  tighteningOrder,
} from './access';
import { engine } from './any-engine.fixture';
import { bankNamed, sideWords } from './sides';

const nm = (text: string): number | null => {
  const reading = readQuantity({ kind: 'torque', text, window: { min: 0.5, max: 200 } });
  return reading.verdict === 'ok' ? reading.valueSi : null;
};

describe('tighteningOrder', () => {
  it('goes from the centre outward', () => {
    expect(tighteningOrder(5, 'centre_outward')).toEqual([3, 2, 4, 1, 5]);
    expect(tighteningOrder(6, 'centre_outward')).toEqual([3, 4, 2, 5, 1, 6]);
    expect(tighteningOrder(4, 'crosswise')).toEqual([1, 3, 2, 4]);
  });

  it('names each fastener once, in any order', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 40 }), fc.constantFrom(...TIGHTENING_ORDERS), (count, order) => {
        const all = [...tighteningOrder(count, order)].sort((a, b) => a - b);
        expect(all).toEqual(Array.from({ length: count }, (_, i) => i + 1));
      }),
    );
    expect(() => tighteningOrder(0, 'any')).toThrow(RangeError);
  });
});

describe('fasteners', () => {
  it('are read as people list them', () => {
    expect(
      fastenersFromText(
        'coil bolt M6 x4 9 Nm; intake bolt M8 ×8 20 N·m centre outward | clip M6 x3 71 lbf·in captive',
        nm,
      ),
    ).toMatchObject({
      ok: true,
      value: [
        { what: 'coil bolt', holds: 'coil', size: 'M6', count: 4, torqueNm: 9, order: 'any', captive: false },
        { what: 'intake bolt', holds: 'intake', size: 'M8', count: 8, torqueNm: 20, order: 'centre_outward' },
        { what: 'clip', holds: 'other', size: 'M6', count: 3, captive: true },
      ],
    });
  });

  it.each([
    ['coil bolt M6 x4', 'cannot be read'],
    ['coil bolt M7.5 x4 9 Nm', 'cannot be read'],
    ['coil bolt M6 x4 nine Nm', 'cannot be read'],
    ['coil bolt M6 x4 80 Nm', 'lbf·in read as N·m?'],
    ['coil bolt M6 x4 80 lbf·ft', 'Was lbf·in read as lbf·ft'],
    ['coil bolt M6 x0 9 Nm', 'how many'],
  ])('%j is explained', (text, words) => {
    const read = fastenersFromText(text, nm);
    expect(read.ok ? '' : read.error).toContain(words);
  });

  it('come back the same from their own text', () => {
    const any = fc.record({
      what: fc.constantFrom('coil bolt', 'intake manifold bolt', 'cover screw'),
      size: fc.constantFrom(...FASTENER_SIZES),
      count: fc.integer({ min: 1, max: 20 }),
      order: fc.constantFrom(...TIGHTENING_ORDERS),
      captive: fc.boolean(),
      holds: fc.constantFrom(...FASTENER_PLACES),
    });
    fc.assert(
      fc.property(fc.array(any, { maxLength: 4 }), (some) => {
        const list = some.map((f) => ({ ...f, torqueNm: { M5: 5, M6: 9, M7: 12, M8: 21.5, M10: 40 }[f.size] }));
        expect(fastenersFromText(fastenersText(list), nm)).toEqual({ ok: true, value: list });
      }),
    );
  });

  it('of usual torque raise no doubt', () => {
    expect(doubtOfFastener('M6', 10)).toBeNull();
    expect(doubtOfFastener('M8', 2)).toContain('far from the usual 15 to 28 N·m');
  });
});

describe('sides', () => {
  it('say driver’s side by the wheel, not by left and right', () => {
    expect(sideWords('right', 'left')).toBe('driver’s side');
    expect(sideWords('right', 'right')).toBe('passenger’s side');
    expect(sideWords('left', 'right')).toBe('driver’s side');
    expect(sideWords('left', null)).toBeNull();
    expect(sideWords('rear', 'left')).toBeNull();
  });

  it('find the bank that a person names', () => {
    const flat = engine({
      arrangement: 'flat',
      mounting: 'longitudinal',
      ignition: 'coil_on_plug',
      plugsPerCylinder: 1,
      banks: [
        { place: 'left', cylinders: [1, 3] },
        { place: 'right', cylinders: [2, 4] },
      ],
      firingOrder: [1, 3, 2, 4],
    });
    expect(bankNamed(flat, "Driver's side", 'left')?.cylinders).toEqual([2, 4]);
    expect(bankNamed(flat, 'left', null)?.cylinders).toEqual([1, 3]);
    expect(bankNamed(flat, 'driver’s side', null)).toBeNull();
  });
});
