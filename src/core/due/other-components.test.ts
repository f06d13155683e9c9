import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/plain-date';
import { steadyRate } from '../odometer/use-rate.fixture';
import { companions, type OtherComponent } from './other-components';

const vehicle = {
  today: '2026-11-16',
  odometer: { on: '2026-11-16', km: 100_000 },
  rate: steadyRate({ used: 9 }),
} as const;
const plugs = { p10: '2026-12-10', p50: '2026-12-16', p90: '2026-12-20' };
const leads = (over: Partial<OtherComponent>): OtherComponent => ({
  component: 'lead_set',
  partNumber: 'KM-L31',
  quantity: 1,
  limits: { distanceKm: 80_000 },
  installed: { on: '2024-01-01', km: 24_000 },
  certainty: 'exact',
  ...over,
});
const one = (over: Partial<OtherComponent>) => companions(plugs, [leads(over)], vehicle, 30)[0];

describe('companions', () => {
  it('offers what is due in the same window, by its life on the day of the plugs', () => {
    // 30 days on at 100 km a day: 79,000 of 80,000 km.
    expect(one({})).toMatchObject({ advice: 'now', lifeUsed: 79_000 / 80_000, due: { p50: '2026-12-26' } });
    expect(one({ installed: { on: '2026-01-01', km: 80_000 } })).toMatchObject({ advice: 'later' });
  });

  it('never buys on assumed history: it is looked at while it is open', () => {
    expect(one({ certainty: 'assumed', installed: { on: '2015-01-01', km: 0 } })?.advice).toBe('look');
  });

  it('takes plugs past their limit as due today', () => {
    const [late] = companions({ p10: '2025-01-01', p50: '2025-01-01', p90: '2025-01-01' }, [leads({})], vehicle, 30);
    expect(late?.lifeUsed).toBe(76_000 / 80_000);
  });

  it('spares the opening of each', () => {
    expect(one({})?.savedMinutes).toBe(30);
  });

  it('puts the most used first, and a later day never makes anything less due', () => {
    const some = fc.array(
      fc.record({ km: fc.integer({ min: 0, max: 100_000 }), limit: fc.integer({ min: 1000, max: 200_000 }) }),
      { maxLength: 6 },
    );
    fc.assert(
      fc.property(some, fc.nat(400), fc.nat(400), (list, a, b) => {
        const others = list.map(({ km, limit }, i) =>
          leads({ partNumber: String(i), installed: { on: '2020-01-01', km }, limits: { distanceKm: limit } }),
        );
        const at = (days: number) => {
          const day = addDays(vehicle.today, days);
          return companions({ p10: day, p50: day, p90: day }, others, vehicle, 30);
        };
        const [soon, late] = [at(Math.min(a, b)), at(Math.max(a, b))];
        expect(soon.map((c) => c.lifeUsed)).toEqual(soon.map((c) => c.lifeUsed).sort((x, y) => y - x));
        for (const before of soon) {
          const after = late.find((c) => c.partNumber === before.partNumber);
          expect(after?.lifeUsed ?? 0).toBeGreaterThanOrEqual(before.lifeUsed);
          if (before.advice === 'now') expect(after?.advice).toBe('now');
        }
      }),
    );
  });
});
