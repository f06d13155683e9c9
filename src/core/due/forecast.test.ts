import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { spreadOfUse } from '../odometer/spread';
import { steadyRate } from '../odometer/use-rate.fixture';
import { normal, seeded } from '../stats/seeded';
import { backTest, pastForecasts } from './back-test';
import { ASSUMED_FORECAST, band, logSpread } from './forecast';

const rate = (over = {}) => steadyRate({ kmPerDay: 50, used: 9, ...over });
const positive = (max: number) => fc.double({ min: 0.5, max, noNaN: true });

describe('the band of a date', () => {
  it('is wider in days the farther it looks, the less evenly a vehicle is used and the shorter it was watched', () => {
    const wide = (days: number, over = {}) => {
      const [early, late] = band(rate(over), days, ASSUMED_FORECAST);
      return late - early;
    };
    fc.assert(
      fc.property(positive(300), positive(300), (days, more) => {
        expect(wide(days + more)).toBeGreaterThan(wide(days));
        expect(wide(days, { weeklySpread: 0.6 })).toBeGreaterThan(wide(days));
        expect(wide(days, { observedDays: 30 })).toBeGreaterThan(wide(days));
        expect(wide(days, { observedDays: 0, groupSpread: 0.5 })).toBeGreaterThan(wide(days));
      }),
    );
  });

  it('holds the day itself, before and after the last reading, and nothing is uncertain of no distance', () => {
    fc.assert(
      fc.property(fc.double({ min: -400, max: 400, noNaN: true }), (days) => {
        const [early, late] = band(rate(), days, ASSUMED_FORECAST);
        expect(early <= days && days <= late).toBe(true);
        expect(early * days).toBeGreaterThanOrEqual(0);
      }),
    );
    expect(band(rate(), 0, ASSUMED_FORECAST)).toEqual([0, 0]);
  });

  it('widens with the scale and the drift that the past taught', () => {
    const base = logSpread(rate(), 200, ASSUMED_FORECAST);
    expect(logSpread(rate(), 200, { ...ASSUMED_FORECAST, scale: 1.5 })).toBeCloseTo(1.5 * base, 9);
    expect(logSpread(rate(), 200, { ...ASSUMED_FORECAST, drift: 0.05 })).toBeGreaterThan(base);
  });
});

describe('the spread of use', () => {
  const uneven = (spread: number, weeks: number) => {
    const random = seeded(3);
    let km = 0;
    return Array.from({ length: weeks }, (_, i) => {
      if (i > 0) km += 350 * Math.exp(spread * normal(random));
      return { day: 7 * i, km };
    });
  };

  it('is about what is assumed without readings, and comes to a vehicle’s own with many', () => {
    expect(spreadOfUse([], 50).weekly).toBeCloseTo(0.4, 1);
    expect(spreadOfUse(uneven(0.1, 200), 50).weekly).toBeLessThan(0.16);
    expect(spreadOfUse(uneven(0.7, 200), 50).weekly).toBeGreaterThan(0.6);
  });

  it('tells even weeks from a duty that drifts', () => {
    const random = seeded(4);
    let [km, level] = [0, 0];
    const drifting = Array.from({ length: 104 }, (_, i) => {
      level += 0.06 * normal(random);
      if (i > 0) km += 350 * Math.exp(level + 0.2 * normal(random));
      return { day: 7 * i, km };
    });
    expect(spreadOfUse(drifting, 50).drift).toBeGreaterThan(2 * spreadOfUse(uneven(0.2, 104), 50).drift);
  });
});

describe('the back-test', () => {
  const steady = (kmPerDay: number, days: number) =>
    Array.from({ length: Math.floor(days / 10) }, (_, i) => ({ day: i * 10, km: i * 10 * kmPerDay }));

  it('forecasts from every month of the past with what was known then', () => {
    const past = pastForecasts(steady(40, 720));
    expect(past.length).toBeGreaterThan(30);
    for (const { from, rate: then, days, error } of past) {
      expect(then.kmPerDay).toBeCloseTo(40, 6);
      expect(days).toBeGreaterThan(40);
      expect(error).toBeCloseTo(0, 6);
      expect(from).toBeLessThan(720);
    }
    expect(pastForecasts(steady(0, 720))).toEqual([]);
    expect(pastForecasts([])).toEqual([]);
  });

  it('says nothing of a short past', () => {
    expect(backTest(pastForecasts(steady(40, 150)))).toBeNull();
  });

  it('narrows the band of an even fleet, widens that of an uneven one, and holds about 80 % either way', () => {
    const random = seeded(9);
    const fleet = (off: () => number) =>
      Array.from({ length: 400 }, (_, i) => ({ from: i, rate: rate(), days: 60 + 200 * random(), error: off() }));
    const spreadOf = (by: number) => () => by * normal(random);
    const [even, uneven] = [backTest(fleet(spreadOf(0.05))), backTest(fleet(spreadOf(0.6)))];
    expect(even?.scale).toBeLessThan(0.6);
    expect(uneven?.scale).toBeGreaterThan(1.5);
    for (const found of [even, uneven]) {
      expect(found?.forecasts).toBe(200);
      expect((found?.held ?? 0) / 200).toBeGreaterThan(0.7);
      expect((found?.held ?? 0) / 200).toBeLessThan(0.9);
    }
  });
});
