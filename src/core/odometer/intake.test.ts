import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fromDayNumber } from '../calendar/plain-date';
import { MAX_ODOMETER_KM } from './check';
import { historyOf, lifeKm, NOTHING_KNOWN, readingFault, readingKey, takeIn } from './intake';
import type { Reading } from './use-rate';

/** A vehicle at 60 km a day, read every ten days. */
const steady: readonly Reading[] = Array.from({ length: 12 }, (_, i) => ({ day: 1000 + 10 * i, km: 40_000 + 600 * i }));
const known = { ...NOTHING_KNOWN, known: new Set(steady.map(readingKey)), accepted: steady };
const read = (day: number, km: number) => ({ day, km, unit: 'km' as const });
const last = { day: 1110, km: 46_600, unit: 'km' as const };

describe('takeIn', () => {
  it('takes what follows, knows what it has, and keeps what cannot follow as suspect', () => {
    const given = [read(1120, 47_200), last, read(1120, 47_200), read(1121, 12_000)];
    const taken = takeIn(known, given);
    expect(taken.map(({ kind }) => kind)).toEqual(['new', 'known', 'known', 'suspect']);
    expect(taken[1]).toMatchObject({ sameAs: null });
    expect(taken[2]).toMatchObject({ sameAs: 0 });
    expect(taken[3]).toMatchObject({ check: { reasons: expect.arrayContaining(['backwards']) } });
  });

  it('asks a figure that stands still for long, and not where the vehicle is known to stand', () => {
    const still = [read(1160, 46_600)];
    expect(takeIn(known, still)[0]?.kind).toBe('suspect');
    expect(takeIn(known, still, true)[0]?.kind).toBe('new');
  });

  it('says the same of each reading in whatever order they come, and takes all of them as known the second time', () => {
    const some = fc.uniqueArray(
      fc.record({
        day: fc.integer({ min: 1111, max: 1160 }),
        km: fc.integer({ min: 40_000, max: 60_000 }),
        unit: fc.constantFrom('km' as const, 'mi' as const),
      }),
      { maxLength: 6, selector: readingKey },
    );
    fc.assert(
      fc.property(some, (given) => {
        const [forth, back] = [takeIn(known, given), takeIn(known, [...given].reverse()).toReversed()];
        expect(back.map(({ kind }) => kind)).toEqual(forth.map(({ kind }) => kind));
        const after = {
          ...NOTHING_KNOWN,
          known: new Set([...known.known, ...given.map(readingKey)]),
          accepted: steady,
        };
        expect(takeIn(after, given).every(({ kind }) => kind === 'known')).toBe(true);
      }),
    );
  });

  it('lets a figure that is only about so much lie below the last as far as it was rounded, and proves nothing by it', () => {
    const about = (km: number) => ({ ...read(1111, km), certainty: 'estimated' as const });
    // The last was 46,600: whole hundreds may be off by 50, whole thousands by 500.
    const kind = (km: number) => takeIn(known, [about(km)])[0]?.kind;
    expect([46_500, 46_000, 45_900, 40_000].map(kind)).toEqual(['suspect', 'suspect', 'suspect', 'suspect']);
    expect(takeIn({ ...known, accepted: [...steady, { day: 1110, km: 46_640 }] }, [about(46_600)])[0]?.kind).toBe(
      'new',
    );
    // An exact figure after it that lies lower is no step back.
    expect(takeIn(known, [about(46_700), read(1112, 46_660)]).map((taken) => taken.kind)).toEqual(['new', 'new']);
  });

  it('takes a first reading of a vehicle of which nothing is known', () => {
    expect(takeIn(NOTHING_KNOWN, [last])).toEqual([{ kind: 'new' }]);
  });
});

