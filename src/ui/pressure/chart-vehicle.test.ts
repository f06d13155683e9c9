import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { moneyText } from '@/text/format';
import { type ChartVehicle, dueText, lifeText, vehicleWords, withHeat } from './chart-vehicle';

const van: ChartVehicle = {
  id: 'x',
  unit: '32',
  name: 'lifeboat-crew pickup',
  group: 'lifeboat-crew pickups',
  engine: 'PW-34M',
  component: 'plug',
  depot: 'Northhaven',
  life: 1.01,
  lifeIn28: 1.03,
  cost: 4200,
  pressure: 18.4,
  state: 'past',
  certainty: 'exact',
  binds: 'distance',
  p10: '2026-10-25',
  p50: '2026-10-26',
  p90: '2026-10-28',
  minutes: 210,
  orderId: null,
  orderNumber: null,
  retiresOn: null,
  heat: 4,
};

describe('a vehicle in words', () => {
  it('holds all that the chart shows of it', () => {
    expect(vehicleWords(van, 'EUR')).toBe(
      '32 lifeboat-crew pickup, PW-34M: 101 % used, €18 a week, €4,200 for a failure, past the limit, due 26 Oct 2026 (25 to 28 Oct)',
    );
  });

  it('does not pretend to know', () => {
    const assumed: ChartVehicle = { ...van, certainty: 'assumed', state: 'inspect', life: 3.4 };
    expect(dueText(assumed)).toBe('history assumed: look first');
    expect(lifeText(assumed)).toBe('–');
    expect(dueText({ ...van, p10: null, p50: null, p90: null })).toBe('nothing dates it');
    expect(dueText({ ...van, state: 'deferred', p50: '2027-01-15' })).toBe('deferred to 15 Jan 2027');
  });
});

describe('withHeat', () => {
  it('is hottest at the top and never grows hotter down the list', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 400 }), (n) => {
        const heats = withHeat(Array.from({ length: n }, (_, id) => ({ id }))).map((p) => p.heat);
        expect(heats).toEqual([...heats].sort((a, b) => b - a));
        expect(heats.every((heat) => Number.isInteger(heat) && heat >= 0 && heat <= 5)).toBe(true);
        if (n >= 25) expect([heats[0], heats.at(-1)]).toEqual([5, 0]);
      }),
    );
  });
});

describe('moneyText', () => {
  it.each([
    [0.03, 'EUR', '€0.03'],
    [4, 'EUR', '€4'],
    [18.4, 'EUR', '€18'],
    [4200, 'GBP', '£4,200'],
    [9.999, 'EUR', '€10'],
    [-2.5, 'EUR', '-€2.50'],
  ])('writes %d %s as %s', (amount, currency, text) => {
    expect(moneyText(amount, currency)).toBe(text);
  });
});
