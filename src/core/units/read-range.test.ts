import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readQuantity } from './read-quantity';
import { keepsRange, readRange, writtenAs } from './read-range';
import { fromSi, toSi, UNITS, type UnitName } from './unit';

const gap = (text: string) => readRange({ kind: 'gap', text, personUnit: 'mm' });

describe('readRange', () => {
  it.each([
    ['7 to 10 kΩ', 7_000, 10_000],
    ['8-12kohm', 8_000, 12_000],
    ['0.6 to 0.8 Ω', 0.6, 0.8],
    ['900 Ω to 5 kΩ', 900, 5_000],
  ])('takes the unit at the end of %j for both ends', (text, min, max) => {
    const read = readRange({ kind: 'resistance', text, personUnit: 'Ω' });
    expect(read.ok && [read.minSi, read.maxSi]).toEqual([min, max]);
  });

  it.each([
    ['1.0 to 1.1 mm', 1.0, 1.1, null],
    ['1,0-1,1', 1.0, 1.1, null],
    ['.028–.031 in', 0.7112, 0.7874, null],
    ['30 thou to 35 thou', 0.762, 0.889, null],
    ['0.9 mm to 1.0 mm', 0.9, 1.0, null],
    ['1.05 ± 0.05 mm', 1.0, 1.1, 1.05],
    ['1.05 mm +/- 0.05', 1.0, 1.1, 1.05],
    ['0.030 ±0.002 in', 0.7112, 0.8128, 0.762],
    ['1.1 mm ± 0.002 in', 1.0492, 1.1508, 1.1],
    ['1.1 mm ± 5 %', 1.045, 1.155, 1.1],
  ])('%j', (text, min, max, target) => {
    const read = gap(text);
    expect(read.ok && [read.minSi, read.maxSi, read.targetSi]).toEqual([
      expect.closeTo(min, 6),
      expect.closeTo(max, 6),
      target === null ? null : expect.closeTo(target, 6),
    ]);
  });

  it.each([
    ['1.05', 'is no range'],
    ['', 'is no range'],
    ['1.1 to 1.0 mm', 'upside down'],
    ['0.30 to 0.35 in', 'outside the plausible'],
    ['1.05 ± 2 mm', 'no tolerance'],
    ['a to b', 'is no range'],
    ['1.0 to 1.1 Nm', 'not a unit of gap'],
  ])('%j is explained: %s', (text, words) => {
    const read = gap(text);
    expect(read.ok ? '' : read.message).toContain(words);
  });

  it('reads torque in any of its units', () => {
    expect(readRange({ kind: 'torque', text: '13-17 ft-lb', personUnit: 'N·m' })).toMatchObject({
      ok: true,
      unit: 'lbf·ft',
    });
  });

  it.each([
    ['25 Nm ±5 %', 23.75, 26.25, 25, null],
    ['28 Nm ± 2 lb-ft', 25.2884, 30.7116, 28, null],
    ['28 N⋅m', 25.2, 30.8, 28, 0.1],
  ])('reads %j, and says what tolerance it assumed', (text, min, max, target, assumedShare) => {
    expect(readRange({ kind: 'torque', text, personUnit: 'N·m' })).toEqual({
      ok: true,
      minSi: expect.closeTo(min, 3),
      maxSi: expect.closeTo(max, 3),
      targetSi: target,
      unit: 'N·m',
      assumedShare,
    });
  });

  it('reads a range of thousands', () => {
    expect(readRange({ kind: 'distance', text: '60k-70k mi' })).toMatchObject({
      ok: true,
      minSi: expect.closeTo(96560.64, 2),
      maxSi: expect.closeTo(112654.08, 2),
    });
  });

  it('never throws and never gives a range upside down', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), (text) => {
        const read = gap(text);
        if (read.ok) expect(read.minSi).toBeLessThanOrEqual(read.maxSi);
      }),
    );
  });
});

describe('the precision of a spec as written', () => {
  it.each([
    ['0.045 in to 0.049 in', 'in', 3],
    ['1.00 mm to 1.10 mm', 'mm', 2],
    ['30 thou to 35 thou', 'thou', 0],
    ['1.05 ± 0.05 mm', 'mm', 2],
    ['13 ft-lb to 17 ft-lb', 'lbf·ft', 0],
    ['1,0 to 1,1 mm', 'mm', 1],
  ])('%j is in %s to %i decimals', (text, unit, decimals) => {
    expect(writtenAs(text)).toEqual({ unit, decimals });
  });

  it('passes 1.25 mm under a maximum of 0.049 in, and not 1.26', () => {
    const range = { min: 0.045 * 25.4, max: 0.049 * 25.4 };
    const written = writtenAs('0.045 in to 0.049 in');
    expect(keepsRange(1.25, range, written)).toBe(true);
    expect(keepsRange(1.26, range, written)).toBe(false);
    expect(keepsRange(1.25, range, null)).toBe(false);
    expect(writtenAs('about one')).toBeNull();
  });

  it('never refuses what lies within the range itself', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 40, max: 199 }),
        fc.integer({ min: 0, max: 20 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (low, width, share) => {
          const range = { min: low / 100, max: (low + width) / 100 };
          const inside = range.min + share * (range.max - range.min);
          for (const text of ['0.03 in', '1.00 mm', '30 thou'])
            expect(keepsRange(inside, range, writtenAs(text))).toBe(true);
        },
      ),
    );
  });
});

describe('converting there and back', () => {
  const shownIn: readonly (readonly [UnitName, UnitName, number])[] = [
    ['mm', 'in', 4],
    ['in', 'mm', 3],
    ['N·m', 'lbf·ft', 2],
    ['lbf·ft', 'N·m', 2],
    ['lbf·in', 'N·m', 2],
    ['km', 'mi', 1],
    ['mi', 'km', 1],
  ];
  it.each(shownIn)('%s by %s is exact to the last shown digit', (from, to) => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 500_000 }), (n) => {
        const { decimals } = UNITS[from];
        const value = n / 10 ** decimals;
        const there = fromSi(toSi(value, from), to);
        expect(fromSi(toSi(there, to), from).toFixed(decimals)).toBe(value.toFixed(decimals));
      }),
    );
  });

  it('through what is shown in the other unit comes back to the same typed gap', () => {
    fc.assert(
      fc.property(fc.integer({ min: 41, max: 199 }), (hundredths) => {
        const typed = (hundredths / 100).toFixed(2);
        const inches = fromSi(Number(typed), 'in').toFixed(4);
        const back = readQuantity({ kind: 'gap', text: `${inches} in` });
        expect(back.verdict === 'ok' && back.valueSi.toFixed(2)).toBe(typed);
      }),
    );
  });

  it('does not lose the state of the threads in a torque', () => {
    expect(readRange({ kind: 'torque', text: '28 Nm (oiled)' })).toMatchObject({
      ok: false,
      message: expect.stringContaining('state of the threads'),
    });
  });
});
