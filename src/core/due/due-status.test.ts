import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '../calendar/plain-date';
import { groupAround } from '../odometer/use-rate';
import { steadyRate } from '../odometer/use-rate.fixture';
import { ASSUMED_LIFE } from '../reliability/weibull';
import { computeDueStatus, type Recorded } from './due-status';
import { ASSUMED_FORECAST } from './forecast';

const TODAY = '2026-11-16';
const MONEY = { failureCost: 1000, wearCostPerPercent: 0.5 };
const recorded: Recorded = {
  matched: true,
  odometer: { on: '2026-11-10', km: 70_000 },
  ownRate: steadyRate(),
  limits: { distanceKm: 80_000, months: 60 },
  clocks: [
    { cylinder: 1, position: 'A', installed: { on: '2024-01-01', km: 0 }, certainty: 'exact' },
    { cylinder: 3, position: 'A', installed: { on: '2025-01-01', km: 20_000 }, certainty: 'exact' },
  ],
  meter: null,
  deferral: null,
  reminderOn: null,
  forecast: ASSUMED_FORECAST,
};
const status = (over: Partial<Recorded> = {}, today = TODAY) =>
  computeDueStatus({ ...recorded, ...over }, null, MONEY, ASSUMED_LIFE, today);

describe('computeDueStatus', () => {
  it('lets the worst site speak, now and in the weeks ahead', () => {
    const found = status();
    expect(found.worst?.site.cylinder).toBe(1);
    expect(found.worst?.due.lifeUsed).toBeCloseTo(70_600 / 80_000, 12);
    expect(found.lifeIn7).toBeCloseTo(71_300 / 80_000, 12);
    expect(found.lifeIn28).toBeCloseTo(73_400 / 80_000, 12);
    expect(found).toMatchObject({ state: 'later', dates: { p50: '2027-02-18' } });
  });

  it('says what is lacking instead of guessing', () => {
    expect(status({ matched: false })).toMatchObject({ state: 'no-match', pressure: null, dates: null });
    expect(status({ odometer: null })).toMatchObject({ state: 'no-odometer', pressure: null });
    expect(status({ ownRate: null, limits: { distanceKm: 80_000 } })).toMatchObject({
      state: 'no-date',
      dates: null,
    });
    expect(status({ clocks: [] })).toMatchObject({ state: 'no-date' });
  });

  it('borrows from the group where it has no rate of its own', () => {
    const lent = computeDueStatus({ ...recorded, ownRate: null }, groupAround(50), MONEY, ASSUMED_LIFE, TODAY);
    expect(lent.rate).toMatchObject({ kmPerDay: 50, borrowed: true });
    expect(lent.worst?.due.odometerNowKm).toBe(70_300);
  });

  it('asks for less under an early change, but fears no more', () => {
    const full = status();
    const early = status({ limits: { ...recorded.limits, share: 0.75 } });
    expect(early.worst?.due.lifeUsed).toBeCloseTo((full.worst?.due.lifeUsed ?? 0) / 0.75, 9);
    expect(early.state).toBe('past');
    expect(early.pressure).toBeCloseTo(full.pressure ?? 0, 9);
  });

  it('never fears assumed life beyond its limit', () => {
    const clocks = [{ ...(recorded.clocks[0] as Recorded['clocks'][number]), certainty: 'assumed' as const }];
    const at = (km: number) => status({ clocks, odometer: { on: '2026-11-10', km } }).pressure;
    expect(at(400_000)).toBeCloseTo(at(90_000) ?? 0, 9);
    expect(at(400_000)).toBeGreaterThan(at(40_000) ?? 0);
  });

  const day = fc.integer({ min: 0, max: 700 }).map((n) => addDays(TODAY, n));
  const rate = fc.double({ min: 1, max: 400, noNaN: true }).map((kmPerDay) => steadyRate({ kmPerDay }));

  it('never stands better on a later day, and its date does not wander', () => {
    fc.assert(
      fc.property(rate, day, day, (ownRate, a, b) => {
        const [soon, late] = a < b ? [a, b] : [b, a];
        const [before, after] = [status({ ownRate }, soon), status({ ownRate }, late)];
        expect(after.worst?.due.lifeUsed ?? 0).toBeGreaterThanOrEqual(before.worst?.due.lifeUsed ?? 0);
        expect(after.pressure ?? 0).toBeGreaterThanOrEqual((before.pressure ?? 0) - 1e-9);
        // Whole days are counted from another day: the last one may fall either side of a rounding.
        expect(Math.abs(daysBetween(before.dates?.p50 ?? TODAY, after.dates?.p50 ?? TODAY))).toBeLessThanOrEqual(1);
      }),
    );
  });

  it('is never due later for being driven more', () => {
    fc.assert(
      fc.property(rate, fc.double({ min: 1, max: 3, noNaN: true }), (ownRate, factor) => {
        const more = { ...ownRate, kmPerDay: ownRate.kmPerDay * factor };
        const [less, busy] = [status({ ownRate }), status({ ownRate: more })];
        expect((busy.dates?.p50 ?? '') <= (less.dates?.p50 ?? '')).toBe(true);
        expect(busy.pressure ?? 0).toBeGreaterThanOrEqual((less.pressure ?? 0) - 1e-9);
      }),
    );
  });

  it('is moved by a deferral in its date alone, and never forwards', () => {
    fc.assert(
      fc.property(rate, day, (ownRate, until) => {
        const [plain, moved] = [status({ ownRate }), status({ ownRate, deferral: { until, fault: null } })];
        const { state: _, dates: __, ...rest } = plain;
        expect(moved).toMatchObject(rest);
        expect((moved.dates?.p50 ?? '') >= (plain.dates?.p50 ?? '')).toBe(true);
        if (moved.state === 'deferred') expect(moved.dates?.p50).toBe(until);
        else expect(moved).toEqual(plain);
      }),
    );
  });

  it('is blocked by another fault until someone says that it is mended, whatever day was expected', () => {
    const worn = { odometer: { on: '2026-11-10', km: 82_000 } };
    expect(status({ ...worn, deferral: { until: null, fault: 'exhaust leak' } })).toMatchObject({
      ...status(worn),
      state: 'blocked',
    });
    const dated = status({ ...worn, deferral: { until: '2026-12-01', fault: 'exhaust leak' } });
    expect(dated).toMatchObject({ state: 'blocked', dates: { p10: '2026-12-01', p50: '2026-12-01' } });
    expect(status({ ...worn, deferral: { until: '2026-11-01', fault: 'exhaust leak' } }).state).toBe('blocked');
    expect(status({ deferral: { until: null, fault: 'exhaust leak' } }).state).toBe(status().state);
  });

  it('is asked for from the day on which its own reminder came on, unless a limit was there before it', () => {
    fc.assert(
      fc.property(rate, day, (ownRate, reminderOn) => {
        const [plain, lamp] = [status({ ownRate }), status({ ownRate, reminderOn })];
        const { state: _, dates: __, ...rest } = plain;
        expect(lamp).toMatchObject(rest);
        if (lamp.dates?.p50 === plain.dates?.p50) expect(lamp).toEqual(plain);
        else expect([lamp.state, lamp.dates?.p50]).toEqual(['soon', reminderOn]);
        expect((lamp.dates?.p50 ?? '9') <= (plain.dates?.p50 ?? '9')).toBe(true);
      }),
    );
    const worn = { odometer: { on: '2026-11-10', km: 182_000 } };
    expect(status({ ...worn, reminderOn: '2026-11-01' })).toEqual(status(worn));
    const deferral = { until: '2026-12-24', fault: null };
    expect(status({ reminderOn: '2026-11-01', deferral })).toMatchObject({
      state: 'deferred',
      dates: { p50: '2026-12-24' },
    });
  });
});
