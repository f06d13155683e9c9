import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Absence, absenceFault, hoursAway, readRule } from './absence';

const FROM = '2026-11-16';
const fault = (rule: string, from = FROM): string => {
  const read = readRule(rule, from);
  return read.ok ? '' : read.error;
};

describe('a calendar rule that would be followed for ever', () => {
  it.each([
    ['FREQ=DAILY;BYMONTH=2;BYMONTHDAY=30', 'never comes'],
    ['FREQ=WEEKLY;BYMONTH=2;BYMONTHDAY=30', 'never comes'],
    ['FREQ=DAILY;INTERVAL=999999999', 'INTERVAL'],
    ['FREQ=YEARLY;BYYEARDAY=366;BYMONTH=6', 'never comes'],
    ['FREQ=DAILY;BYSECOND=0,1,2;BYMINUTE=0,1,2,3,4,5', 'finer than a day'],
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

  it('is never taken: whatever is taken is followed to the end of any week', () => {
    const list = <T>(values: readonly T[]) =>
      fc.uniqueArray(fc.constantFrom(...values), { minLength: 1, maxLength: 3 });
    const part = fc.oneof(
      list([1, 2, 6, 12]).map((months) => `;BYMONTH=${months}`),
      list([1, 15, 29, 30, 31, -1]).map((days) => `;BYMONTHDAY=${days}`),
      list(['MO', 'TU', '1MO', '5FR', '-1SU', '6MO']).map((days) => `;BYDAY=${days}`),
      list([1, 60, 366, -1]).map((days) => `;BYYEARDAY=${days}`),
      fc.integer({ min: 1, max: 400 }).map((n) => `;INTERVAL=${n}`),
      fc.constantFrom(1, -1, 2, 5).map((n) => `;BYSETPOS=${n}`),
    );
    const rule = fc
      .tuple(
        fc.constantFrom('DAILY', 'WEEKLY', 'MONTHLY', 'YEARLY'),
        fc.uniqueArray(part, { maxLength: 3, selector: (p) => p.slice(0, 7) }),
      )
      .map(([freq, parts]) => `FREQ=${freq}${parts.join('')}`);
    fc.assert(
      fc.property(rule, (text) => {
        const read = readRule(text, FROM);
        fc.pre(read.ok);
        const absence: Absence = { from: FROM, to: FROM, hours: null, rule: read.ok ? read.value : null, except: [] };
        expect(hoursAway([absence], ['2026-11-16', '2026-11-17', '2027-03-01']).length).toBeLessThanOrEqual(3);
      }),
      { numRuns: 300 },
    );
  });
});
