import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keptKm } from '../units/round';
import { checkAgainst, checkReading, isAskedOnly, suspectReadings } from './check';
import { kmOf } from './slips';
import { ownRate, type Reading } from './use-rate';

/** 60 km a day, read every ten days, the last at day 180. */
const history = Array.from({ length: 19 }, (_, i) => ({ day: i * 10, km: 77_000 + i * 600 }));
const last = history.at(-1) ?? { day: 0, km: 0 };
const read = (value: number, day = 187, unit: 'km' | 'mi' = 'km') => checkReading(history, { day, value, unit });

describe('checkReading', () => {
  const anyHistory = fc
    .record({
      start: fc.integer({ min: 20_000, max: 800_000 }),
      rate: fc.integer({ min: 10, max: 300 }),
      gaps: fc.array(fc.integer({ min: 5, max: 30 }), { minLength: 5, maxLength: 12 }),
    })
    .map(({ start, rate, gaps }) => {
      const days = [0];
      for (const gap of gaps) days.push((days.at(-1) ?? 0) + gap);
      const readings = days.map((day) => ({ day, km: start + day * rate }));
      const day = days.at(-1) ?? 0;
      return { readings, rate, next: { day: day + 7, km: start + (day + 7) * rate } };
    });

  it('accepts what follows from the history, in either unit', () => {
    expect(read(last.km + 430)).toEqual({ verdict: 'accept', reasons: [], suggestion: null });
    expect(read((last.km + 430) / 1.609344, 187, 'mi').verdict).toBe('accept');
    expect(read(last.km).verdict).toBe('accept');
    expect(checkReading([], { day: 1, value: 5, unit: 'km' }).verdict).toBe('accept');
  });

  it('takes a vehicle that stands for standing, in the unit and the rounding of its dash', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400_000 }),
        fc.constantFrom('km' as const, 'mi' as const),
        fc.integer({ min: 0, max: 20 }),
        fc.double({ min: -0.49, max: 0.49, noNaN: true }),
        (shown, unit, days, part) => {
          // As it was kept, and as it was read with a part of its last digit.
          const kept = keptKm(kmOf({ value: shown, unit }));
          const next = { day: 100 + days, value: shown + part, unit };
          expect(checkReading([{ day: 100, km: kept }], { ...next, value: shown }).verdict).toBe('accept');
          const { reasons } = checkReading(
            [{ day: 100, km: keptKm(kmOf({ value: shown + 0.4 * Math.sign(part), unit })) }],
            {
              ...next,
              value: shown,
            },
          );
          expect(reasons).not.toContain('backwards');
        },
      ),
    );
    expect(checkReading([{ day: 100, km: 19_867.4 }], { day: 101, value: 12_344, unit: 'mi' }).reasons).toContain(
      'backwards',
    );
    expect(checkReading([{ day: 100, km: 20_000 }], { day: 101, value: 19_999, unit: 'km' }).reasons).toContain(
      'backwards',
    );
  });

  it.each([
    ['backwards without a cause', 61_234, ['backwards'], null],
    ['miles typed as kilometres', Math.round((last.km + 420) / 1.609344), ['backwards', 'unit_slip'], last.km + 420],
    ['kilometres typed as miles', Math.round((last.km + 420) * 1.609344), ['too_fast', 'unit_slip'], last.km + 420],
    ['a digit dropped', 8_842, ['backwards', 'digit_slip'], 88_420],
    ['a digit doubled', 888_220, ['too_fast', 'digit_slip'], 88_220],
    ['two digits swapped', 82_820, ['backwards', 'digit_slip'], 88_220],
    ['a digit misread', 38_220, ['backwards', 'digit_slip'], 88_220],
  ] as const)('tells %s', (_, value, reasons, km) => {
    const check = read(value);
    expect(check.verdict).toBe('suspect');
    expect(check.reasons).toEqual(reasons);
    if (km === null) expect(check.suggestion).toBeNull();
    else expect(Math.abs((check.suggestion?.km ?? 0) - km)).toBeLessThan(450);
  });

  it('tells over 1,500 km a day', () => {
    expect(read(last.km + 7 * 1600).reasons[0]).toBe('too_fast');
    expect(read(last.km + 7 * 200).verdict).toBe('accept');
  });

  it('tells a meter that rolled over from one that went backwards', () => {
    const high = history.map(({ day, km }) => ({ day, km: km + 11_900 }));
    expect(checkReading(high, { day: 187, value: 120, unit: 'km' })).toEqual({
      verdict: 'suspect',
      reasons: ['backwards', 'rollover'],
      suggestion: { km: 100_120, why: 'rollover' },
    });
  });

  it('asks about a step far beyond what this vehicle covers, though any vehicle could', () => {
    const daily = Array.from({ length: 10 }, (_, i) => ({ day: i * 10, km: 40_000 + i * 500 }));
    const check = checkReading(daily, { day: 120, value: 88_000, unit: 'km' });
    expect(check).toMatchObject({ verdict: 'suspect', reasons: expect.arrayContaining(['unusual']) });
    expect(isAskedOnly(check)).toBe(true);
    expect(isAskedOnly(read(61_234))).toBe(false);
    // Twice as far as usual is a holiday.
    expect(checkReading(daily, { day: 120, value: 47_600, unit: 'km' }).verdict).toBe('accept');
  });

  it('finds swapped neighbours and tenths counted as digits where they stand out', () => {
    const lower = history.map(({ day, km }) => ({ day, km: km - 16_400 }));
    expect(checkReading(lower, { day: 187, value: 78_120, unit: 'km' })).toMatchObject({
      reasons: ['unusual', 'digit_slip'],
      suggestion: { km: 71_820 },
    });
    expect(read(882_203)).toMatchObject({ reasons: ['too_fast', 'digit_slip'], suggestion: { km: 88_220 } });
  });

  it('reads digits as the dash shows them: in its unit, and after a new meter from its own beginning', () => {
    const high = history.map(({ day, km }) => ({ day, km: (km + 11_900) * 1.609344 }));
    expect(checkReading(high, { day: 187, value: 120, unit: 'mi' }).suggestion?.km).toBeCloseTo(100_120 * 1.609344, 0);
    const newMeter = { day: 187, value: 8_202, unit: 'km', offsetKm: 80_000 } as const;
    expect(checkReading(history, { ...newMeter, value: 8_220 }).verdict).toBe('accept');
    expect(checkReading(history, { ...newMeter, value: 82_200 }).suggestion?.km).toBe(88_220);
  });

  it('never suggests the figure that was typed', () => {
    fc.assert(
      fc.property(anyHistory, fc.integer({ min: 0, max: 2_000_000 }), fc.boolean(), ({ readings, next }, value, mi) => {
        const unit = mi ? 'mi' : 'km';
        const { suggestion } = checkReading(readings, { day: next.day, value, unit });
        if (suggestion) expect(Math.abs(suggestion.km - value * (mi ? 1.609344 : 1))).toBeGreaterThanOrEqual(0.5);
      }),
    );
  });

  it('tells a stuck meter, but not a vehicle that stands or a whole feed that is silent', () => {
    const still = { day: 240, value: last.km, unit: 'km' } as const;
    expect(checkReading(history, still)).toMatchObject({ verdict: 'suspect', reasons: ['stuck'] });
    expect(checkReading(history, still, false).verdict).toBe('accept');
    const parked = history.map(({ day }) => ({ day, km: 500 + day }));
    expect(checkReading(parked, { day: 230, value: 680, unit: 'km' }).verdict).toBe('accept');
  });

  it('doubts a late message above a later reading, not the later one', () => {
    expect(checkReading(history, { day: 95, value: 84_000, unit: 'km' }).reasons[0]).toBe('backwards');
    expect(checkReading(history, { day: 95, value: 82_700, unit: 'km' }).verdict).toBe('accept');
  });

  it('finds a unit slip in any history, and a mended reading equals one typed right', () => {
    fc.assert(
      fc.property(anyHistory, fc.boolean(), ({ readings, next }, up) => {
        const value = up ? next.km * 1.609344 : next.km / 1.609344;
        const check = checkReading(readings, { day: next.day, value, unit: 'km' });
        expect(check.verdict).toBe('suspect');
        expect(check.reasons).toContain('unit_slip');
        expect(Math.abs((check.suggestion?.km ?? 0) - next.km)).toBeLessThan(0.2);
      }),
    );
  });

  it('never doubts steady driving, in whatever unit it is read', () => {
    fc.assert(
      fc.property(anyHistory, fc.constantFrom('km' as const, 'mi' as const), ({ readings, next }, unit) => {
        const value = unit === 'mi' ? next.km / 1.609344 : next.km;
        expect(checkReading(readings, { day: next.day, value, unit }).verdict).toBe('accept');
      }),
    );
  });

  it('suggests only what would itself be accepted', () => {
    fc.assert(
      fc.property(anyHistory, fc.integer({ min: 0, max: 2_000_000 }), ({ readings, next }, value) => {
        const { suggestion } = checkReading(readings, { day: next.day, value, unit: 'km' });
        if (!suggestion) return;
        const again = checkReading(readings, { day: next.day, value: suggestion.km, unit: 'km' });
        expect(again.reasons.filter((code) => code === 'backwards')).toEqual([]);
      }),
    );
  });
});

