import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Driven, playFeed } from './telematics';

const van: Driven = { unitNumber: '11', unit: 'km', on: '2026-11-01', km: 50_000, kmPerDay: 100 };
const fleet: readonly Driven[] = Array.from({ length: 60 }, (_, i) => ({
  ...van,
  unitNumber: String(i),
  unit: i % 2 ? ('mi' as const) : ('km' as const),
}));

describe('playFeed', () => {
  it('plays the same again for the same seed, and other messages for another', () => {
    expect(playFeed(fleet, '2026-11-16', 7)).toEqual(playFeed(fleet, '2026-11-16', 7));
    expect(playFeed(fleet, '2026-11-16', 8)).not.toEqual(playFeed(fleet, '2026-11-16', 7));
  });

  it('makes every mistake of a real feed', () => {
    const faults = new Set(
      playFeed(fleet, '2026-11-16', 1)
        .flat()
        .map((message) => message.fault),
    );
    expect([...faults].sort()).toEqual(['digit_dropped', 'doubled', 'late', 'none', 'out_of_order', 'wrong_unit']);
    expect(playFeed(fleet, '2026-11-16', 1).flat().length).toBeLessThan(60 * 15 * 1.06);
  });

  it('never drives backwards, never beyond today, and says nothing of a vehicle read today', () => {
    fc.assert(
      fc.property(fc.integer(), fc.integer({ min: 0, max: 60 }), (seed, days) => {
        const until = `2026-${days > 29 ? '12' : '11'}-${String((days % 30) + 1).padStart(2, '0')}`;
        const sound = playFeed([van], until, seed)
          .flat()
          .filter((message) => message.fault === 'none')
          .sort((a, b) => (a.on < b.on ? -1 : 1));
        for (const [i, message] of sound.entries()) {
          expect(message.on > van.on && message.on <= until).toBe(true);
          expect(Number.parseInt(message.text, 10)).toBeGreaterThanOrEqual(
            Number.parseInt(sound[i - 1]?.text ?? '50000', 10),
          );
        }
      }),
    );
    expect(playFeed([van], '2026-11-01', 3)).toEqual([]);
  });
});
