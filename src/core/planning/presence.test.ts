import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addDays, WEEKDAYS } from '../calendar/plain-date';
import { type Absence, absencesFromCalendar, hoursAway, readRule, without } from './absence';
import { present, type WeekHours, weekFromText, weekOf, weekText } from './presence';

const MONDAY = '2026-11-16';
const days = Array.from({ length: 14 }, (_, i) => addDays(MONDAY, i));
const away = (over: Partial<Absence> = {}): Absence => ({
  from: MONDAY,
  to: MONDAY,
  hours: null,
  rule: null,
  except: [],
  ...over,
});
const daysOf = (absence: Absence) => [...new Set(hoursAway([absence], days).map(({ day }) => day))];

describe('an absence', () => {
  it('takes its days, or hours of them', () => {
    expect(daysOf(away({ to: addDays(MONDAY, 2) }))).toEqual(days.slice(0, 3));
    expect(hoursAway([away({ hours: { fromMin: 600, toMin: 720 } })], days)).toEqual([
      { day: MONDAY, fromMin: 600, toMin: 720 },
    ]);
    // It began before the days that are asked for.
    expect(daysOf(away({ from: '2026-11-10', to: MONDAY }))).toEqual([MONDAY]);
  });

  it('comes again by its rule, from years ago, but for the days on which it does not', () => {
    const weekdays = away({ from: '2021-01-04', to: '2021-01-04', rule: 'FREQ=WEEKLY;BYDAY=MO,TU,WE,TH,FR' });
    expect(daysOf(weekdays)).toEqual([...days.slice(0, 5), ...days.slice(7, 12)]);
    expect(daysOf({ ...weekdays, except: [MONDAY] })).toEqual([...days.slice(1, 5), ...days.slice(7, 12)]);
    expect(daysOf(away({ rule: 'FREQ=DAILY;COUNT=2' }))).toEqual(days.slice(0, 2));
    expect(daysOf(away({ from: '2026-10-19', to: '2026-10-20', rule: 'FREQ=WEEKLY;INTERVAL=4' }))).toEqual(
      days.slice(0, 2),
    );
    expect(daysOf(away({ rule: 'FREQ=MONTHLY;BYDAY=4TU' }))).toEqual(['2026-11-24']);
  });

  it.each(['', 'every Monday', 'FREQ=SECONDLY', 'FREQ=WEEKLY;BYDAY=XX', 'x'.repeat(400)])(
    'has no rule like %j',
    (text) => {
      expect(readRule(text, '2026-11-16')).toMatchObject({ ok: false });
    },
  );

  it('keeps a rule that it can follow', () => {
    expect(readRule(' RRULE:freq=weekly;byday=mo ', '2026-11-16')).toEqual({ ok: true, value: 'FREQ=WEEKLY;BYDAY=MO' });
  });
});

describe('a calendar file', () => {
  const ics = (...lines: string[]): string =>
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      'PRODID:demo',
      'BEGIN:VEVENT',
      'UID:1',
      ...lines,
      'END:VEVENT',
      'END:VCALENDAR',
      '',
    ].join('\r\n');
  const read = (text: string) => {
    const found = absencesFromCalendar(text, 'Europe/Helsinki');
    return found.ok ? found.value[0] : found.error;
  };

  it('gives whole days, whose end is the day after', () => {
    expect(read(ics('SUMMARY:Holiday', 'DTSTART;VALUE=DATE:20261116', 'DTEND;VALUE=DATE:20261119'))).toMatchObject({
      what: 'Holiday',
      from: '2026-11-16',
      to: '2026-11-18',
      hours: null,
    });
  });

  it('gives hours by the clock of the depot, and rules with what they leave out', () => {
    expect(
      read(
        ics(
          'DTSTART:20261116T060000Z',
          'DTEND:20261116T073000Z',
          'RRULE:FREQ=WEEKLY;BYDAY=MO',
          'EXDATE:20261123T060000Z',
        ),
      ),
    ).toMatchObject({
      from: '2026-11-16',
      hours: { fromMin: 480, toMin: 570 },
      rule: 'FREQ=WEEKLY;BYDAY=MO',
      except: ['2026-11-23'],
    });
    expect(read(ics('DTSTART:20261116T080000', 'DTEND:20261117T000000'))).toMatchObject({
      to: '2026-11-16',
      hours: { fromMin: 480, toMin: 1440 },
    });
  });

  it('that is none is told so', () => {
    expect(read('hello')).toContain('no calendar');
    expect(read('BEGIN:VCARD\r\nVERSION:4.0\r\nEND:VCARD')).toContain('no calendar');
  });
});

const anyHours = fc
  .tuple(fc.integer({ min: 0, max: 22 }), fc.integer({ min: 1, max: 12 }))
  .map(([from, length]) => ({ fromMin: from * 60, toMin: Math.min(1440, (from + length) * 60) }));
const anyWeek: fc.Arbitrary<WeekHours> = fc
  .array(fc.option(anyHours), { minLength: 7, maxLength: 7 })
  .map((list) => Object.fromEntries(list.flatMap((hours, i) => (hours ? [[WEEKDAYS[i], hours]] : []))));

describe('a week', () => {
  it('is written and read again', () => {
    fc.assert(
      fc.property(anyWeek, (week) => {
        expect(weekFromText(weekText(week))).toEqual(week);
      }),
    );
    expect(
      weekText({ 1: { fromMin: 480, toMin: 960 }, 2: { fromMin: 480, toMin: 960 }, 5: { fromMin: 480, toMin: 720 } }),
    ).toBe('Mon Tue 08:00-16:00, Fri 08:00-12:00');
    for (const wrong of [
      'Mon',
      '08:00-16:00',
      'Mon 16:00-08:00',
      'Someday 08:00-16:00',
      'Mon 08:00-16:00, Mon 09:00-10:00',
    ])
      expect(weekFromText(wrong)).toBeNull();
  });

  it('less absences never has more, and none of what was taken', () => {
    const absence = fc
      .tuple(fc.nat(13), fc.option(anyHours))
      .map(([i, hours]) => away({ from: days[i] ?? MONDAY, to: days[i] ?? MONDAY, hours }));
    fc.assert(
      fc.property(anyWeek, fc.array(absence, { maxLength: 5 }), (week, absences) => {
        const all = present(week, [], days);
        const left = present(week, absences, days);
        const taken = hoursAway(absences, days);
        const sum = (list: typeof all): number =>
          list.reduce((total, { fromMin, toMin }) => total + toMin - fromMin, 0);
        expect(sum(left)).toBeLessThanOrEqual(sum(all));
        for (const one of left) {
          expect(one.fromMin).toBeLessThan(one.toMin);
          for (const out of taken)
            if (out.day === one.day) expect(out.toMin <= one.fromMin || one.toMin <= out.fromMin).toBe(true);
        }
        expect(without(left, taken)).toEqual(left);
      }),
    );
  });

  it('is that of the depot where nobody says otherwise', () => {
    expect(present(weekOf({ workingDays: [1], fromMin: 480, toMin: 960 }), [], days)).toEqual([
      { day: MONDAY, fromMin: 480, toMin: 960 },
      { day: addDays(MONDAY, 7), fromMin: 480, toMin: 960 },
    ]);
  });
});
