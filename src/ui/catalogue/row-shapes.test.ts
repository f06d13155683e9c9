import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  FASTENER_PLACES,
  FASTENER_SIZES,
  type Fastener,
  fastenersFromText,
  fastenersText,
  TIGHTENING_ORDERS,
} from '@/core/engine/access';
import { restingFromText } from '@/core/engine/resting';
import { WEAK_POINT_KINDS, weakPointFromText, weakPointText } from '@/core/engine/weak-points';
import { readQuantity } from '@/core/units/read-quantity';
import { ACCESS, FASTENERS, RESTING, rowsOf, textOf, WEAK_POINTS, words } from './row-shapes';

const torque = (text: string) => {
  const reading = readQuantity({ kind: 'torque', text, window: { min: 0.5, max: 200 } });
  return reading.verdict === 'ok' ? reading.valueSi : null;
};
const USUAL = { M5: 4, M6: 9, M7: 12, M8: 20, M10: 40 };
const fastener: fc.Arbitrary<Fastener> = fc
  .record({
    what: fc.constantFrom('coil bolt', 'long screw', 'intake bolt', 'clip bolt of the cover'),
    holds: fc.constantFrom(...FASTENER_PLACES),
    size: fc.constantFrom(...FASTENER_SIZES),
    count: fc.integer({ min: 1, max: 20 }),
    order: fc.constantFrom(...TIGHTENING_ORDERS),
    captive: fc.boolean(),
  })
  .map((one) => ({ ...one, torqueNm: USUAL[one.size] }));

describe('a list as rows', () => {
  it('keeps fasteners as they were, whatever they are', () => {
    fc.assert(
      fc.property(fc.array(fastener, { maxLength: 5 }), (list) => {
        const rows = rowsOf(FASTENERS, fastenersText(list));
        expect(rows).toHaveLength(list.length);
        expect(fastenersFromText(textOf(FASTENERS, rows), torque)).toEqual({ ok: true, value: list });
      }),
    );
  });

  it('keeps weak points, resting cylinders, access and words as they were', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...WEAK_POINT_KINDS), { maxLength: 4 }), (kinds) => {
        const list = kinds.map((kind, i) => ({ kind, says: `part ${i}` }));
        const text = textOf(WEAK_POINTS, rowsOf(WEAK_POINTS, list.map(weakPointText).join(' | ')));
        expect(text.split(' | ').filter(Boolean).map(weakPointFromText)).toEqual(list);
      }),
    );
    for (const text of ['1 4 6 7', 'with deactivation: 1 3 5 | without: 2 4'])
      expect(textOf(RESTING, rowsOf(RESTING, text))).toBe(text);
    const family = { variants: ['with deactivation'], cylinders: [1, 2, 3, 4] };
    expect(restingFromText(textOf(RESTING, [{ variant: 'with deactivation', cylinders: '1 3' }]), family).ok).toBe(
      true,
    );
    expect(textOf(ACCESS, rowsOf(ACCESS, 'under_intake 140, open 70'))).toBe('under_intake 140, open 70');
    const list = words('variant', 'Variant');
    expect(textOf(list, rowsOf(list, ' a |b\nc'))).toBe('a | b | c');
  });

  it('leaves empty rows out, and shows what it cannot read for the one who typed it', () => {
    for (const shape of [FASTENERS, WEAK_POINTS, ACCESS, RESTING, words('variant', 'Variant')])
      expect([shape.noun, textOf(shape, [{}, {}])]).toEqual([shape.noun, '']);
    expect(rowsOf(FASTENERS, 'four bolts, tight')).toEqual([{ what: 'four bolts, tight' }]);
    expect(fastenersFromText(textOf(FASTENERS, rowsOf(FASTENERS, 'four bolts, tight')), torque)).toMatchObject({
      ok: false,
      error: expect.stringContaining('four bolts, tight'),
    });
  });
});
