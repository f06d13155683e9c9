import { renumberingFault } from '@/core/catalogue/equivalent';
import { partKey } from '@/core/catalogue/match';
import { SUPERSESSION_KINDS, type Supersession, SupersessionGraph } from '@/core/catalogue/supersession';
import { loadParts, loadSupersessions } from '@/db/queries/catalogue';
import { supersessions } from '@/db/schema';
import { defineKind, type PlannedRow, type RawRow } from '../kind';

type Write = Omit<typeof supersessions.$inferInsert, 'fleetId' | 'id' | 'createdAt'>;

interface Here {
  readonly parts: ReadonlyMap<string, Awaited<ReturnType<typeof loadParts>>[number]>;
  graph: SupersessionGraph;
}

export const supersessionsKind = defineKind<Write>({
  name: 'supersessions',
  title: 'Supersessions',
  about:
    'One row a number that took the place of another. Renumbered: the same part, old and new boxes may be mixed. Redesigned: never mixed within one engine.',
  needs: ['parts'],
  dateColumns: ['since'],
  columns: [
    {
      key: 'old_number',
      required: true,
      help: 'The number that is replaced',
      example: 'SX-5201',
      aliases: ['from', 'old'],
    },
    {
      key: 'new_number',
      required: true,
      help: 'The number that replaces it',
      example: 'SX-5210',
      aliases: ['to', 'new'],
    },
    {
      key: 'supersession',
      required: true,
      help: 'renumbered or redesigned',
      example: 'redesigned',
      choices: SUPERSESSION_KINDS,
      aliases: ['what_changed'],
    },
    { key: 'since', help: 'Day it holds from', example: '2022-04-01' },
    { key: 'source', required: true, help: 'What is still open written', example: 'Demo data: Saxholm bulletin 22-4' },
    { key: 'note', help: 'Its own removal or torque note', example: 'two-piece shield' },
  ],

  async plan(q, { fleetId }, rows) {
    const parts = await loadParts(q, fleetId);
    const numbers = new Map(parts.map((part) => [part.id, part.number]));
    const edges = (await loadSupersessions(q, fleetId)).map(
      (row): Supersession => ({
        from: numbers.get(row.fromPartId) ?? row.fromPartId,
        to: numbers.get(row.toPartId) ?? row.toPartId,
        kind: row.kind,
        note: row.note,
      }),
    );
    const here: Here = {
      parts: new Map(parts.map((part) => [part.numberKey, part])),
      graph: new SupersessionGraph(edges),
    };
    return rows.map((row) => planRow(row, here));
  },

  async apply(tx, { fleetId }, writes) {
    for (const write of writes) await tx.insert(supersessions).values({ fleetId, ...write });
  },
});

function planRow({ line, reader: r }: RawRow, here: Here): PlannedRow<Write> {
  const [oldNumber, newNumber] = [r.required('old_number'), r.required('new_number')];
  const what = `${oldNumber} → ${newNumber}`;
  const kind = r.oneOf('supersession', SUPERSESSION_KINDS);
  const since = r.date('since');
  const [source, note] = [r.required('source'), r.text('note')];
  const [from, to] = [here.parts.get(partKey(oldNumber)), here.parts.get(partKey(newNumber))];
  if (oldNumber && !from) r.fault('old_number', `${oldNumber} is not here yet: import parts.csv first`);
  if (newNumber && !to) r.fault('new_number', `${newNumber} is not here yet: import parts.csv first`);
  if (from && to && from.kind !== to.kind) r.fault('new_number', `is a ${to.kind}, the old one a ${from.kind}`);
  const otherPart = kind === 'renumbered' && from && to ? renumberingFault(from, to) : null;
  if (otherPart) r.fault('supersession', otherPart);
  if (r.faults.length > 0 || !from || !to || !kind) return { line, verdict: 'refuse', what, reasons: r.faults };
  const edge: Supersession = { from: from.number, to: to.number, kind, note };
  const known = here.graph.edges.find((e) => e.from === edge.from && e.to === edge.to);
  if (known)
    return known.kind === kind
      ? { line, verdict: 'skip', what, reasons: ['already here'] }
      : { line, verdict: 'refuse', what, reasons: [`is already here as ${known.kind}`] };
  const refusal = here.graph.refusalOf(edge);
  if (refusal) return { line, verdict: 'refuse', what, reasons: [refusal] };
  here.graph = new SupersessionGraph([...here.graph.edges, edge]);
  return {
    line,
    verdict: 'add',
    what,
    reasons: [],
    write: { fromPartId: from.id, toPartId: to.id, kind, since: since?.date ?? null, source, note },
  };
}
