import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, mondayOf, weekdayOf } from '../calendar/plain-date';
import { isZone, minuteOf, timeOf, wallClock } from '../calendar/zone';
import { type Booking, bookingFault } from './booking';
import { isWorkingDay, minutesOpen, USUAL_HOURS } from './hours';

const MONDAY = '2026-11-16';
const anyDay = fc.integer({ min: 0, max: 20_000 }).map((n) => addDays('1990-01-01', n));

describe('a moment at a depot', () => {
  it('falls on the day and minute of its own clock, summer and winter', () => {
    const late = new Date('2026-07-01T22:30:00Z');
    expect(wallClock(late, 'Etc/UTC')).toEqual({ day: '2026-07-01', minute: 1350 });
    expect(wallClock(late, 'Europe/Helsinki')).toEqual({ day: '2026-07-02', minute: 90 });
    expect(wallClock(new Date('2026-01-01T02:00:00Z'), 'America/New_York')).toEqual({
      day: '2025-12-31',
      minute: 1260,
    });
  });

  it('needs a zone that there is', () => {
    expect([isZone('Europe/Lisbon'), isZone('Mars/Olympus'), isZone('')]).toEqual([true, false, false]);
  });

  it('reads and writes times of day', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 1439 }), (n) => {
        expect(minuteOf(timeOf(n))).toBe(n);
      }),
    );
    for (const wrong of ['8:30', '24:00', '08:60', '', '08:30:00']) expect(minuteOf(wrong)).toBeNaN();
  });
});

describe('working hours', () => {
  it('count the weekdays from Monday', () => {
    fc.assert(
      fc.property(anyDay, (day) => {
        expect(weekdayOf(mondayOf(day))).toBe(1);
        expect(addDays(mondayOf(day), weekdayOf(day) - 1)).toBe(day);
      }),
    );
  });

  it('hold nothing on a day on which nobody works', () => {
    fc.assert(
      fc.property(anyDay, (day) => {
        expect(minutesOpen(USUAL_HOURS, day)).toBe(isWorkingDay(USUAL_HOURS, day) ? 480 : 0);
      }),
    );
    expect(minutesOpen({ ...USUAL_HOURS, workingDays: [6] }, addDays(MONDAY, 5))).toBe(480);
  });
});

describe('a booking', () => {
  const booking = (over: Partial<Booking> = {}): Booking => ({
    bayId: 'bay 1',
    personId: 'someone',
    day: MONDAY,
    startMin: 540,
    minutes: 60,
    version: 1,
    ...over,
  });

  it.each([
    [{}, null],
    [{ day: addDays(MONDAY, -3) }, 'past'],
    [{ day: addDays(MONDAY, 5) }, 'closed_day'],
    [{ startMin: 450 }, 'outside_hours'],
    [{ startMin: 960 }, 'outside_hours'],
    [{ startMin: 930 }, null],
  ])('%j: %s', (over, fault) => {
    expect(bookingFault(booking(over), USUAL_HOURS, MONDAY)).toBe(fault);
  });
});
