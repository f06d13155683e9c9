import { describe, expect, it } from 'vitest';
import { absenceWords } from './planning-words';

const away = { from: '2026-11-16', to: '2026-11-16', hours: null, rule: null, except: [] };

describe('absenceWords', () => {
  it.each([
    [{}, '16 Nov 2026'],
    [{ to: '2026-11-20' }, '16 Nov 2026 to 20 Nov 2026'],
    [{ hours: { fromMin: 480, toMin: 720 } }, '16 Nov 2026, 08:00 to 12:00'],
    [{ rule: 'FREQ=WEEKLY;BYDAY=MO,TU' }, 'every week on Mon Tue from 16 Nov 2026'],
    [
      { rule: 'FREQ=WEEKLY;INTERVAL=2;UNTIL=20270131', except: ['2026-12-25'] },
      'every 2 weeks until 31 Jan 2027 from 16 Nov 2026, not on 25 Dec 2026',
    ],
    [{ rule: 'FREQ=MONTHLY;BYSETPOS=1;BYDAY=MO' }, 'FREQ=MONTHLY;BYSETPOS=1;BYDAY=MO from 16 Nov 2026'],
  ])('%j: %s', (over, words) => {
    expect(absenceWords({ ...away, ...over })).toBe(words);
  });
});
