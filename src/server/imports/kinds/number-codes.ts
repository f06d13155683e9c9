import { eq } from 'drizzle-orm';
import { SUFFIX_ATTRIBUTES, type SuffixCode, suffixFault } from '@/core/catalogue/suffix';
import { loadNumberCodes } from '@/db/queries/catalogue';
import { numberCodes } from '@/db/schema';
import { defineKind, type PlannedRow, type RawRow } from '../kind';

interface CodeRow extends SuffixCode {
  readonly source: string;
}

interface Write {
  readonly id: string | null;
  readonly version: number;
  readonly row: CodeRow;
}

type Known = Omit<CodeRow, 'maker'> & { readonly maker: string; readonly id: string | null; readonly version: number };

const ATTRIBUTES = ['base', ...SUFFIX_ATTRIBUTES] as const;

export const numberCodesKind = defineKind<Write>({
  name: 'number-codes',
  title: 'Number codes',
  about:
    'One row a code in a maker’s part numbers: the base (EM-####), then what each code at each place after it says. A suffix read by this table fills and checks the part.',
  needs: [],
  dateColumns: [],
  columns: [
    { key: 'maker', required: true, help: 'Whose numbers', example: 'Emberline' },
    { key: 'place', required: true, help: '0 for the base, then 1, 2, 3 in the order of the suffix', example: '3' },
    { key: 'attribute', required: true, help: ATTRIBUTES.join(', '), example: 'gap', choices: ATTRIBUTES },
    {
      key: 'code',
      help: 'As it stands in the number; # is one digit; empty where nothing may stand there',
      example: 'G#',
    },
    {
      key: 'value',
      help: 'yes or no, a heat number, mm, a terminal or shell; for #: as written, tenths of a mm, hundredths of a mm',
      example: 'tenths of a mm',
    },
    { key: 'source', required: true, help: 'Where the maker says so', example: 'Demo data: Emberline list 2025' },
  ],

  async plan(q, { fleetId }, rows) {
    const known: Known[] = [...(await loadNumberCodes(q, fleetId))];
    return rows.map((row) => planRow(row, known));
  },

  async apply(tx, { fleetId }, writes) {
    for (const { id, version, row } of writes) {
      if (id === null) await tx.insert(numberCodes).values({ fleetId, ...row });
      else
        await tx
          .update(numberCodes)
          .set({ ...row, version: version + 1 })
          .where(eq(numberCodes.id, id));
    }
  },
});

function planRow({ line, reader: r }: RawRow, known: Known[]): PlannedRow<Write> {
  const [maker, source] = [r.required('maker'), r.required('source')];
  const place = r.integer('place', 0, 9) ?? r.fault('place', 'give a whole number from 0 to 9');
  const attribute = r.oneOf('attribute', ATTRIBUTES);
  const code = (r.code('code', 30) ?? '').toUpperCase().replace(/\s+/g, '');
  const value = (r.text('value', 30) ?? '').toLowerCase();
  const what = `${maker} place ${place ?? '?'} “${code}”`;
  if (r.faults.length > 0 || place === null || !attribute) return { line, verdict: 'refuse', what, reasons: r.faults };
  const row: CodeRow = { maker, place, attribute, code, value: normal(attribute, value), source };
  const fault = suffixFault(row) ?? placeFault(row, known);
  if (fault) {
    r.fault('code', fault);
    return { line, verdict: 'refuse', what, reasons: r.faults };
  }
  const before = known.find((k) => k.maker === maker && k.place === place && k.code === code);
  if (before?.value === row.value && before.source === source)
    return { line, verdict: 'skip', what, reasons: ['already here'] };
  if (before && before.id === null)
    return { line, verdict: 'refuse', what, reasons: ['an earlier line gives this code another meaning'] };
  if (before)
    return { line, verdict: 'change', what, reasons: [`was ${before.value || 'nothing'}`], write: { ...before, row } };
  known.push({ ...row, id: null, version: 1 });
  return { line, verdict: 'add', what, reasons: [], write: { id: null, version: 1, row } };
}

/** "0,9" and "0.90 mm" are the gap 0.9. */
function normal(attribute: SuffixCode['attribute'], value: string): string {
  if (attribute !== 'gap' || !/^\d/.test(value)) return value;
  const mm = Number(value.replace(',', '.').replace(/\s*mm$/, ''));
  return Number.isFinite(mm) ? String(mm) : value;
}

/** A place of a suffix says one thing only. */
function placeFault({ maker, place, attribute }: CodeRow, known: readonly Known[]): string | null {
  const other = known.find((k) => k.maker === maker && k.place === place && k.attribute !== attribute);
  return other ? `place ${place} of ${maker} says ${other.attribute} already` : null;
}
