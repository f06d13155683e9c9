import { describe, expect, it } from 'vitest';
import { weekCost } from './week-cost';

const sound = { misfire: null, findings: 0 };
const of = (...pressures: (number | null)[]) => pressures.map((pressure) => ({ pressure }));

describe('what a vehicle costs each week that it waits', () => {
  it('is the sum over the components of which it is known, and unknown where it is of none', () => {
    expect(weekCost(of(2, 3.5, null), sound, 400).total).toBe(5.5);
    expect(weekCost(of(null), sound, 400).total).toBeNull();
  });

  it('grows with an open misfire, the more the less it may be driven, and with each finding', () => {
    const totals = (['free', 'to_the_shop', 'stop'] as const).map(
      (misfire) => weekCost(of(5), { misfire, findings: 0 }, 400).total ?? 0,
    );
    expect([5, ...totals]).toEqual([5, ...totals].sort((a, b) => a - b));
    const two = weekCost(of(null), { misfire: null, findings: 2 }, 400);
    expect(two).toMatchObject({ components: null, misfire: 0 });
    expect(two.total).toBe(2 * weekCost(of(0), { misfire: null, findings: 1 }, 400).findings);
  });
});
