import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RowReader } from './row-reader';

const reader = (cells: Record<string, string>): RowReader =>
  new RowReader({ cell: (key) => (cells[key] ?? '').trim(), label: (key) => (key === 'x' ? 'x (“Their name”)' : key) });

describe('lists in one cell', () => {
  it('are read by any of the usual marks', () => {
    for (const text of ['620 310 560', '620, 310, 560', '620;310;560', '620 | 310/560'])
      expect(reader({ x: text }).numbers('x', 50, 3000)).toEqual([620, 310, 560]);
    expect(reader({}).numbers('x', 50, 3000)).toBeNull();
    expect(reader({ x: 'a | b |  | c ' }).list('x')).toEqual(['a', 'b', 'c']);
    expect(reader({}).list('x')).toBeNull();
  });

  it.each(['620, long', '620 20', '6e2', '-620', Array.from({ length: 65 }, () => '100').join(' ')])(
    'refuse %j by the name the person knows',
    (text) => {
      const r = reader({ x: text });
      expect(r.numbers('x', 50, 3000)).toBeNull();
      expect(r.faults[0]).toMatch(/^x \(“Their name”\): .*whole numbers from 50 to 3000/);
      expect(r.byColumn.x).toContain('whole numbers');
    },
  );
});

describe('a range in one cell', () => {
  it('is read in its own unit, in the row’s, or in the fallback', () => {
    expect(reader({ gap: '1.0 to 1.1' }).range('gap', 'gap', 'gap_unit', 'mm')).toMatchObject({ minSi: 1, maxSi: 1.1 });
    expect(reader({ gap: '30 - 35', gap_unit: 'thou' }).range('gap', 'gap', 'gap_unit', 'mm')).toMatchObject({
      unit: 'thou',
    });
    expect(reader({ gap: '.030-.035 in', gap_unit: 'mm' }).range('gap', 'gap', 'gap_unit', 'mm')).toMatchObject({
      unit: 'in',
    });
    expect(reader({}).range('gap', 'gap', 'gap_unit', 'mm')).toBeNull();
  });

  it('says why it cannot be one', () => {
    const r = reader({ gap: '1.1 to 1.0 mm' });
    expect(r.range('gap', 'gap', 'gap_unit', 'mm')).toBeNull();
    expect(r.byColumn.gap).toContain('upside down');
  });
});

describe('a row', () => {
  it('gathers every fault once, and the first of each column for its field', () => {
    const r = reader({ n: 'x', kind: 'submarine' });
    r.required('code');
    r.integer('n', 1, 5);
    r.integer('n', 1, 9);
    r.oneOf('kind', ['plug', 'coil']);
    expect(r.faults).toHaveLength(4);
    expect(r.byColumn).toEqual({
      code: 'is empty',
      n: '“x” is not a whole number from 1 to 5',
      kind: '“submarine” is not known. Use one of plug, coil',
    });
  });

  it('keeps long lists, cuts off endless cells, and runs no formula', () => {
    expect(reader({ x: 'a '.repeat(80) }).text('x')).toBeNull();
    expect(reader({ x: 'a '.repeat(80) }).text('x', 600)).toHaveLength(159);
    for (const formula of ['=1+1', '+A1', '@SUM(A1)', '-cmd']) expect(reader({ x: formula }).text('x')).toBeNull();
    expect(reader({ x: '-4.5' }).text('x')).toBe('-4.5');
  });

  it('never throws, whatever stands in its cells', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 60 }), (text) => {
        const r = reader({ x: text, u: text });
        r.text('x');
        r.numbers('x', 0, 10);
        r.list('x');
        r.range('x', 'gap', 'u', 'mm');
        r.quantity('x', 'torque', 'u', 'N·m');
        r.date('x');
        r.integers('x');
        r.yesNo('x');
        expect(r.faults.every((fault) => fault.length > 3)).toBe(true);
      }),
    );
  });
});
