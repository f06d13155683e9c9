import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readNumber } from './read-number';
import { PLAUSIBLE_BREAKAWAY, readQuantity } from './read-quantity';
import { fromSi, QUANTITY_KINDS, toSi, UNIT_NAMES, type UnitName, unitFromText, unitsOf } from './unit';

const value = (kind: 'gap' | 'torque' | 'distance', text: string, personUnit?: UnitName) => {
  const reading = readQuantity({ kind, text, personUnit });
  if (reading.verdict !== 'ok') throw new Error(`${text}: ${reading.verdict} ${reading.message}`);
  return reading.valueSi;
};

describe('units', () => {
  it('converts by the exact factors', () => {
    expect(toSi(1, 'in')).toBe(25.4);
    expect(toSi(1, 'mi')).toBe(1.609344);
    expect(toSi(1, 'lbf·ft')).toBe(1.3558179483);
    expect(toSi(12, 'lbf·in')).toBeCloseTo(toSi(1, 'lbf·ft'), 8);
  });

  it('gives the same figure there and back', () => {
    fc.assert(
      fc.property(fc.constantFrom(...UNIT_NAMES), fc.double({ min: 0, max: 1e6, noNaN: true }), (unit, x) => {
        expect(fromSi(toSi(x, unit), unit)).toBeCloseTo(x, 6);
      }),
    );
  });

  it.each([
    ['ft-lb', 'lbf·ft'],
    ['lb ft', 'lbf·ft'],
    ['lbf·ft', 'lbf·ft'],
    ['ft lbs', 'lbf·ft'],
    ['in-lb', 'lbf·in'],
    ['lb.in', 'lbf·in'],
    ['Nm', 'N·m'],
    ['N m', 'N·m'],
    ['"', 'in'],
    ['Thou', 'thou'],
    ['Miles', 'mi'],
  ])('knows %s as %s', (text, name) => {
    expect(unitFromText(text)?.name).toBe(name);
  });

  it('knows no unit it was not taught', () => {
    expect(unitFromText('furlong')).toBeNull();
  });
});

describe('readNumber', () => {
  it.each([
    ['0.8', [0.8]],
    ['0,8', [0.8]],
    ['.030', [0.03]],
    ['104 000', [104000]],
    ['104,000', [104000, 104]],
    ['104.000', [104, 104000]],
    ['1.234.567', [1234567]],
    ['1,234.5', [1234.5]],
    ['1.234,5', [1234.5]],
    ['104k', [104000]],
    ["104'000", [104000]],
    ['0.030', [0.03]],
  ])('reads %s as %j', (text, expected) => {
    expect(readNumber(text)).toEqual(expected);
  });

  it.each(['', '-3', '1,23,4', 'abc', '1..2', '12,34.5', '=1+1', '1e999', 'e9'])('refuses %j', (text) => {
    expect(readNumber(text)).toEqual([]);
  });
});

