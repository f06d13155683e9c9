import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, daysBetween } from '../calendar/plain-date';
import { chanceDueBy, horizon } from './horizon';

const TODAY = '2026-11-18';
const firm = (day: string) => ({ p10: day, p50: day, p90: day });

describe('chanceDueBy', () => {
  const band = { p10: '2026-11-20', p50: '2026-11-30', p90: '2026-12-20' };
  it('is 10, 50 and 90 % on the three days', () => {
    expect(chanceDueBy(band, band.p10)).toBeCloseTo(0.1, 12);
    expect(chanceDueBy(band, band.p50)).toBeCloseTo(0.5, 12);
    expect(chanceDueBy(band, band.p90)).toBeCloseTo(0.9, 12);
  });

  it('is all or nothing for a firm day', () => {
    expect(chanceDueBy(firm('2026-11-30'), '2026-11-29')).toBe(0);
    expect(chanceDueBy(firm('2026-11-30'), '2026-11-30')).toBe(1);
  });

  const day = fc.integer({ min: -400, max: 400 }).map((n) => addDays(TODAY, n));
  it('never falls as days go by, and stays in [0, 1]', () => {
    fc.assert(
      fc.property(day, fc.nat(90), fc.nat(90), day, fc.nat(60), (p50, before, after, from, more) => {
        const due = { p10: addDays(p50, -before), p50, p90: addDays(p50, after) };
        const [a, b] = [chanceDueBy(due, from), chanceDueBy(due, addDays(from, more))];
        expect(b).toBeGreaterThanOrEqual(a);
        expect(a).toBeGreaterThanOrEqual(0);
        expect(b).toBeLessThanOrEqual(1);
      }),
    );
  });
});

describe('horizon', () => {
  it('puts what is overdue into this week, and firm work exactly where it falls', () => {
    const weeks = horizon(
      [
        { due: firm('2026-08-01'), minutes: 60 },
        { due: firm('2026-11-29'), minutes: 90 },
        { due: firm('2026-11-30'), minutes: 120 },
      ],
      TODAY,
      4,
    );
    expect(weeks.map((week) => [week.from, week.visits, week.p10, week.mean, week.p90])).toEqual([
      ['2026-11-16', 1, 60, 60, 60],
      ['2026-11-23', 1, 90, 90, 90],
      ['2026-11-30', 1, 120, 120, 120],
      ['2026-12-07', 0, 0, 0, 0],
    ]);
  });

  it('loses no work: what falls due within the weeks is there once', () => {
    const work = fc.array(
      fc
        .record({
          at: fc.integer({ min: -100, max: 300 }),
          before: fc.nat(60),
          after: fc.nat(60),
          minutes: fc.nat(400),
        })
        .map(({ at, before, after, minutes }) => {
          const p50 = addDays(TODAY, at);
          return { due: { p10: addDays(p50, -before), p50, p90: addDays(p50, after) }, minutes };
        }),
      { maxLength: 30 },
    );
    fc.assert(
      fc.property(work, fc.integer({ min: 1, max: 26 }), (list, count) => {
        const weeks = horizon(list, TODAY, count);
        const end = addDays(weeks[0]?.from ?? TODAY, 7 * count - 1);
        expect(daysBetween(weeks[0]?.from ?? TODAY, TODAY)).toBeLessThan(7);
        const expected = list.reduce((sum, { due, minutes }) => sum + chanceDueBy(due, end) * minutes, 0);
        expect(weeks.reduce((sum, week) => sum + week.mean, 0)).toBeCloseTo(expected, 6);
        for (const { p10, mean, p90 } of weeks) expect(p10 <= mean + 1e-9 && mean <= p90 + 1e-9).toBe(true);
      }),
    );
  });
});
