import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  checkSuffix,
  readSuffix,
  recordedOf,
  type SuffixCode,
  type SuffixReading,
  suffixFault,
  suffixForGap,
} from './suffix';

const code = (
  maker: string,
  place: number,
  attribute: SuffixCode['attribute'],
  text: string,
  value: string,
): SuffixCode => ({ maker, place, attribute, code: text, value });

const EMBERLINE = [
  code('Emberline', 0, 'base', 'EM-####', ''),
  code('Emberline', 1, 'resistor', 'R', 'yes'),
  code('Emberline', 1, 'resistor', '', 'no'),
  code('Emberline', 2, 'heat_range', '#', 'as written'),
  code('Emberline', 3, 'gap', 'G#', 'tenths of a mm'),
  code('Emberline', 3, 'gap', 'G##', 'tenths of a mm'),
  code('Emberline', 3, 'gap', '', ''),
];
const KILNMARK = [
  code('Kilnmark', 0, 'base', 'KM-####', ''),
  code('Kilnmark', 0, 'base', 'KM-###', ''),
  code('Kilnmark', 1, 'heat_range', '/##', 'as written'),
  code('Kilnmark', 2, 'resistor', 'E', 'yes'),
  code('Kilnmark', 2, 'resistor', 'N', 'no'),
  code('Kilnmark', 3, 'gap', 'J', '0.8'),
  code('Kilnmark', 3, 'gap', 'M', '1.05'),
];
const TABLES = [...EMBERLINE, ...KILNMARK];

const read = (number: string): SuffixReading => {
  const suffix = readSuffix(number, TABLES);
  if (suffix.kind !== 'read') throw new Error(`${number}: ${suffix.kind}`);
  return suffix;
};

describe('readSuffix', () => {
  it.each([
    ['EM-7310R6G9', { resistor: true, heatRange: 6, preGapMm: 0.9 }],
    ['em 7310 r6 g11', { resistor: true, heatRange: 6, preGapMm: 1.1 }],
    ['EM-73106', { resistor: false, heatRange: 6 }],
    ['EM7310R6G9', { resistor: true, heatRange: 6, preGapMm: 0.9 }],
    ['KM-4180/22EM', { heatRange: 22, resistor: true, preGapMm: 1.05 }],
    ['KM-418/22NJ', { heatRange: 22, resistor: false, preGapMm: 0.8 }],
  ])('reads %s by its own maker’s table', (number, values) => {
    expect(read(number).values).toEqual(values);
  });

  it('says nothing for a number without a suffix: a missing letter is no “without resistor” there', () => {
    expect(readSuffix('EM-7310', TABLES)).toEqual({ kind: 'bare' });
    expect(readSuffix('KM-4180', TABLES)).toEqual({ kind: 'bare' });
  });

  it('knows where a table ends', () => {
    expect(readSuffix('EM-7310Z9', TABLES)).toEqual({
      kind: 'unknown',
      maker: 'Emberline',
      base: 'EM-7310',
      rest: 'Z9',
    });
    expect(readSuffix('NL-1804', TABLES)).toEqual({ kind: 'no-table' });
  });

  it('gives both readings where two are left, and takes neither', () => {
    const loose = [
      code('Emberline', 0, 'base', 'EM-####', ''),
      code('Emberline', 1, 'heat_range', '#', 'as written'),
      code('Emberline', 1, 'heat_range', '##', 'as written'),
      code('Emberline', 2, 'gap', '-#', 'tenths of a mm'),
      code('Emberline', 2, 'gap', '-##', 'tenths of a mm'),
    ];
    expect(readSuffix('EM-73106-11', loose)).toMatchObject({
      kind: 'read',
      values: { heatRange: 6, preGapMm: 1.1 },
    });
    const unclear = readSuffix('EM-7310611', loose);
    expect(unclear.kind === 'unclear' && unclear.readings.map((r) => r.values)).toEqual([
      { heatRange: 6, preGapMm: 1.1 },
      { heatRange: 61, preGapMm: 0.1 },
    ]);
  });

  const base = fc.integer({ min: 1000, max: 9999 });
  it('reads back whatever the table can write, in any case, with or without hyphens', () => {
    fc.assert(
      fc.property(
        base,
        fc.boolean(),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 4, max: 20 }),
        fc.boolean(),
        (number, resistor, heat, tenths, small) => {
          const written = `EM-${number}${resistor ? 'R' : ''}${heat}G${tenths}`;
          const typed = small ? written.toLowerCase().replace('-', ' ') : written;
          expect(read(typed).values).toEqual({
            resistor,
            heatRange: heat,
            preGapMm: Number((tenths / 10).toFixed(2)),
          });
        },
      ),
    );
  });

  it('never throws, and what it reads spends the whole number', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 20, unit: fc.constantFrom(...'EMK0123456789RGJN/-# ') }), (text) => {
        const suffix = readSuffix(text, TABLES);
        if (suffix.kind !== 'read') return;
        const spent = suffix.base + suffix.pieces.map((piece) => piece.code).join('');
        expect(spent.replaceAll('-', '')).toBe(text.toUpperCase().replace(/[\s-]/g, ''));
      }),
    );
  });
});

