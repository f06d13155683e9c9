import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, fromDayNumber } from '../calendar/plain-date';
import { steadyRate } from '../odometer/use-rate.fixture';
import { type DueInput, due, dueState, worstSite } from './due';
import { dueBreakdown } from './due-breakdown';

const rate = (kmPerDay: number, weeklySpread = 0.4) => steadyRate({ kmPerDay, weeklySpread, used: 9 });
const input = (over: Partial<DueInput> = {}): DueInput => ({
  today: '2026-11-16',
  odometer: { on: '2026-11-06', km: 50_000 },
  rate: rate(100),
  installed: { on: '2025-11-16', km: 11_000 },
  limits: { distanceKm: 60_000, months: 48 },
  ...over,
});

describe('due', () => {
  it('projects the odometer to today and dates the rest of the distance', () => {
    const found = due(input());
    expect(found.odometerNowKm).toBe(51_000);
    expect(found.lifeUsed).toBeCloseTo(40 / 60, 9);
    expect(found).toMatchObject({
      binds: 'distance',
      datedBy: 'distance',
      due: { p50: addDays('2026-11-16', 200) },
    });
  });

  it('names the time limit where that binds, and caps the dates with it', () => {
    const found = due(input({ limits: { distanceKm: 600_000, months: 18 } }));
    expect(found.binds).toBe('time');
    expect(found.due).toEqual({ p10: '2027-05-16', p50: '2027-05-16', p90: '2027-05-16' });
  });

  it('counts early change as a share of each limit', () => {
    expect(due(input({ limits: { distanceKm: 60_000, share: 0.75 } })).lifeUsed).toBeCloseTo(40 / 45, 9);
  });

  it('gives no date rather than a guess for a vehicle that stands still without a time limit', () => {
    expect(due(input({ rate: rate(0), limits: { distanceKm: 60_000 } })).due).toBeNull();
    expect(due(input({ rate: null })).due?.p50).toBe('2029-11-16');
  });

  it('refuses to work without a limit', () => {
    expect(() => due(input({ limits: {} }))).toThrow(RangeError);
    expect(() => due(input({ limits: { distanceKm: 0 } }))).toThrow(RangeError);
  });

  const anyInput = fc.record({
    today: fc.integer({ min: 18_000, max: 22_000 }).map(fromDayNumber),
    age: fc.integer({ min: 0, max: 3000 }),
    done: fc.integer({ min: 0, max: 200_000 }),
    perDay: fc.double({ min: 0, max: 400, noNaN: true }),
    weekly: fc.double({ min: 0, max: 1, noNaN: true }),
    km: fc.integer({ min: 1000, max: 200_000 }),
    months: fc.option(fc.integer({ min: 1, max: 120 })),
  });
  type Any = typeof anyInput extends fc.Arbitrary<infer T> ? T : never;
  const build = (a: Any, extraKm = 0) =>
    input({
      today: a.today,
      odometer: { on: a.today, km: 10_000 + a.done + extraKm },
      installed: { on: addDays(a.today, -a.age), km: 10_000 },
      rate: rate(a.perDay, a.weekly),
      limits: { distanceKm: a.km, months: a.months },
    });

  it('keeps the median within its band, and the band after today only while life is left', () => {
    fc.assert(
      fc.property(anyInput, (a) => {
        const found = due(build(a));
        if (!found.due) return;
        expect(found.due.p10 <= found.due.p50 && found.due.p50 <= found.due.p90).toBe(true);
        if (found.lifeUsed < 1) expect(found.due.p50 >= a.today).toBe(true);
        else expect(found.due.p50 <= a.today).toBe(true);
      }),
    );
  });

  it('never postpones with more distance', () => {
    fc.assert(
      fc.property(anyInput, fc.integer({ min: 0, max: 90_000 }), (a, extra) => {
        const [less, more] = [due(build(a)), due(build(a, extra))];
        expect(more.lifeUsed).toBeGreaterThanOrEqual(less.lifeUsed);
        if (less.due && more.due) expect(more.due.p50 <= less.due.p50).toBe(true);
      }),
    );
  });
});

