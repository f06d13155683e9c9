import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { doubtHours, hourMeter, hoursOn } from './engine-hours';

const history = [
  { day: 20_000, hours: 1000 },
  { day: 20_010, hours: 1050 },
  { day: 20_030, hours: 1200 },
];

describe('doubtHours', () => {
  it('takes what lies between its neighbours', () => {
    expect(doubtHours(history, { day: 20_020, hours: 1100 })).toBeNull();
    expect(doubtHours(history, { day: 20_031, hours: 1224 })).toBeNull();
    expect(doubtHours([], { day: 20_031, hours: 5 })).toBeNull();
  });

  it('doubts one that goes backwards, also beside a later one, and more hours than a day has', () => {
    expect(doubtHours(history, { day: 20_031, hours: 1199 })).toBe('backwards');
    expect(doubtHours(history, { day: 20_020, hours: 1201 })).toBe('backwards');
    expect(doubtHours(history, { day: 20_031, hours: 1225 })).toBe('too_fast');
    expect(doubtHours([{ day: 20_005, hours: 1100 }], { day: 20_000, hours: 900 })).toBe('too_fast');
  });
});

describe('hoursOn', () => {
  it('reads between two readings, and beyond them at their mean rate', () => {
    expect(hoursOn(history, 20_010)).toBe(1050);
    expect(hoursOn(history, 20_020)).toBe(1125);
    expect(hoursOn(history, 20_060)).toBe(1400);
    expect(hoursOn(history, 19_970)).toBe(800);
    expect(hoursOn(history, 19_000)).toBe(0);
    expect(hoursOn(history.slice(0, 1), 20_005)).toBeNull();
  });

  it('never falls as days pass', () => {
    const readings = fc
      .array(fc.tuple(fc.integer({ min: 1, max: 60 }), fc.integer({ min: 0, max: 500 })), {
        minLength: 2,
        maxLength: 9,
      })
      .map((steps) => {
        let [day, hours] = [20_000, 300];
        return steps.map(([days, more]) => {
          [day, hours] = [day + days, hours + more];
          return { day, hours };
        });
      });
    fc.assert(
      fc.property(readings, fc.integer({ min: 19_000, max: 21_000 }), fc.nat(400), (sorted, day, later) => {
        expect(hoursOn(sorted, day + later) ?? 0).toBeGreaterThanOrEqual((hoursOn(sorted, day) ?? 0) - 1e-9);
      }),
    );
  });
});

describe('hourMeter', () => {
  it('counts hours as distance, at the rate of its own readings', () => {
    const weekly = Array.from({ length: 8 }, (_, i) => ({ day: 20_000 + 7 * i, hours: 500 + 21 * i }));
    const found = hourMeter(weekly, 40);
    expect(found).toMatchObject({ hours: 647, kmPerHour: 40 });
    expect(found?.rate?.kmPerDay).toBeCloseTo(120, 9);
  });

  it('is none without readings, or where hours do not count', () => {
    expect(hourMeter([], 40)).toBeNull();
    expect(hourMeter(history, 0)).toBeNull();
  });
});
