import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { agreement, disputed, type RangedSheet, rivalsOf } from './dispute';
import { inOrderOfForce, SOURCE_RANKS } from './match';

const NO_OHMS = {
  primaryMinOhm: null,
  primaryMaxOhm: null,
  secondaryMinOhm: null,
  secondaryMaxOhm: null,
  minOhm: null,
  maxOhm: null,
};
const sheet = (id: string, over: Partial<RangedSheet> = {}) => ({
  ...NO_OHMS,
  id,
  partId: 'KM-3110',
  engineFamilyId: 'PW-31W',
  variant: null,
  modelYearFrom: null,
  modelYearTo: 2009,
  builtFrom: null,
  builtTo: null,
  serialFrom: null,
  serialTo: null,
  fuel: null,
  induction: null,
  market: null,
  sourceKind: 'part_maker' as RangedSheet['sourceKind'],
  sourceDated: '2020-01-01',
  revision: 1,
  expired: false,
  sourceDocument: `table of ${id}`,
  gapMinMm: 0.8,
  gapMaxMm: 0.9,
  torqueMinNm: 15,
  torqueMaxNm: 20,
  ...over,
});

describe('two makers beside each other', () => {
  const a = sheet('a');
  it('agree where their ranges overlap', () => {
    const b = sheet('b', { gapMinMm: 0.85, gapMaxMm: 1.0 });
    expect(agreement([a, b])).toEqual({ gapMm: { min: 0.85, max: 0.9 }, torqueNm: { min: 15, max: 20 } });
    expect(disputed(a, [a, b])).toBe(false);
  });

  it('are a dispute where gap or torque leaves nothing in common', () => {
    expect(disputed(a, [a, sheet('b', { gapMinMm: 1.0, gapMaxMm: 1.1 })])).toBe(true);
    expect(disputed(a, [a, sheet('b', { torqueMinNm: 25, torqueMaxNm: 30 })])).toBe(true);
  });

  it.each([
    ['of a lower rank', { sourceKind: 'box' as const }],
    ['that has expired', { expired: true }],
    ['for other vehicles', { modelYearTo: 2012 }],
    ['in an older revision of the same document', { sourceDocument: 'table of a' }],
  ])('are no rivals %s', (_, over) => {
    expect(rivalsOf(a, [a, sheet('b', { gapMinMm: 1.5, gapMaxMm: 1.6, ...over })])).toEqual([]);
  });

  const any = fc.record({
    sourceKind: fc.constantFrom(...SOURCE_RANKS),
    sourceDated: fc.constantFrom(null, '2019-01-01', '2024-01-01'),
    revision: fc.integer({ min: 1, max: 4 }),
    expired: fc.boolean(),
    gapMinMm: fc.integer({ min: 5, max: 9 }).map((n) => n / 10),
  });

  it('dispute each other or neither', () => {
    fc.assert(
      fc.property(any, any, (x, y) => {
        const [p, q] = [
          sheet('p', { ...x, gapMaxMm: x.gapMinMm + 0.1 }),
          sheet('q', { ...y, gapMaxMm: y.gapMinMm + 0.1 }),
        ];
        if (p.expired || q.expired) return;
        expect(disputed(p, [p, q])).toBe(disputed(q, [p, q]));
      }),
    );
  });

  it('stand in order of rank, then valid before expired, then date and revision', () => {
    fc.assert(
      fc.property(fc.array(any, { maxLength: 8 }), (list) => {
        const sorted = inOrderOfForce(list.map((over, i) => sheet(String(i), over)));
        const place = (s: RangedSheet): readonly (number | string)[] => [
          SOURCE_RANKS.indexOf(s.sourceKind),
          Number(s.expired),
        ];
        for (const [i, s] of sorted.entries()) {
          const next = sorted[i + 1];
          if (!next) continue;
          expect(place(s).join() <= place(next).join()).toBe(true);
          if (place(s).join() === place(next).join())
            expect((s.sourceDated ?? '') >= (next.sourceDated ?? '')).toBe(true);
        }
      }),
    );
  });
});
