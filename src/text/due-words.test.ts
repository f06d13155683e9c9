import { describe, expect, it } from 'vitest';
import { steadyRate } from '../core/odometer/use-rate.fixture';
import { bindingText, sureText } from './due-words';

const own = steadyRate({ kmPerDay: 62.4 });

describe('due words', () => {
  it('name the limit that binds, in the person’s units', () => {
    expect(bindingText({ binds: 'distance', limitKm: 96_000, limitMonths: 72 }, 'metric')).toBe('96,000 km');
    expect(bindingText({ binds: 'distance', limitKm: 160_934.4, limitMonths: 72 }, 'us')).toBe('100,000 mi');
    expect(bindingText({ binds: 'time', limitKm: 96_000, limitMonths: 72 }, 'metric')).toBe('72 months');
    expect(bindingText({ binds: null, limitKm: null, limitMonths: null }, 'metric')).toBe('–');
    const early = { binds: 'distance', limitKm: 96_000, limitMonths: 72, limitShare: 0.75 } as const;
    expect(bindingText(early, 'metric')).toBe('72,000 km (early, 75 %)');
    expect(bindingText({ ...early, binds: 'time' }, 'metric')).toBe('54 months (early, 75 %)');
  });

  it('say how sure a date is: own or borrowed rate, and what the history rests on', () => {
    expect(sureText({ rate: own, certainty: 'exact' }, 'metric')).toBe('62 km a day, 12 readings');
    expect(sureText({ rate: { ...own, borrowed: true }, certainty: 'assumed' }, 'metric')).toBe(
      '62 km a day, borrowed from its group; history assumed from new',
    );
    expect(sureText({ rate: null, certainty: 'estimated' }, 'metric')).toBe('no use rate; history estimated');
  });
});
