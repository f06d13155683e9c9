import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MAX_ODOMETER_KM } from './check';
import { historyOf, lifeKm, NOTHING_KNOWN, readingFault, readingKey, takeIn } from './intake';
import type { Reading } from './use-rate';

/** A vehicle at 60 km a day, read every ten days. */
const steady: readonly Reading[] = Array.from({ length: 12 }, (_, i) => ({ day: 1000 + 10 * i, km: 40_000 + 600 * i }));
const known = { known: new Set(steady.map(readingKey)), accepted: steady };
const last = { day: 1110, km: 46_600 };

describe('takeIn', () => {
  it('takes what follows, knows what it has, and keeps what cannot follow as suspect', () => {
    const given = [{ day: 1120, km: 47_200 }, last, { day: 1120, km: 47_200 }, { day: 1121, km: 12_000 }];
    const taken = takeIn(known, given);
    expect(taken.map(({ kind }) => kind)).toEqual(['new', 'known', 'known', 'suspect']);
    expect(taken[1]).toMatchObject({ sameAs: null });
    expect(taken[2]).toMatchObject({ sameAs: 0 });
    expect(taken[3]).toMatchObject({ check: { reasons: expect.arrayContaining(['backwards']) } });
  });

  it('asks a figure that stands still for long, and not where the vehicle is known to stand', () => {
    const still = [{ day: 1160, km: 46_600 }];
    expect(takeIn(known, still)[0]?.kind).toBe('suspect');
    expect(takeIn(known, still, true)[0]?.kind).toBe('new');
  });

  it('says the same of each reading in whatever order they come, and takes all of them as known the second time', () => {
    const some = fc.uniqueArray(
      fc.record({ day: fc.integer({ min: 1111, max: 1160 }), km: fc.integer({ min: 40_000, max: 60_000 }) }),
      { maxLength: 6, selector: readingKey },
    );
    fc.assert(
      fc.property(some, (given) => {
        const [forth, back] = [takeIn(known, given), takeIn(known, [...given].reverse()).toReversed()];
        expect(back.map(({ kind }) => kind)).toEqual(forth.map(({ kind }) => kind));
        const after = { known: new Set([...known.known, ...given.map(readingKey)]), accepted: steady };
        expect(takeIn(after, given).every(({ kind }) => kind === 'known')).toBe(true);
      }),
    );
  });

  it('takes a first reading of a vehicle of which nothing is known', () => {
    expect(takeIn(NOTHING_KNOWN, [last])).toEqual([{ kind: 'new' }]);
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
