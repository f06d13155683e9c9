import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { toCsv } from '../../exports/csv';
import { kindOf } from '../kinds';
import { cellsOf, guessKind, missingColumns, suggestMapping } from '../map-columns';
import { decodeText } from './decode';
import { parseCsv } from './parse';
import { RowReader } from './row-reader';

const bytes = (text: string) => new TextEncoder().encode(text);
const text = (input: Uint8Array) => {
  const decoded = decodeText(input);
  return decoded.ok ? decoded.value : `refused: ${decoded.error}`;
};
const table = (source: string) => {
  const parsed = parseCsv(source);
  if (!parsed.ok) throw new Error(parsed.error);
  return parsed.value;
};
const refusedBecause = (source: string) => {
  const parsed = parseCsv(source);
  return parsed.ok ? null : parsed.error;
};

describe('decodeText', () => {
  it('reads UTF-8 with and without mark, UTF-16 both ways, and old Windows coding', () => {
    expect(text(bytes('Wälder'))).toBe('Wälder');
    expect(text(new Uint8Array([0xef, 0xbb, 0xbf, 0x61]))).toBe('a');
    expect(text(new Uint8Array([0xff, 0xfe, 0x61, 0x00]))).toBe('a');
    expect(text(new Uint8Array([0xfe, 0xff, 0x00, 0x61]))).toBe('a');
    expect(text(new Uint8Array([0x4a, 0xf6, 0x72, 0x67]))).toBe('Jörg');
  });

  it.each([
    [new Uint8Array(), 'empty'],
    [bytes(' \n\t'), 'blank'],
    [new Uint8Array([0x50, 0x4b, 3, 4]), 'workbook'],
    [new Uint8Array([1, 2, 3]), 'binary'],
  ])('refuses %j in words', (input, word) => {
    expect(text(input)).toContain(word);
  });
});

describe('parseCsv', () => {
  it.each([',', ';', '\t', '|'])('finds the separator %j', (mark) => {
    expect(table(`a${mark}"b${mark} c"\n1${mark}2`)).toMatchObject({
      header: ['a', `b${mark} c`],
      rows: [{ line: 2, cells: ['1', '2'] }],
      delimiter: mark,
    });
  });

  it('passes over rows of nothing but separators, however many, and never within quotes', () => {
    const blank = table(`a,b,c\n1,2,3\n${',\n'.repeat(200_000)}${',,,,\n'.repeat(100_000)}4,5,6\n`);
    expect(blank.rows).toEqual([
      { line: 2, cells: ['1', '2', '3'] },
      { line: 300_003, cells: ['4', '5', '6'] },
    ]);
    expect(table('a,b,c\n1,"x\n,,\ny",3\n,,\n4,5,6').rows).toEqual([
      { line: 4, cells: ['1', 'x\n,,\ny', '3'] },
      { line: 6, cells: ['4', '5', '6'] },
    ]);
  });

  it('ends at a thousand rows of another width, and names the line', () => {
    expect(refusedBecause(`a,b,c\n${'1,2\n'.repeat(50_000)}`)).toMatch(/^Line 1002: over 1000 rows/);
    expect(table(`a,b,c\n${'1,2\n'.repeat(900)}`).rows).toHaveLength(900);
  });

  it('counts lines as an editor does, over blank lines and quoted line ends', () => {
    expect(table('a,b\n\n1,2\n"x\ny",3\n4,5').rows.map((row) => row.line)).toEqual([3, 5, 6]);
  });

  it.each([
    ['a,b', 'no rows'],
    ['a,b\n"1,2', 'never closed'],
    ['a,b\n1"x,2', 'middle of a cell'],
    [`${'a,'.repeat(300)}\n1`, 'more than 200 columns'],
  ])('says what is wrong with %j', (source, words) => {
    expect(refusedBecause(source)).toContain(words);
  });

  it('reads back whatever we write, but for defused formulas', () => {
    const cell = fc
      .string()
      .map((s) => s.trim())
      .filter((s) => !/^[=+\-@\t\r\ufeff]/.test(s) && !s.includes('\r'));
    fc.assert(
      fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 8 }), (rows) => {
        const kept = rows.filter((row) => row.some((c) => c !== ''));
        fc.pre(kept.length > 0);
        expect(table(toCsv(['left', 'right'], rows)).rows.map((row) => row.cells)).toEqual(kept);
      }),
    );
  });
});

