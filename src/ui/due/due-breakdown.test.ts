import { describe, expect, it } from 'vitest';
import { lineText } from './due-breakdown';

describe('lineText', () => {
  it('says each line in the person’s units', () => {
    expect(lineText({ kind: 'driven-since', days: 10, kmPerDay: 62, km: 620 }, 'metric')).toEqual({
      words: 'and 10 days since, at 62 km a day',
      figure: '+ 620 km',
    });
    expect(lineText({ kind: 'now', km: 160_934.4 }, 'us').figure).toBe('100,000 mi');
    expect(lineText({ kind: 'limit', km: 45_000, fullKm: 60_000, share: 0.75 }, 'metric').words).toBe(
      'Limit: early, 75 % of 60,000 km',
    );
    expect(lineText({ kind: 'left', km: -500, days: -8, on: '2026-11-08' }, 'metric').words).toBe(
      'Left, 8 days over: 8 Nov 2026',
    );
    expect(lineText({ kind: 'left', km: -500, days: -8, on: '2026-11-08' }, 'metric').figure).toBe('− 500 km');
    expect(lineText({ kind: 'left', km: 500, days: null, on: null }, 'metric').words).toBe('Left');
    expect(lineText({ kind: 'due', on: '2027-06-04', by: 'time' }, 'metric')).toEqual({
      words: 'Due by time',
      figure: '4 Jun 2027',
      total: true,
    });
  });
});