describe('readQuantity', () => {
  it.each([
    ['gap', '0.8', 0.8],
    ['gap', '0,8 mm', 0.8],
    ['gap', '.030"', 0.762],
    ['gap', '30 thou', 0.762],
    ['gap', '0.030 in', 0.762],
    ['torque', '17 ft-lb', 23.0489],
    ['torque', '17 lb ft', 23.0489],
    ['torque', '17 lbf·ft', 23.0489],
    ['torque', '150 in-lb', 16.9477],
    ['torque', '23 Nm', 23],
    ['distance', '104 000 km', 104000],
    ['distance', '104,000 mi', 167371.776],
    ['distance', '104k km', 104000],
    ['distance', '104,000', 104000],
    ['gap', '1,250 mm', 1.25],
    ['torque', '28 N⋅m', 28],
    ['torque', '28 N•m', 28],
    ['torque', '28 N·m', 28],
    ['torque', '20 ft•lb', 27.1164],
    ['torque', '20 ft‑lb', 27.1164],
    ['torque', '20 ft–lb', 27.1164],
    ['torque', '20 ft/lbs', 27.1164],
    ['torque', '180 in/lb', 20.3373],
    ['torque', '20½ ft-lb', 27.7943],
    ['torque', '2.5 kgf·m', 24.5166],
    ['torque', '250 kgf·cm', 24.5166],
    ['torque', '2500 N·cm', 25],
    ['torque', '2.5 daN·m', 25],
    ['torque', '+28 Nm', 28],
    ['torque', '28 Nm (21 lb-ft)', 28],
    ['torque', '２８ Nm', 28],
    ['gap', '3/64"', 1.190625],
    ['gap', '44 thousandths', 1.1176],
    ['gap', '0.8 mm (0.031 in)', 0.8],
    ['gap', '800 µm', 0.8],
    ['gap', '0.08 cm', 0.8],
    ['gap', '~0.8', 0.8],
    ['gap', '8e-1', 0.8],
    ['gap', '０．８ mm', 0.8],
    ['gap', '0·8 mm', 0.8],
    ['gap', '0. 8 mm', 0.8],
    ['gap', '0, 80 mm', 0.8],
    ['gap', '.031 ins', 0.7874],
    ['gap', 'plug gap: 0.8', 0.8],
    ['gap', '0.8 mm (.031)', 0.8],
    ['gap', '1 1/10 mm', 1.1],
    ['gap', '3 / 64 of an inch', 1.190625],
    ['torque', '28 Nm (dry)', 28],
    ['torque', 'oiled: 20 Nm', 20],
    ['torque', '28 Nm, threads clean and dry', 28],
    ['torque', '28 Nm / 21 lb-ft', 28],
    ['torque', '28 Nm 21 lb-ft', 28],
    ['torque', '28 Nm - 21 lb-ft', 28],
    ['torque', '27 Nm / 20 ft-lb / 240 in-lb', 27],
    ['torque', '21lb ft', 28.4722],
    ['torque', '20 1/2 lb ft', 27.7943],
    ['torque', '28000 N·mm', 28],
    ['distance', 'odo: 104 000 km', 104000],
    ['distance', '104000 on the clock', 104000],
    ['distance', '104 thousand km', 104000],
    ['distance', '1.2 million km', 1200000],
    ['distance', 'miles 64,000', 102998.016],
    ['distance', '104,000 km (64,623 mi)', 104000],
    ['distance', '1,04,000 km', 104000],
  ] as const)('%s %s is %d', (kind, text, expected) => {
    expect(value(kind, text)).toBeCloseTo(expected, 3);
  });

  it('names the nearest plausible reading of a slipped decimal', () => {
    const inch = readQuantity({ kind: 'gap', text: '0.30 in' });
    expect(inch.verdict).toBe('refuse');
    expect(inch.message).toContain('7.62 mm');
    expect(inch.message).toContain('0.030 in = 0.76 mm');
    const mm = readQuantity({ kind: 'gap', text: '9 mm' });
    expect(mm).toMatchObject({ verdict: 'refuse', suggestions: [{ text: '0.90 mm', valueSi: 0.9 }] });
  });

  it('asks instead of converting when only another unit makes the figure plausible', () => {
    expect(readQuantity({ kind: 'gap', text: '.030', personUnit: 'mm' })).toMatchObject({
      verdict: 'ask',
      suggestions: [{ valueSi: expect.closeTo(0.762, 9) }],
    });
    expect(readQuantity({ kind: 'gap', text: '0.8', personUnit: 'in' })).toMatchObject({
      verdict: 'ask',
      suggestions: [{ valueSi: 0.8 }],
    });
    expect(readQuantity({ kind: 'torque', text: '150' }).verdict).toBe('ask');
    expect(value('gap', '.030', 'in')).toBeCloseTo(0.762, 6);
  });

  it('asks which of two plausible readings a lone mark means', () => {
    expect(readQuantity({ kind: 'distance', text: '104.000 km' })).toMatchObject({
      verdict: 'ask',
      suggestions: [{ valueSi: 104 }, { valueSi: 104000 }],
    });
  });

  it('asks of a bare “100k” whether it is miles or kilometres, one’s own first', () => {
    expect(readQuantity({ kind: 'distance', text: '100k', personUnit: 'mi' })).toMatchObject({
      verdict: 'ask',
      suggestions: [{ valueSi: expect.closeTo(160934.4, 3) }, { valueSi: 100000 }],
    });
    expect(value('distance', '100k mi')).toBeCloseTo(160934.4, 3);
  });

  it.each([
    ['gap', 'O.8 mm', 0.8],
    ['torque', '2O Nm', 20],
    ['torque', 'l7 ft-lb', 23.0489],
    ['distance', '1O4000 km', 104000],
  ] as const)('asks about a letter for a digit: %s %s', (kind, text, meant) => {
    const reading = readQuantity({ kind, text });
    expect(reading).toMatchObject({ verdict: 'ask', suggestions: [{ valueSi: expect.closeTo(meant, 3) }] });
  });

  it('asks which of two figures holds that do not agree as far as they are written', () => {
    const both = readQuantity({ kind: 'torque', text: '28 Nm (25 lb-ft)' });
    expect(both).toMatchObject({
      verdict: 'ask',
      suggestions: [{ valueSi: 28 }, { valueSi: expect.closeTo(33.895, 2) }],
    });
    expect(readQuantity({ kind: 'gap', text: '0.8 mm (0.041 in)' }).verdict).toBe('ask');
  });

  it.each([
    ['torque', '25-30 Nm', 'a range'],
    ['torque', '25 Nm to 30 Nm', 'a range'],
    ['gap', '0.8 – 0.9 mm', 'a range'],
    ['torque', '28 ± 2 Nm', 'a figure with its tolerance'],
    ['torque', '1/2 turn', 'a turn'],
    ['torque', '180°', 'a turn'],
    ['torque', '28 Nm then 1/4 turn', 'a turn'],
  ] as const)('says what %s %s is', (kind, text, words) => {
    const reading = readQuantity({ kind, text });
    expect(reading).toMatchObject({ verdict: 'refuse', message: expect.stringContaining(words) });
  });

  it('offers inch-pounds first for foot-pounds, and nothing that the sheet refuses', () => {
    const small = { min: 6, max: 10 };
    const reading = readQuantity({ kind: 'torque', text: '71 lb-ft', window: small });
    if (reading.verdict === 'ok') throw new Error('it cannot be right');
    expect(reading.suggestions[0]).toMatchObject({ unit: 'lbf·in', valueSi: expect.closeTo(8.02, 2) });
    for (const { valueSi } of reading.suggestions) expect(valueSi >= small.min && valueSi <= small.max).toBe(true);
    const sheet = { min: 7.2, max: 8.8 };
    const bySheet = readQuantity({ kind: 'torque', text: '71 lb-ft', sheet });
    expect(bySheet).toMatchObject({ verdict: 'refuse', suggestions: [{ unit: 'lbf·in' }] });
    expect(readQuantity({ kind: 'torque', text: '71 N·m', sheet })).toMatchObject({
      suggestions: [{ text: expect.stringContaining('lbf·in') }],
    });
  });

  it.each([
    ['distance', '104000 km since plugs'],
    ['distance', 'every 60000 km'],
    ['distance', 'odo -5 km'],
    ['torque', '28, 30 Nm'],
    ['torque', '28 Nm + 5'],
    ['torque', 'half of 28 Nm'],
    ['gap', 'under 0.8 mm'],
    ['gap', '0.7/0.8 mm'],
    ['gap', '0.8 Nm'],
    ['torque', '0.8 mm'],
    ['gap', 'wide'],
    ['gap', ''],
    ['distance', '-5 km'],
    ['distance', '99 999 999 km'],
    ['gap', '0'],
  ] as const)('refuses %s %j', (kind, text) => {
    expect(readQuantity({ kind, text }).verdict).toBe('refuse');
  });

  it('takes a breakaway torque that would be no install torque', () => {
    expect(readQuantity({ kind: 'torque', text: '80 N·m' }).verdict).toBe('refuse');
    expect(readQuantity({ kind: 'torque', text: '80 N·m', window: PLAUSIBLE_BREAKAWAY })).toMatchObject({
      verdict: 'ok',
      valueSi: 80,
    });
  });

  it('never accepts an implausible gap or torque, whatever is typed', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...QUANTITY_KINDS),
        fc.string(),
        fc.constantFrom('', ' mm', ' in', ' Nm', ' ft-lb', ' mi'),
        (kind, text, unit) => {
          const reading = readQuantity({ kind, text: text + unit });
          if (reading.verdict !== 'ok') return;
          expect(reading.valueSi).toBeGreaterThanOrEqual(kind === 'gap' ? 0.4 - 1e-6 : 0);
          expect(reading.valueSi).toBeLessThanOrEqual(
            { gap: 2, torque: 43.75, distance: 2e6, resistance: 2e5 }[kind] + 1e-6,
          );
        },
      ),
    );
  });

  it('reads back its own suggestions', () => {
    fc.assert(
      fc.property(fc.constantFrom('gap', 'torque'), fc.double({ min: 0.001, max: 5000, noNaN: true }), (kind, n) => {
        const unit = unitsOf(kind)[0]?.name;
        const reading = readQuantity({ kind, text: `${n.toFixed(3)} ${unit}` });
        if (reading.verdict === 'ok') return;
        for (const s of reading.suggestions) {
          const again = readQuantity({ kind, text: s.text.split(' = ')[0] ?? '' });
          expect(again.verdict).toBe('ok');
        }
      }),
    );
  });
});
