import fc from 'fast-check';
import ICAL from 'ical.js';
import { describe, expect, it } from 'vitest';
import { addDays } from '../calendar/plain-date';
import { type Absence, absenceFault, hoursAway, readRule } from './absence';
import { daysOf, readRecurrence } from './recurrence';
import { weeklyRule } from './weekly-rule';

const FROM = '2026-11-16';
const fault = (rule: string, from = FROM): string => {
  const read = readRule(rule, from);
  return read.ok ? '' : read.error;
};

const list = <T>(values: readonly T[]) => fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: 3 });
const part = fc.oneof(
  list([1, 2, 6, 12]).map((months) => `;BYMONTH=${months}`),
  list([1, 15, 29, 30, 31, -1]).map((days) => `;BYMONTHDAY=${days}`),
  list(['MO', 'TU', '1MO', '5FR', '-1SU', '6MO']).map((days) => `;BYDAY=${days}`),
  list([1, 60, 366, -1]).map((days) => `;BYYEARDAY=${days}`),
  fc.integer({ min: 1, max: 400 }).map((n) => `;INTERVAL=${n}`),
  fc.constantFrom(1, -1, 2, 5).map((n) => `;BYSETPOS=${n}`),
);
const anyRule = fc
  .tuple(
    fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'),
    fc.uniqueArray(part, { maxLength: 3, selector: (p) => p.slice(0, 7) }),
  )
  .map(([freq, parts]) => `FREQ=${freq}${parts.join('')}`);

describe('a calendar rule that would be followed for ever', () => {
  it.each([
    ['FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30', 'never comes'],
    ['FREQ=WEEKLY;BYMONTH=2;BYMONTHDAY=30', 'BYMONTHDAY'],
    ['FREQ=YEARLY;BYWEEKNO=54', 'BYWEEKNO'],
    ['FREQ=DAILY;INTERVAL=999999999', 'INTERVAL'],
    ['FREQ=YEARLY;BYYEARDAY=366;BYMONTH=6', 'never comes'],
    ['FREQ=DAILY;BYSECOND=0,1,2;BYMINUTE=0,1,2,3,4,5', 'BYSECOND'],
    ['FREQ=MONTHLY;BYDAY=6MO', 'BYDAY=6MO'],
    ['FREQ=DAILY;INTERVAL=7;BYDAY=TU', 'never comes'],
    ['FREQ=MONTHLY;BYMONTHDAY=1;BYSETPOS=2', 'never comes'],
  ])('%s is refused in words', (rule, words) => {
    expect(fault(rule)).toContain(words);
  });

  it.each([
    'FREQ=WEEKLY;BYDAY=MO,TU,WE',
    'FREQ=DAILY;INTERVAL=7;BYDAY=MO',
    'FREQ=MONTHLY;BYDAY=-1FR',
    'FREQ=MONTHLY;BYDAY=5MO',
    'FREQ=YEARLY;BYMONTH=2;BYMONTHDAY=29',
    'FREQ=YEARLY;BYYEARDAY=366',
    'FREQ=MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1',
    'FREQ=WEEKLY;INTERVAL=2;BYDAY=MO;COUNT=10',
  ])('%s is taken', (rule) => {
    expect(fault(rule)).toBe('');
  });

  it('that was kept before holds once, and nobody waits for it', () => {
    const kept: Absence = { from: FROM, to: FROM, hours: null, rule: 'FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30', except: [] };
    expect(absenceFault(kept)).toContain('never comes');
    expect(hoursAway([kept], [FROM, '2026-11-17'])).toEqual([{ day: FROM, fromMin: 0, toMin: 1440 }]);
  });

  it('is never taken: whatever is taken comes within eight years', () => {
    fc.assert(
      fc.property(anyRule, (text) => {
        const read = readRecurrence(text, FROM);
        fc.pre(read.ok);
        if (read.ok) expect(daysOf(read.value, FROM, FROM, '2034-12-31', 1)).toHaveLength(1);
      }),
    );
  });
});

/** Rules as people write them: those on which a library may be asked, as it finds a next time soon. */
const usualRule = fc
  .record({
    freq: fc.constantFrom(
      'DAILY',
      'WEEKLY;BYDAY=MO',
      'WEEKLY;BYDAY=TU,FR',
      'WEEKLY',
      'MONTHLY',
      'MONTHLY;BYDAY=1MO',
      'MONTHLY;BYDAY=-1FR',
      'MONTHLY;BYMONTHDAY=15,-1',
      'MONTHLY;BYDAY=MO,TU,WE,TH,FR;BYSETPOS=-1',
      'YEARLY',
      'YEARLY;BYMONTH=3;BYDAY=2SU',
      'YEARLY;BYYEARDAY=100',
      'DAILY;BYMONTH=12',
      'DAILY;BYDAY=MO,WE',
    ),
    interval: fc.constantFrom('', ';INTERVAL=1', ';INTERVAL=2', ';INTERVAL=3'),
    end: fc.constantFrom('', ';COUNT=5', ';UNTIL=20280301', ';WKST=SU'),
  })
  .map(({ freq, interval, end }) => `FREQ=${freq}${interval}${end}`);

describe('the days of a rule', () => {
  it('are those that a calendar library finds, one next time after the other', () => {
    const begin = fc.constantFrom('2026-11-16', '2026-12-07', '2027-02-28', '2028-01-01');
    fc.assert(
      fc.property(usualRule, begin, (text, from) => {
        const read = readRecurrence(text, from);
        // Where the rule does not fall on its first day libraries differ.
        fc.pre(read.ok && daysOf(read.value, from, from, from).length === 1);
        const times = ICAL.Recur.fromString(text).iterator(ICAL.Time.fromDateString(from));
        const expected: string[] = [];
        for (let next = times.next(); next && expected.length < 12; next = times.next())
          expected.push(next.toString().slice(0, 10));
        const last = expected.at(-1) ?? from;
        if (read.ok) expect(daysOf(read.value, from, from, last)).toEqual(expected);
      }),
      { numRuns: 300 },
    );
  });

  it('are the same whichever days are asked for', () => {
    fc.assert(
      fc.property(anyRule, fc.nat(400), fc.nat(60), (text, after, length) => {
        const read = readRecurrence(text, FROM);
        fc.pre(read.ok);
        if (!read.ok) return;
        const [first, last] = [addDays(FROM, after), addDays(FROM, after + length)];
        const all = daysOf(read.value, FROM, FROM, last).filter((day) => day >= first);
        expect(daysOf(read.value, FROM, first, last)).toEqual(all);
      }),
    );
  });
});

describe('a rule as a person ticks it', () => {
  it('falls on the days that are ticked, up to the last day and on it, and nowhere else', () => {
    const DAYS = ['MO', 'TU', 'WE', 'TH', 'FR', 'SA', 'SU'];
    fc.assert(
      fc.property(fc.subarray(DAYS, { minLength: 1 }), fc.integer({ min: 0, max: 60 }), (ticked, length) => {
        const [from, until] = ['2026-11-16', addDays('2026-11-16', length)];
        const read = readRecurrence(weeklyRule(ticked, until), from);
        const expected = Array.from({ length: 90 }, (_, i) => addDays(from, i)).filter(
          (day, i) => day <= until && ticked.includes(DAYS[i % 7] ?? ''),
        );
        // A rule that never comes is refused when it is entered.
        expect(read.ok ? daysOf(read.value, from, from, addDays(from, 89)) : []).toEqual(expected);
      }),
    );
  });

  it('is none where nothing is ticked', () => {
    expect(weeklyRule([], '2027-01-01')).toBe('');
  });
});