describe('matching columns', () => {
  it('tells a file by its header, whatever the order and spelling', () => {
    expect(guessKind(['Reading', 'UNIT NUMBER', 'Date'], 'export.csv')).toBe('odometer');
    expect(guessKind(['Unit', 'Description', 'Depot', 'Group', 'Engine', 'In service'], 'a.csv')).toBe('vehicles');
    expect(guessKind(['colour', 'size'], 'a.csv')).toBeNull();
  });

  it('never feeds two columns from one, and names what is missing', () => {
    const kind = kindOf('odometer');
    const mapping = suggestMapping(kind, ['unit', 'date', 'km']);
    expect(new Set(Object.values(mapping)).size).toBe(Object.values(mapping).length);
    expect(missingColumns(kind, mapping)).toEqual(['unit_number']);
  });

  it('gives a cell under our name, and empty for a column the file lacks', () => {
    const parsed = table('Wagen,Stand\n11,5');
    const [row] = parsed.rows;
    const source = row && cellsOf(parsed, { unit_number: 'Wagen' })(row);
    expect(source?.cell('unit_number')).toBe('11');
    expect(source?.cell('odometer')).toBe('');
    expect(source?.label('unit_number')).toBe('unit_number (“Wagen”)');
  });
});

describe('RowReader', () => {
  const reader = (cells: Record<string, string>) =>
    new RowReader({ cell: (key) => cells[key] ?? '', label: (key) => key }, 'day-first');
  const faultOf = (cells: Record<string, string>, read: (r: RowReader) => unknown) => {
    const r = reader(cells);
    const value = read(r);
    return r.faults.length > 0 ? r.faults.join('; ') : value;
  };

  it.each(['=1+1', '@SUM(A1)', '+49', '-cmd'])('takes %s for a formula, not a name', (cell) => {
    expect(faultOf({ name: cell }, (r) => r.required('name'))).toContain('spreadsheet formula');
  });

  it('keeps text that only looks odd', () => {
    expect(faultOf({ name: "O'Hara  &  Sons" }, (r) => r.text('name'))).toBe("O'Hara & Sons");
    expect(faultOf({ name: '-' }, (r) => r.text('name'))).toBe('-');
    expect(faultOf({ name: 'x'.repeat(121) }, (r) => r.text('name'))).toContain('longer than 120');
  });

  it.each([
    ['Coil-On Plug', 'coil_on_plug'],
    ['coil_rail', 'coil_rail'],
  ])('reads the choice %s', (cell, expected) => {
    expect(faultOf({ ignition: cell }, (r) => r.oneOf('ignition', ['coil_on_plug', 'coil_rail']))).toBe(expected);
  });

  it('names the choices it knows', () => {
    expect(faultOf({ head: 'brass' }, (r) => r.oneOf('head', ['aluminium', 'iron']))).toBe(
      'head: “brass” is not known. Use one of aluminium, iron',
    );
    expect(faultOf({}, (r) => r.oneOf('head', ['aluminium', 'iron']))).toContain('is empty');
  });

  it.each([
    ['12', 12],
    ['', null],
    ['1.5', expect.stringContaining('whole number')],
    ['99999999999', expect.stringContaining('whole number')],
    ['-1', expect.stringContaining('whole number')],
  ])('reads the whole number %j', (cell, expected) => {
    expect(faultOf({ n: cell }, (r) => r.integer('n', 0, 100))).toEqual(expected);
  });

  it('lets the unit of the row, and that behind the figure, win over the usual one', () => {
    const si = (cells: Record<string, string>) => {
      const read = faultOf(cells, (r) => r.quantity('v', 'distance', 'unit', 'km')?.si);
      return typeof read === 'number' ? Math.round(read) : read;
    };
    expect(si({ v: '100' })).toBe(100);
    expect(si({ v: '100', unit: 'mi' })).toBe(161);
    expect(si({ v: '100 mi', unit: 'km' })).toBe(161);
    expect(si({ v: '104k', unit: 'mi' })).toBe(167_372);
    expect(si({ v: '100', unit: 'Nm' })).toContain('not a unit of distance');
  });

  it('keeps exact, estimated and unknown days apart, and refuses impossible ones', () => {
    expect(faultOf({ d: '03/04/2026' }, (r) => r.date('d'))).toEqual({ date: '2026-04-03', certainty: 'exact' });
    expect(faultOf({ d: 'about 2019' }, (r) => r.date('d'))).toEqual({ date: '2019-07-01', certainty: 'estimated' });
    expect(faultOf({ d: 'unknown' }, (r) => r.date('d'))).toBeNull();
    expect(faultOf({ d: '31/02/2026' }, (r) => r.date('d'))).toContain('no such day');
  });

  it('reads lists of cylinders and nothing else', () => {
    expect(faultOf({ order: '1-3-4-2' }, (r) => r.integers('order'))).toEqual([1, 3, 4, 2]);
    expect(faultOf({ order: '1 3 four' }, (r) => r.integers('order'))).toContain('list of cylinder numbers');
  });
});
