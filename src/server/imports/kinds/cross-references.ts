import type { HeatCross } from '@/core/catalogue/equivalent';
import { loadHeatCrosses } from '@/db/queries/catalogue';
import { heatCrosses } from '@/db/schema';
import { defineKind, type PlannedRow, type RawRow } from '../kind';

export const crossReferencesKind = defineKind<HeatCross>({
  name: 'cross-references',
  title: 'Heat cross references',
  about:
    'One row a pair of heat numbers that a maker’s own table says are the same. Numbers of two makers compare in no other way.',
  needs: [],
  dateColumns: [],
  columns: [
    { key: 'maker_a', required: true, help: 'One maker', example: 'Emberline' },
    { key: 'heat_a', required: true, help: 'Its heat number', example: '7' },
    { key: 'maker_b', required: true, help: 'The other maker', example: 'Kilnmark' },
    { key: 'heat_b', required: true, help: 'Its heat number', example: '22' },
    {
      key: 'table',
      required: true,
      help: 'Whose table says so',
      example: 'Demo data: Kilnmark cross table 9',
      aliases: ['source'],
    },
  ],

  async plan(q, { fleetId }, rows) {
    const known: HeatCross[] = [...(await loadHeatCrosses(q, fleetId))];
    return rows.map((row) => planRow(row, known));
  },

  async apply(tx, { fleetId }, writes) {
    for (const write of writes) await tx.insert(heatCrosses).values({ fleetId, ...write });
  },
});

function planRow({ line, reader: r }: RawRow, known: HeatCross[]): PlannedRow<HeatCross> {
  const [makerA, makerB] = [r.required('maker_a'), r.required('maker_b')];
  const heatA = r.integer('heat_a', 0, 99) ?? r.fault('heat_a', 'give its number');
  const heatB = r.integer('heat_b', 0, 99) ?? r.fault('heat_b', 'give its number');
  const source = r.required('table');
  const what = `${makerA} ${heatA ?? '?'} = ${makerB} ${heatB ?? '?'}`;
  if (makerA !== '' && makerA === makerB) r.fault('maker_b', 'must be another maker');
  if (r.faults.length > 0 || heatA === null || heatB === null)
    return { line, verdict: 'refuse', what, reasons: r.faults };
  const write = { makerA, heatA, makerB, heatB, source };
  if (known.some((cross) => samePair(cross, write))) return { line, verdict: 'skip', what, reasons: ['already here'] };
  known.push(write);
  return { line, verdict: 'add', what, reasons: [], write };
}

function samePair(a: HeatCross, b: HeatCross): boolean {
  const straight = a.makerA === b.makerA && a.heatA === b.heatA && a.makerB === b.makerB && a.heatB === b.heatB;
  return straight || (a.makerA === b.makerB && a.heatA === b.heatB && a.makerB === b.makerA && a.heatB === b.heatA);
}
