import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, addMonths, dayNumber, daysBetween, fromDayNumber, isPlainDate, mondayOf } from './plain-date';
import { orderOf, readDate } from './read-date';

const day = fc.integer({ min: -20_000, max: 60_000 }).map(fromDayNumber);

describe('plain dates', () => {
  it('knows real days from impossible ones', () => {
    expect(isPlainDate('2028-02-29')).toBe(true);
    for (const bad of ['2026-02-29', '2026-13-01', '2026-1-1', '0000-00-00', 'today'])
      expect(isPlainDate(bad)).toBe(false);
  });

  it('adds and counts days consistently', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: -9999, max: 9999 }), (d, n) => {
        expect(daysBetween(d, addDays(d, n))).toBe(n);
      }),
    );
  });

  it('agrees with the platform’s own calendar, there and back', () => {
    fc.assert(
      fc.property(fc.integer({ min: -25_000, max: 80_000 }), (n) => {
        const platform = new Date(n * 86_400_000).toISOString().slice(0, 10);
        expect(fromDayNumber(n)).toBe(platform);
        expect(dayNumber(platform)).toBe(n);
      }),
    );
    expect(() => dayNumber('')).toThrow(RangeError);
  });

  it('clamps months to the last day', () => {
    expect(addMonths('2026-01-31', 1)).toBe('2026-02-28');
    expect(addMonths('2026-11-30', 15)).toBe('2028-02-29');
    expect(addMonths('2026-03-31', -1)).toBe('2026-02-28');
  });

  it('finds the Monday at or before any day', () => {
    fc.assert(
      fc.property(day, (d) => {
        const monday = mondayOf(d);
        expect(new Date(`${monday}T00:00:00Z`).getUTCDay()).toBe(1);
        expect(dayNumber(d) - dayNumber(monday)).toBeLessThan(7);
        expect(monday <= d).toBe(true);
      }),
    );
  });
});

describe('readDate', () => {
  it.each([
    ['2026-04-18', '2026-04-18'],
    ['18/04/2026', '2026-04-18'],
    ['4/18/2026', '2026-04-18'],
    ['18.4.26', '2026-04-18'],
    ['18 Apr 2026', '2026-04-18'],
    ['2026-04-18T07:30:00Z', '2026-04-18'],
    ['04/04/2026', '2026-04-04'],
  ])('reads %s', (text, date) => {
    expect(readDate(text)).toEqual({ kind: 'exact', date });
  });

  it('asks when day and month can be swapped, and takes the answer', () => {
    expect(readDate('03/04/2026').kind).toBe('undecided');
    expect(readDate('03/04/2026', 'day-first')).toEqual({ kind: 'exact', date: '2026-04-03' });
    expect(readDate('03/04/2026', 'month-first')).toEqual({ kind: 'exact', date: '2026-03-04' });
  });

  it('keeps an estimate and an unknown apart from a day', () => {
    expect(readDate('about 2019')).toEqual({ kind: 'estimated', date: '2019-07-01' });
    expect(readDate('2019-06')).toEqual({ kind: 'estimated', date: '2019-06-15' });
    expect(readDate('unknown')).toEqual({ kind: 'unknown' });
    expect(readDate('  ')).toEqual({ kind: 'unknown' });
  });

  it.each(['31/02/2026', '2026-02-30', '13/13/2026', 'soon', '18 Foo 2026', '9999-01-01', '=NOW()'])(
    'refuses %s',
    (text) => {
      expect(readDate(text, 'day-first').kind).toBe('impossible');
    },
  );

  it('decides the order of a file from its days', () => {
    expect(orderOf(['03/04/2026', '13/04/2026'])).toBe('day-first');
    expect(orderOf(['03/04/2026', '04/13/2026'])).toBe('month-first');
    expect(orderOf(['13/04/2026', '04/13/2026'])).toBe('mixed');
    expect(orderOf(['03/04/2026', '2026-04-18'])).toBeNull();
  });
});
