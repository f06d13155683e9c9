import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  dateText,
  distanceText,
  gapText,
  hoursText,
  moneyText,
  NONE,
  percentText,
  rangeTexts,
  rateText,
  spanText,
  torqueText,
  turnText,
  wearText,
  weekdayText,
} from './format';

describe('format', () => {
  it('shows both units where a wrong one could break something, the person’s first', () => {
    expect(gapText(1.04, 'metric')).toBe('1.04 mm · 0.041 in');
    expect(gapText(1.04, 'us')).toBe('0.041 in · 1.04 mm');
    expect(torqueText(17.5, 'metric')).toBe('17.5 N·m · 12.9 lbf·ft');
    expect(rangeTexts(1, 1.1, 'metric', 'gap')).toEqual(['1.00 to 1.10 mm', '0.039 to 0.043 in']);
  });

  it('groups distances and keeps unknown apart from zero', () => {
    expect(distanceText(104_000, 'metric')).toBe('104,000 km');
    expect(distanceText(160_934.4, 'us')).toBe('100,000 mi');
    expect(distanceText(0, 'metric')).toBe('0 km');
    expect(gapText(null, 'metric')).toBe(NONE);
  });

  it('tells a span as short as it can be told', () => {
    expect(spanText('2026-04-07', '2026-04-10')).toBe('7 to 10 Apr');
    expect(spanText('2026-11-28', '2026-12-03')).toBe('28 Nov to 3 Dec');
    expect(spanText('2026-12-28', '2027-01-03')).toBe('28 Dec 2026 to 3 Jan 2027');
  });

  it('writes days that cannot be misread, and hours', () => {
    expect(dateText('2026-04-03')).toBe('3 Apr 2026');
    expect(weekdayText('2026-11-18', '2026-11-16')).toBe('Wed 18');
    expect([hoursText(210), hoursText(45), hoursText(120)]).toEqual(['3.5 h', '45 min', '2 h']);
  });

  it('writes rates, shares, turns and money', () => {
    expect(rateText(53, 'metric')).toBe('53 km a day');
    expect(rateText(160.9344, 'us')).toBe('100 mi a day');
    expect(percentText(1.011)).toBe('101 %');
    expect([turnText({ min: 180, max: 240 }), turnText({ min: 90, max: 90 })]).toEqual(['180° to 240°', '90°']);
    expect([moneyText(0.74, 'EUR'), moneyText(68.4, 'EUR'), moneyText(3, 'EUR')]).toEqual(['€0.74', '€68', '€3']);
    expect(moneyText(9.996, 'EUR')).toBe('€10');
  });

  it('tells wear in the person’s units, the same wear in both', () => {
    expect(wearText(5, 'metric')).toBe('5.0 µm per 1,000 km');
    // 5 µm over 1,000 km are 8.05 µm over 1,000 mi; a thou is 25.4 µm.
    expect(wearText(5, 'us')).toBe('0.32 thou per 1,000 mi');
  });

  it('says the same figures to people of either units, in the other order', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 60, noNaN: true }), (si) => {
        for (const text of [gapText, torqueText])
          expect(text(si, 'us').split(' · ')).toEqual(text(si, 'metric').split(' · ').reverse());
      }),
    );
  });

  it('writes a range of one figure as that figure, and never the greater end first', () => {
    const figure = (text: string | undefined): number => Number(text?.replace(/[^0-9.]/g, ''));
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 60, noNaN: true }),
        fc.double({ min: 0, max: 5, noNaN: true }),
        fc.constantFrom('gap' as const, 'torque' as const),
        (min, width, kind) => {
          for (const text of rangeTexts(min, min + width, 'metric', kind)) {
            const [a, b] = text.split(' to ');
            if (b !== undefined) expect(figure(a)).toBeLessThan(figure(b));
          }
          for (const text of rangeTexts(min, min, 'us', kind)) expect(text).not.toContain(' to ');
        },
      ),
    );
  });
});
