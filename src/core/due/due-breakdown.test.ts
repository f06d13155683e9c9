import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { steadyRate } from '../odometer/use-rate.fixture';
import { type DueInput, due } from './due';
import { type BreakdownLine, dueBreakdown } from './due-breakdown';

const base: DueInput = {
  today: '2026-11-16',
  odometer: { on: '2026-11-06', km: 50_000 },
  rate: steadyRate(),
  installed: { on: '2024-11-16', km: 11_000 },
  limits: { distanceKm: 60_000, months: 48 },
};
const line = <K extends BreakdownLine['kind']>(
  lines: readonly BreakdownLine[],
  kind: K,
): Extract<BreakdownLine, { kind: K }> | undefined =>
  lines.find((l): l is Extract<BreakdownLine, { kind: K }> => l.kind === kind);

describe('dueBreakdown', () => {
  it('is the reckoning line by line', () => {
    expect(dueBreakdown(base)).toEqual([
      { kind: 'read', on: '2026-11-06', km: 50_000 },
      { kind: 'driven-since', days: 10, kmPerDay: 100, km: 1000 },
      { kind: 'now', km: 51_000 },
      { kind: 'fitted', on: '2024-11-16', km: 11_000 },
      { kind: 'covered', km: 40_000 },
      { kind: 'limit', km: 60_000, fullKm: 60_000, share: 1 },
      { kind: 'left', km: 20_000, days: 200, on: '2027-06-04' },
      { kind: 'time-limit', months: 48, share: 1, on: '2028-11-16' },
      { kind: 'due', on: '2027-06-04', by: 'distance' },
    ]);
  });

  it('names the time limit where it comes first, and the share of an early change', () => {
    const early = dueBreakdown({ ...base, limits: { distanceKm: 60_000, months: 26, share: 0.75 } });
    expect(line(early, 'limit')).toMatchObject({ km: 45_000, fullKm: 60_000, share: 0.75 });
    expect(line(early, 'due')).toMatchObject({ by: 'time' });
  });

  it('dates nothing that cannot be dated', () => {
    const still = dueBreakdown({ ...base, rate: null, limits: { distanceKm: 60_000 } });
    expect(line(still, 'left')).toMatchObject({ days: null, on: null });
    expect(line(still, 'driven-since')).toBeUndefined();
    expect(line(still, 'due')).toBeUndefined();
  });

  it('always adds up, and ends in the date that is shown', () => {
    const any = fc.record({
      odometerKm: fc.integer({ min: 0, max: 400_000 }),
      rate: fc.option(fc.integer({ min: 0, max: 400 })),
      installedKm: fc.integer({ min: 0, max: 400_000 }),
      distanceKm: fc.option(fc.integer({ min: 5000, max: 120_000 })),
      months: fc.option(fc.integer({ min: 6, max: 96 })),
      share: fc.constantFrom(1, 0.75),
    });
    fc.assert(
      fc.property(any, ({ odometerKm, rate, installedKm, distanceKm, months, share }) => {
        if (distanceKm === null && months === null) return;
        const input: DueInput = {
          ...base,
          odometer: { on: '2026-10-20', km: odometerKm },
          rate:
            rate === null
              ? null
              : {
                  kmPerDay: rate,
                  weeklySpread: 0.4,
                  drift: 0.018,
                  observedDays: 180,
                  groupSpread: 0,
                  used: 9,
                  borrowed: false,
                },
          installed: { on: '2024-11-16', km: installedKm },
          limits: { distanceKm, months, share },
        };
        const lines = dueBreakdown(input);
        const [read, since, now] = [line(lines, 'read'), line(lines, 'driven-since'), line(lines, 'now')];
        expect((read?.km ?? 0) + (since?.km ?? 0)).toBeCloseTo(now?.km ?? -1, 6);
        expect((now?.km ?? 0) - (line(lines, 'fitted')?.km ?? 0)).toBeCloseTo(line(lines, 'covered')?.km ?? -1, 6);
        const limit = line(lines, 'limit');
        if (limit) expect(limit.km - (line(lines, 'covered')?.km ?? 0)).toBeCloseTo(line(lines, 'left')?.km ?? -1, 6);
        expect(line(lines, 'due')?.on ?? null).toBe(due(input).due?.p50 ?? null);
      }),
    );
  });
});
