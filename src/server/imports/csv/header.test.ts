import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { parseCsv, parseHeader } from './parse';

describe('parseHeader', () => {
  it('gives the same names as reading the whole file', () => {
    const cell = fc.stringMatching(/^[a-z][a-z_ ]{0,10}[a-z]$/);
    fc.assert(
      fc.property(
        fc.uniqueArray(cell, { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 30 }),
        fc.constantFrom(',', ';', '\t'),
        (names, rows, mark) => {
          const text = [names, ...Array.from({ length: rows }, (_, i) => names.map(() => String(i)))]
            .map((cells) => cells.join(mark))
            .join('\r\n');
          const [head, whole] = [parseHeader(text), parseCsv(text)];
          expect(head.ok && head.value).toEqual(whole.ok && whole.value.header);
        },
      ),
      { numRuns: 50 },
    );
  });

  it('reads the head of a file of any length, and only that', () => {
    const rows = Array.from({ length: 60_000 }, (_, i) => `${i},2026-11-10,${90_000 + i}`);
    const text = ['unit_number,read_on,odometer', ...rows, 'an "open quote at the very end'].join('\n');
    expect(parseHeader(text)).toEqual({ ok: true, value: ['unit_number', 'read_on', 'odometer'] });
    expect(parseCsv(text).ok).toBe(false);
  });

  it('says why there is none', () => {
    expect(parseHeader('unit_number,odometer')).toMatchObject({ ok: false });
    expect(parseHeader('\n\n')).toMatchObject({ ok: false });
    expect(parseHeader(`${Array(201).fill('x').join(',')}\n1`)).toMatchObject({
      ok: false,
      error: expect.stringContaining('more than 200 columns'),
    });
  });
});