describe('suspectReadings', () => {
  it('lets what passes count for the next, and a bad one spoil none after it', () => {
    const fresh = [
      { day: 187, value: 88_220, unit: 'km' as const },
      { day: 190, value: 8_840, unit: 'km' as const },
      { day: 194, value: 88_640, unit: 'km' as const },
    ];
    expect([...suspectReadings(history, fresh).keys()]).toEqual([1]);
  });

  it('without any history judges by order and speed alone', () => {
    const fresh = [100, 900, 700, 9_000_000, 1_900].map((value, i) => ({ day: i * 10, value, unit: 'km' as const }));
    const found = suspectReadings([], fresh);
    expect([...found].map(([i, check]) => [i, check.reasons[0]])).toEqual([
      [2, 'backwards'],
      [3, 'too_fast'],
    ]);
  });

  it('finds what judging each reading by itself finds', () => {
    const day = fc.integer({ min: 0, max: 120 });
    const reading = fc.record({ day, value: fc.integer({ min: 0, max: 20_000 }), unit: fc.constantFrom('km', 'mi') });
    const driven = fc.array(fc.tuple(day, fc.integer({ min: 0, max: 200 })), { maxLength: 12 }).map((list) => {
      const days = [...new Set(list.map(([d]) => d))].sort((a, b) => a - b);
      return days.map((d, i): Reading => ({ day: d, km: 5000 + d * 60 + (list[i]?.[1] ?? 0) }));
    });
    fc.assert(
      fc.property(driven, fc.array(reading, { maxLength: 25 }), (accepted, some) => {
        const fresh = [...some].sort((a, b) => a.day - b.day || a.value - b.value);
        const rate = ownRate(accepted)?.kmPerDay ?? null;
        const known = [...accepted];
        const expected = fresh.flatMap((next, i) => {
          const check = checkAgainst(known, rate, next);
          if (check.verdict === 'suspect') return [[i, check]];
          const km = next.unit === 'mi' ? next.value * 1.609344 : next.value;
          const at = known.findLastIndex((k) => k.day <= next.day) + 1;
          known.splice(at, 0, { day: next.day, km });
          return [];
        });
        expect([...suspectReadings(accepted, fresh)]).toEqual(expected);
      }),
    );
  });
});
