import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { byTag, insertStays, oldestOf, placeKey, REMOVAL_REASONS, repeatFailures, type Stay, swapped } from './history';

const stay = (over: Partial<Stay> = {}): Stay => ({
  vehicleId: 'v',
  component: 'coil',
  cylinder: 1,
  position: 'A',
  tag: null,
  installedOn: '2020-01-01',
  installedKm: 0,
  installedKmCertainty: 'exact',
  removedOn: null,
  removedKm: null,
  removedKmCertainty: null,
  removalReason: null,
  ...over,
});
const coil = (tag: string, cylinder: number, installedOn: string, removedOn: string | null = null): Stay =>
  stay({ tag, cylinder, installedOn, removedOn, removalReason: removedOn === null ? null : 'failed' });

/** The record after a change. */
function recordAfter(before: readonly Stay[], change: ReturnType<typeof insertStays<Stay>>): readonly Stay[] {
  const ends = new Map(change.ends.map(({ stay: own, ...end }) => [own, end]));
  return [...before.map((own) => ({ ...own, ...ends.get(own) })), ...change.starts];
}

const anyStay = fc
  .record({
    cylinder: fc.integer({ min: 1, max: 3 }),
    tag: fc.constantFrom(null, 'A', 'B', 'C'),
    day: fc.integer({ min: 0, max: 300 }),
  })
  .map(({ cylinder, tag, day }) =>
    stay({
      cylinder,
      tag,
      installedOn: new Date(Date.UTC(2021, 0, 1 + day)).toISOString().slice(0, 10),
      installedKm: day * 50,
    }),
  );
/** A tag goes into one place a day. */
const someStays = fc.uniqueArray(anyStay, {
  maxLength: 8,
  comparator: (a, b) => a.installedOn === b.installedOn && (a.tag === b.tag || a.cylinder === b.cylinder),
});
const reasons = fc.constantFrom(...REMOVAL_REASONS);

describe('insertStays', () => {
  it('takes out what was there, with day, distance and reason', () => {
    const old = stay({ installedOn: '2020-01-01' });
    const { ends, starts } = insertStays([old], [stay({ installedOn: '2024-05-01', installedKm: 61000 })], 'failed');
    expect(ends).toEqual([
      {
        stay: old,
        removedOn: '2024-05-01',
        removedKm: 61000,
        removedKmCertainty: 'exact',
        removalReason: 'failed',
      },
    ]);
    expect(starts).toMatchObject([{ removedOn: null, removalReason: null }]);
  });

  it('puts an older service before what is on record, and leaves that as it is', () => {
    const now = stay({ installedOn: '2024-05-01', installedKm: 61000 });
    const { ends, starts } = insertStays([now], [stay({ installedOn: '2022-02-02', installedKm: 30000 })], 'unknown');
    expect(ends).toEqual([]);
    expect(starts).toMatchObject([{ removedOn: '2024-05-01', removedKm: 61000, removalReason: 'unknown' }]);
  });

  it('lets a coil that turns up elsewhere leave the place it was in, as a swap', () => {
    const old = coil('C1', 1, '2020-01-01');
    const { ends } = insertStays([old], [coil('C1', 3, '2024-05-01')], 'failed');
    expect(ends).toMatchObject([{ stay: old, removedOn: '2024-05-01', removalReason: 'swap' }]);
  });

  it('calls it a swap, too, where the move is heard of after another part took the place that day', () => {
    const before = [stay({ tag: 'C1', removedOn: '2024-05-01', removedKm: 0, removalReason: 'planned' })];
    const now = [...before, stay({ installedOn: '2024-05-01' })];
    const { ends } = insertStays(now, [coil('C1', 3, '2024-05-01')], 'planned');
    expect(ends).toMatchObject([{ stay: before[0], removedOn: '2024-05-01', removalReason: 'swap' }]);
  });

  it('never has two parts in one place nor one part in two, whatever comes in which order', () => {
    fc.assert(
      fc.property(someStays, reasons, (fresh, reason) => {
        const whole = recordAfter([], insertStays([], fresh, reason));
        for (const now of [whole.filter(({ removedOn }) => removedOn === null)]) {
          expect(new Set(now.map(placeKey)).size).toBe(now.length);
          const tags = now.flatMap(({ tag }) => tag ?? []);
          expect(new Set(tags).size).toBe(tags.length);
        }
      }),
    );
  });

  it('gives the same history whether services come at once or one after the other', () => {
    const sorted = (stays: readonly Stay[]) =>
      stays.map((own) => JSON.stringify(own)).sort((a, b) => a.localeCompare(b));
    fc.assert(
      fc.property(someStays, reasons, (fresh, reason) => {
        const once = recordAfter([], insertStays([], fresh, reason));
        const byOne = fresh.reduce<readonly Stay[]>(
          (had, one) => recordAfter(had, insertStays(had, [one], reason)),
          [],
        );
        expect(sorted(byOne)).toEqual(sorted(once));
      }),
    );
  });
});

describe('swapped', () => {
  it('changes places and keeps tag and age, and ends both stays as a swap', () => {
    const pair = [coil('C1', 1, '2020-01-01'), coil('C2', 2, '2021-01-01')] as const;
    const fresh = swapped(...pair, '2024-05-01', 50000) ?? [];
    const now = recordAfter(pair, insertStays(pair, fresh, 'unknown')).filter(({ removedOn }) => removedOn === null);
    expect(new Map(now.map(({ tag, cylinder }) => [tag, cylinder]))).toEqual(
      new Map([
        ['C1', 2],
        ['C2', 1],
      ]),
    );
    expect(insertStays(pair, fresh, 'unknown').ends.map(({ removalReason }) => removalReason)).toEqual([
      'swap',
      'swap',
    ]);
    expect(swapped(pair[0], stay({ cylinder: 2 }), '2024-05-01', 50000)).toBeNull();
  });
});

describe('byTag', () => {
  it('follows a coil from cylinder to cylinder', () => {
    const found = byTag([
      coil('C2', 1, '2024-05-01'),
      coil('C1', 2, '2024-05-01'),
      coil('C1', 1, '2020-01-01', '2024-05-01'),
      coil('C2', 2, '2020-01-01', '2024-05-01'),
    ]);
    expect(found.map(({ tag, stays }) => [tag, stays.map((s) => s.cylinder)])).toEqual([
      ['C1', [1, 2]],
      ['C2', [2, 1]],
    ]);
  });
});

describe('repeatFailures', () => {
  const lostTwice = [
    coil('A', 3, '2019-01-01', '2023-01-01'),
    coil('B', 3, '2023-01-01', '2025-01-01'),
    coil('C', 3, '2025-01-01'),
    coil('D', 1, '2019-01-01', '2024-01-01'),
    coil('E', 1, '2024-01-01'),
  ];

  it('names the cylinder that has lost two coils, not the one that lost one', () => {
    expect(repeatFailures(lostTwice)).toEqual([{ cylinder: 3, lost: 2 }]);
  });

  it('counts none that came out for no fault of its own', () => {
    const planned = lostTwice.map((own) => ({ ...own, removalReason: own.removedOn ? ('planned' as const) : null }));
    expect(repeatFailures(planned)).toEqual([]);
  });
});

describe('oldestOf', () => {
  it('is the part that sits there with the least distance, and no removed one', () => {
    const [gone, old, young] = [
      coil('A', 1, '2019-01-01', '2020-01-01'),
      stay({ installedKm: 500 }),
      stay({ cylinder: 2, installedKm: 900 }),
    ];
    expect(oldestOf([gone, young, old])).toBe(old);
    expect(oldestOf([gone])).toBeNull();
  });
});