describe('a first reading', () => {
  const beginning = { day: 1000, fitted: { day: 1100, km: 30_000 }, lentKmPerDay: null };
  const first = (day: number, km: number) => takeIn({ ...NOTHING_KNOWN, beginning }, [read(day, km)])[0];

  it('is asked about before the vehicle entered service, and below the figure at which its plugs were fitted', () => {
    expect(first(990, 10)).toMatchObject({ kind: 'suspect', check: { reasons: ['before_service'] } });
    expect(first(1120, 29_000)).toMatchObject({ kind: 'suspect', check: { reasons: ['below_fitting'] } });
    expect(first(1050, 20_000)).toEqual({ kind: 'new' });
    expect(first(1120, 30_400)).toEqual({ kind: 'new' });
  });
});

describe('a second reading', () => {
  const second = (lentKmPerDay: number | null, km: number) =>
    takeIn({ ...NOTHING_KNOWN, accepted: [read(1000, 40_000)], beginning: { day: 0, fitted: null, lentKmPerDay } }, [
      read(1030, km),
    ])[0];

  it('is held against what its duty group covers, for it has no pace of its own', () => {
    expect(second(40, 41_500)).toEqual({ kind: 'new' });
    expect(second(40, 43_600)).toEqual({ kind: 'new' });
    expect(second(40, 79_000)).toMatchObject({ kind: 'suspect', check: { reasons: ['unusual'] } });
    expect(second(null, 79_000)).toEqual({ kind: 'new' });
  });
});

describe('a dash in miles', () => {
  it('rolls over in miles, and so does one that was fitted later', () => {
    const mi = (value: number) => value * 1.609344;
    const accepted = [0, 1, 2, 3, 4].map((i) => ({ day: 1000 + 10 * i, km: mi(99_000 + 200 * i) }));
    const rolled = { day: 1050, km: mi(30), unit: 'mi' as const };
    const [taken] = takeIn({ ...NOTHING_KNOWN, accepted }, [rolled]);
    expect(taken).toMatchObject({ check: { reasons: ['backwards', 'rollover'] } });
    expect(taken?.kind === 'suspect' && taken.check.suggestion?.km).toBeCloseTo(mi(100_030), 0);
    const meter = { meterOffsetKm: mi(50_000), meterReplacedOn: fromDayNumber(1000) };
    const later = accepted.map(({ day, km }) => ({ day, km: km + mi(50_000) }));
    const [after] = takeIn({ ...NOTHING_KNOWN, accepted: later, meter }, [{ ...rolled, km: rolled.km + mi(50_000) }]);
    expect(after?.kind === 'suspect' && after.check.suggestion?.km).toBeCloseTo(mi(150_030), 0);
  });
});

describe('readingFault', () => {
  it('refuses what no reading can be', () => {
    expect(readingFault({ readOn: '2026-11-28', odometerKm: 1 }, '2026-11-27')).toBe('future');
    expect(readingFault({ readOn: '2026-11-27', odometerKm: MAX_ODOMETER_KM + 1 }, '2026-11-27')).toBe('too_far');
    expect(readingFault({ readOn: '2026-11-27', odometerKm: MAX_ODOMETER_KM }, '2026-11-27')).toBeNull();
  });
});

describe('lifeKm', () => {
  it('goes on from the old meter where a new one began', () => {
    const meter = { meterOffsetKm: 120_000.04, meterReplacedOn: '2025-01-10' };
    expect(lifeKm(500, '2025-01-10', meter)).toBe(120_500);
    expect(lifeKm(500, '2025-01-09', meter)).toBe(500);
    expect(lifeKm(500, '2025-01-10', { meterOffsetKm: 0, meterReplacedOn: null })).toBe(500);
  });
});

describe('historyOf', () => {
  it('is in order of day and figure', () => {
    const rows = [
      { readOn: '2026-02-01', odometerKm: 3 },
      { readOn: '2026-01-01', odometerKm: 2 },
      { readOn: '2026-01-01', odometerKm: 1 },
    ];
    expect(historyOf(rows).map(({ km }) => km)).toEqual([1, 2, 3]);
  });
});
