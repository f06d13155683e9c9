import fc from 'fast-check';
import { expect, it } from 'vitest';
import { MAX_SHOWN, rowsToShow, type SummaryRow, VERDICTS } from './plan-summary';

const anyRow = fc.record({
  verdict: fc.constantFrom(...VERDICTS),
  reasons: fc.constantFrom<readonly string[]>([], ['kept as suspect']),
});

it('shows the first of each verdict in order of line, and no doubtful row less than a plain one', () => {
  fc.assert(
    fc.property(fc.array(anyRow, { maxLength: 900, minLength: 500 }), (some) => {
      const rows: SummaryRow[] = some.map((row, i) => ({ ...row, line: i + 2, what: `row ${i}` }));
      const shown = rowsToShow(rows);
      expect(shown.map(({ line }) => line)).toEqual([...shown.map(({ line }) => line)].sort((a, b) => a - b));
      for (const verdict of VERDICTS) {
        const of = (list: readonly SummaryRow[], doubtful: boolean) =>
          list.filter((row) => row.verdict === verdict && row.reasons.length > 0 === doubtful).length;
        const plain = verdict === 'add' ? of(rows, false) : of(rows, false) + of(rows, true);
        const plainShown = verdict === 'add' ? of(shown, false) : of(shown, false) + of(shown, true);
        expect(plainShown).toBe(Math.min(MAX_SHOWN, plain));
        if (verdict === 'add') expect(of(shown, true)).toBe(Math.min(MAX_SHOWN, of(rows, true)));
      }
    }),
    { numRuns: 20 },
  );
});
