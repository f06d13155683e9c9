import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { COLD_C, coldOn, coolingFault, headC, headNow, minutesToCold, readCelsius } from './cooling';

const outside = fc.double({ min: -30, max: 45, noNaN: true });
const constant = fc.integer({ min: 20, max: 300 });
const NOW = Date.parse('2026-11-16T10:00:00Z');
const minutesAgo = (minutes: number): string => new Date(NOW - minutes * 60_000).toISOString();

describe('a head that cools', () => {
  it('starts warm, only falls, and never below the day', () => {
    fc.assert(
      fc.property(outside, constant, fc.integer({ min: 0, max: 2000 }), (day, tau, minutes) => {
        expect(headC(0, day, tau)).toBeCloseTo(90, 9);
        expect(headC(minutes + 1, day, tau)).toBeLessThanOrEqual(headC(minutes, day, tau));
        expect(headC(minutes, day, tau)).toBeGreaterThanOrEqual(day);
      }),
    );
    expect(() => headC(1, 10, 0)).toThrow(RangeError);
  });

  it('is cold when the minutes say so, and not one minute earlier', () => {
    fc.assert(
      fc.property(outside, constant, (day, tau) => {
        const minutes = minutesToCold(day, tau);
        expect(headC(minutes, day, tau)).toBeLessThanOrEqual(coldOn(day) + 1e-9);
        expect(headC(minutes - 1, day, tau)).toBeGreaterThan(coldOn(day) - 1e-9);
        expect(minutesToCold(day, tau, COLD_C - 1)).toBe(0);
      }),
    );
  });

  it('takes a usual engine an hour and a half on a cool day', () => {
    expect(minutesToCold(12, 100)).toBe(103);
  });
});

describe('what is known of it now', () => {
  const said = { shutAt: minutesAgo(30), outside: '12 °C', head: '' };

  it('is nothing until somebody says when it was shut off, or measures it', () => {
    expect(headNow({ shutAt: '', outside: '12', head: '' }, 100, NOW)).toBeNull();
    expect(coolingFault({ shutAt: '', outside: '', head: '' }, 100, NOW)).toBeNull();
  });

  it('is an estimate, over which a measured head stands', () => {
    expect(coolingFault(said, 100, NOW)).toContain('about 70 °C');
    expect(coolingFault({ ...said, head: '35' }, 100, NOW)).toBeNull();
    expect(coolingFault({ ...said, shutAt: minutesAgo(600), head: '144 °F' }, 100, NOW)).toContain('62 °C');
    expect(coolingFault({ ...said, shutAt: minutesAgo(104) }, 100, NOW)).toBeNull();
    expect(coolingFault(said, 100, NOW)).toContain('73 more minutes, until 11:13');
  });

  it('refuses what is no temperature, with how to write it', () => {
    expect(coolingFault({ ...said, head: 'warm' }, 100, NOW)).toContain('Write it like');
    expect([readCelsius('62,5 °C'), readCelsius('-5'), readCelsius('999'), readCelsius('')]).toEqual([
      62.5,
      -5,
      null,
      null,
    ]);
  });
});