describe('worstSite and dueState', () => {
  it('lets the worst site speak for the group', () => {
    const site = (cylinder: number, km: number) => ({
      cylinder,
      position: 'A',
      installed: { on: '2026-01-01', km },
      certainty: 'exact' as const,
    });
    expect(worstSite([site(1, 40_000), site(2, 11_000), site(3, 45_000)], input())?.site.cylinder).toBe(2);
    expect(worstSite([], input())).toBeNull();
  });

  it('does not call an assumed life overdue: it proposes to inspect', () => {
    const over = due(input({ installed: { on: '2015-01-01', km: 0 }, limits: { distanceKm: 30_000 } }));
    expect(dueState(over, 'exact', '2026-11-16')).toBe('past');
    expect(dueState(over, 'assumed', '2026-11-16')).toBe('inspect');
    expect(dueState(due(input()), 'exact', '2026-11-16')).toBe('later');
  });
});

describe('engine hours', () => {
  const meter = { on: '2026-11-06', hours: 3000, kmPerHour: 40, rate: rate(200) };
  const idling = (over: Partial<DueInput> = {}) =>
    input({ installed: { on: '2025-11-16', km: 11_000, hours: 1800 }, meter, limits: { distanceKm: 60_000 }, ...over });

  it('count as distance where they are more than what was driven', () => {
    const found = due(idling());
    // 1,200 h × 40 km and ten days of 200 km: 50,000 of 60,000 km, and 10,000 km at 200 a day are left.
    expect(found).toMatchObject({ binds: 'hours', lifeUsed: 50_000 / 60_000 });
    expect(found.due?.p50).toBe(addDays('2026-11-16', 50));
    expect(dueBreakdown(idling())).toEqual(
      expect.arrayContaining([
        { kind: 'ran', hours: 1250, kmPerHour: 40, km: 50_000 },
        { kind: 'left', km: 10_000, days: 50, on: addDays('2026-11-16', 50) },
        { kind: 'due', on: addDays('2026-11-16', 50), by: 'hours' },
      ]),
    );
  });

  it('never make a plug younger or due later, and say nothing where they were not read at the fitting', () => {
    fc.assert(
      fc.property(
        fc.record({
          hours: fc.integer({ min: 0, max: 9000 }),
          kmPerHour: fc.integer({ min: 0, max: 80 }),
          perDay: fc.double({ min: 0, max: 500, noNaN: true }),
        }),
        ({ hours, kmPerHour, perDay }) => {
          const [without, metered] = [
            due(idling({ meter: null })),
            due(idling({ meter: { on: '2026-11-06', hours, kmPerHour, rate: rate(perDay) } })),
          ];
          expect(metered.lifeUsed).toBeGreaterThanOrEqual(without.lifeUsed);
          expect((metered.due?.p50 ?? '') <= (without.due?.p50 ?? '')).toBe(true);
          expect(metered.lifeUsed === without.lifeUsed).toBe(metered.binds !== 'hours');
        },
      ),
    );
    const unread = { on: '2025-11-16', km: 11_000, hours: null };
    expect(due(idling({ installed: unread }))).toEqual(due(idling({ installed: unread, meter: null })));
  });
});

describe('a part that was looked at and stayed in', () => {
  const good = { on: '2026-11-06', km: 50_000, forKm: 30_000 };

  it('is due where the look said, whatever was assumed before', () => {
    const found = due(input({ installed: { on: '2019-01-01', km: 0, good } }));
    // 30,000 km from the day of the look, at 100 km a day, ten days ago.
    expect(found.due?.p50).toBe(addDays('2026-11-16', 290));
    expect(found.lifeUsed).toBeCloseTo(31 / 60, 9);
    expect(due(input({ installed: { on: '2019-01-01', km: 0, good }, limits: {} as never })).due?.p50).toBe(
      addDays('2026-11-16', 290),
    );
  });

  it('has its months shortened as its distance, and never stands better the less it is good for', () => {
    fc.assert(
      fc.property(fc.integer({ min: 500, max: 60_000 }), fc.integer({ min: 500, max: 60_000 }), (a, b) => {
        const [less, more] = [Math.min(a, b), Math.max(a, b)].map((forKm) =>
          due(input({ installed: { on: '2019-01-01', km: 0, good: { ...good, forKm } } })),
        );
        expect(less?.lifeUsed).toBeGreaterThanOrEqual(more?.lifeUsed ?? 0);
        expect((less?.due?.p50 ?? '') <= (more?.due?.p50 ?? '')).toBe(true);
      }),
    );
  });
});
