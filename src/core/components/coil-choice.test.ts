import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type CoilChoice, chooseCoils } from './coil-choice';

const rear: CoilChoice = {
  others: 5,
  price: 40,
  labourPerHour: 80,
  accessHours: 2,
  downtimePerVisit: 200,
  chanceEach: 0.05,
};
const amount = fc.double({ min: 0, max: 5000, noNaN: true });
const anyChoice: fc.Arbitrary<CoilChoice> = fc.record({
  others: fc.integer({ min: 0, max: 15 }),
  price: amount,
  labourPerHour: amount,
  accessHours: fc.double({ min: 0, max: 20, noNaN: true }),
  downtimePerVisit: amount,
  chanceEach: fc.double({ min: 0, max: 1, noNaN: true }),
});

describe('one coil or all', () => {
  it('weighs one more visit against the price of those that still work', () => {
    expect(chooseCoils(rear)).toEqual({
      extraVisit: 400,
      expectedIfOne: 100,
      replaceOthersNow: 200,
      breakEvenChance: 0.1,
      advice: 'one',
    });
    expect(chooseCoils({ ...rear, chanceEach: 0.11 }).advice).toBe('all');
  });

  it('leaves them in at a tie, and where there are no others', () => {
    expect(chooseCoils({ ...rear, chanceEach: 0.1 }).advice).toBe('one');
    expect(chooseCoils({ ...rear, others: 0, chanceEach: 1 })).toMatchObject({ expectedIfOne: 0, advice: 'one' });
  });

  it('turns at the break-even chance, and never back as the chance grows or the access gets worse', () => {
    fc.assert(
      fc.property(anyChoice, fc.double({ min: 0.001, max: 1, noNaN: true }), (choice, more) => {
        const { breakEvenChance, advice, extraVisit } = chooseCoils(choice);
        fc.pre(extraVisit > 0.01 && choice.others > 0 && Math.abs(choice.chanceEach - breakEvenChance) > 1e-9);
        expect(advice).toBe(choice.chanceEach > breakEvenChance ? 'all' : 'one');
        const likelier = { ...choice, chanceEach: Math.min(1, choice.chanceEach + more) };
        const farther = { ...choice, accessHours: choice.accessHours + more };
        if (advice === 'all') {
          expect(chooseCoils(likelier).advice).toBe('all');
          expect(chooseCoils(farther).advice).toBe('all');
        }
      }),
    );
  });

  it('refuses what cannot be', () => {
    expect(() => chooseCoils({ ...rear, price: -1 })).toThrow(RangeError);
    expect(() => chooseCoils({ ...rear, chanceEach: 1.2 })).toThrow(RangeError);
    expect(() => chooseCoils({ ...rear, accessHours: Number.NaN })).toThrow(RangeError);
  });
});