describe('checkSuffix', () => {
  it('fills what is not recorded, agrees, or contradicts', () => {
    const recorded = recordedOf({ resistor: true, heatRange: 7, preGapMm: null });
    expect(checkSuffix(read('EM-7310R6G9').values, recorded)).toEqual([
      { attribute: 'resistor', claimed: true, recorded: true, verdict: 'agrees' },
      { attribute: 'heatRange', claimed: 6, recorded: 7, verdict: 'contradicts' },
      { attribute: 'preGapMm', claimed: 0.9, recorded: null, verdict: 'fills' },
    ]);
  });

  it('takes 0.90 and 0.9 for one gap and 0.91 for another', () => {
    const gapOf = (preGapMm: number) => checkSuffix({ preGapMm: 0.9 }, recordedOf({ preGapMm }))[0]?.verdict;
    expect(gapOf(0.9004)).toBe('agrees');
    expect(gapOf(0.91)).toBe('contradicts');
  });
});

describe('suffixForGap', () => {
  it('asks for the smallest gap in the sheet’s range, as gaps grow', () => {
    expect(suffixForGap(read('EM-7310R6G9'), TABLES, { minMm: 1, maxMm: 1.1 })).toBe('EM-7310R6G10');
    expect(suffixForGap(read('EM-7310R6G9'), TABLES, { minMm: 1, maxMm: 1.1, targetMm: 1.1 })).toBe('EM-7310R6G10');
    expect(suffixForGap(read('KM-4180/22EJ'), TABLES, { minMm: 1, maxMm: 1.1 })).toBe('KM-4180/22EM');
  });

  it('has none where the table has no such gap', () => {
    expect(suffixForGap(read('KM-4180/22EJ'), TABLES, { minMm: 0.6, maxMm: 0.7 })).toBeNull();
  });

  it('always gives a number that reads as the same plug with a gap in range', () => {
    fc.assert(
      fc.property(fc.integer({ min: 30, max: 180 }), fc.integer({ min: 10, max: 20 }), (least, wide) => {
        const spec = { minMm: least / 100, maxMm: (least + wide) / 100 };
        const number = suffixForGap(read('EM-7310R6G9'), TABLES, spec);
        const { preGapMm = 0, ...rest } = read(number ?? '').values;
        expect(rest).toEqual({ resistor: true, heatRange: 6 });
        expect(preGapMm).toBeGreaterThanOrEqual(spec.minMm - 0.005);
        expect(preGapMm).toBeLessThanOrEqual(spec.maxMm + 0.005);
      }),
    );
  });
});

describe('suffixFault', () => {
  it.each([
    [{ place: 1, attribute: 'resistor', code: 'R', value: 'maybe' }, 'not one of yes, no'],
    [{ place: 1, attribute: 'base', code: 'EM-####', value: '' }, 'place 0'],
    [{ place: 0, attribute: 'gap', code: 'J', value: '0.8' }, 'begin at 1'],
    [{ place: 3, attribute: 'gap', code: 'G#', value: '0.9' }, 'needs one of'],
    [{ place: 3, attribute: 'gap', code: 'G', value: 'tenths of a mm' }, 'needs a code with #'],
    [{ place: 3, attribute: 'gap', code: 'G#', value: 'as written' }, 'cannot be read'],
    [{ place: 3, attribute: 'gap', code: 'J', value: '8' }, 'not a gap in mm'],
    [{ place: 2, attribute: 'heat_range', code: 'H', value: 'hot' }, 'not a heat number'],
    [{ place: 2, attribute: 'heat_range', code: 'ä', value: '6' }, 'capital letters'],
    [{ place: 2, attribute: 'terminal', code: 'T', value: '' }, 'says nothing'],
  ] as const)('refuses %j', (row, words) => {
    expect(suffixFault(row)).toContain(words);
  });

  it('takes the rows of the tables above', () => {
    expect(TABLES.map(suffixFault)).toEqual(TABLES.map(() => null));
  });
});
