import { describe, expect, it } from 'vitest';
import {
  dateText,
  distanceText,
  gapText,
  hoursText,
  NONE,
  rangeTexts,
  spanText,
  torqueText,
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
});
