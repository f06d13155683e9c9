import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stockAge } from './age';
import { compareTrial, type Service } from './trial';

const service = (over: Partial<Service>): Service => ({
  sites: 40,
  vehicles: 10,
  siteKm: 1_000_000,
  early: 0,
  growth: [],
  ...over,
});

describe('compareTrial', () => {
  it('says too little before there is distance, and no difference after', () => {
    expect(compareTrial(service({ siteKm: 20_000 }), service({})).verdict).toBe('too-little');
    expect(compareTrial(service({}), service({}))).toMatchObject({ verdict: 'no-difference', chance: null });
  });

  it('calls five early against none over the same distance no chance twice over', () => {
    // 2 · 0.5^5 = 0.0625: not yet; six against none is 0.03125.
    expect(compareTrial(service({ early: 5 }), service({}))).toMatchObject({
      verdict: 'no-difference',
      chance: 0.0625,
    });
    const six = compareTrial(service({ early: 6 }), service({}));
    expect(six.verdict).toBe('worse');
    expect(six.chance).toBeCloseTo(0.03125, 12);
    expect(compareTrial(service({}), service({ early: 6 })).verdict).toBe('better');
  });

  it('weighs by distance: the same counts on a tenth of the way are worse', () => {
    const short = compareTrial(service({ siteKm: 100_000, early: 3 }), service({ early: 3 }));
    expect(short.verdict).toBe('worse');
  });

  it('gives the middle wear of each side', () => {
    expect(compareTrial(service({ growth: [3, 9, 1] }), service({ growth: [2, 4] }))).toMatchObject({
      trialGrowth: 3,
      controlGrowth: 3,
    });
  });

  it('is the same question asked from the other side', () => {
    const side = fc.record({ siteKm: fc.integer({ min: 1, max: 9_000_000 }), early: fc.nat(30) });
    const turned = { worse: 'better', better: 'worse' } as const;
    fc.assert(
      fc.property(side, side, (a, b) => {
        const [one, other] = [compareTrial(service(a), service(b)), compareTrial(service(b), service(a))];
        expect(one.chance ?? 0).toBeCloseTo(other.chance ?? 0, 9);
        if (one.verdict === 'worse' || one.verdict === 'better') expect(other.verdict).toBe(turned[one.verdict]);
      }),
    );
  });
});

describe('stockAge', () => {
  const layer = (receivedOn: string, quantity: number) => ({ receivedOn, quantity, lot: `L${receivedOn}` });

  it('leaves on the shelf what came last, the oldest of it first', () => {
    const age = stockAge(10, [layer('2024-01-05', 12), layer('2026-03-01', 4), layer('2025-06-01', 4)]);
    expect(age.layers.map((l) => [l.receivedOn, l.quantity])).toEqual([
      ['2024-01-05', 2],
      ['2025-06-01', 4],
      ['2026-03-01', 4],
    ]);
    expect(age.undatedQuantity).toBe(0);
  });

  it('calls undated what no delivery explains', () => {
    expect(stockAge(9, [layer('2026-03-01', 4)])).toMatchObject({ undatedQuantity: 5, layers: [{ quantity: 4 }] });
    expect(stockAge(0, [layer('2026-03-01', 4)])).toEqual({ undatedQuantity: 0, layers: [] });
  });

  it('always accounts for every piece, and takes no more of a delivery than came', () => {
    const some = fc.array(fc.record({ day: fc.integer({ min: 10, max: 28 }), n: fc.integer({ min: 1, max: 30 }) }));
    fc.assert(
      fc.property(fc.nat(200), some, (onHand, list) => {
        const deliveries = list.map(({ day, n }) => layer(`2026-05-${day}`, n));
        const age = stockAge(onHand, deliveries);
        const dated = age.layers.reduce((sum, l) => sum + l.quantity, 0);
        expect(dated + age.undatedQuantity).toBe(onHand);
        expect(dated).toBe(
          Math.min(
            onHand,
            deliveries.reduce((sum, d) => sum + d.quantity, 0),
          ),
        );
      }),
    );
  });
});
