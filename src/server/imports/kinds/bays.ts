import { eq } from 'drizzle-orm';
import { type WeekHours, weekFromText } from '@/core/planning/presence';
import { bays, depots } from '@/db/schema';
import { defineKind, differences, type PlannedRow, type RawRow, SeenBefore } from '../kind';

interface BayWrite {
  /** Null: it is new. */
  readonly id: string | null;
  readonly values: {
    readonly depotId: string;
    readonly name: string;
    readonly can: string[];
    readonly hours: WeekHours | null;
  };
}

interface Known {
  readonly depots: ReadonlyMap<string, string>;
  readonly bays: readonly (typeof bays.$inferSelect)[];
}

export const baysKind = defineKind<BayWrite>({
  name: 'bays',
  title: 'Bays',
  about: 'One row a bay: its depot, what it takes besides any vehicle, and its own hours.',
  needs: ['vehicles'],
  dateColumns: [],
  columns: [
    { key: 'depot', required: true, help: 'Where it is; depots come with the vehicles', example: 'Northhaven' },
    { key: 'bay', required: true, help: 'Its name, once in the depot', example: 'Bay 1', aliases: ['name'] },
    { key: 'can', help: 'What it takes besides any vehicle, separated by a vertical bar', example: 'hybrid | lift' },
    {
      key: 'hours',
      help: 'Its own hours by weekday; empty: those of the depot',
      example: 'Mon Tue Wed Thu 08:00-16:00, Fri 08:00-12:00',
    },
  ],

  async plan(q, { fleetId }, rows) {
    const known: Known = {
      depots: new Map(
        (await q.select().from(depots).where(eq(depots.fleetId, fleetId))).map((row) => [row.name, row.id]),
      ),
      bays: await q.select().from(bays).where(eq(bays.fleetId, fleetId)),
    };
    const seen = new SeenBefore();
    return rows.map((row) => planRow(row, known, seen));
  },

  async apply(tx, { fleetId }, writes) {
    for (const { id, values } of writes)
      if (id === null) await tx.insert(bays).values({ fleetId, ...values });
      else await tx.update(bays).set(values).where(eq(bays.id, id));
  },
});

function planRow({ line, reader: r }: RawRow, known: Known, seen: SeenBefore): PlannedRow<BayWrite> {
  const [depot, name] = [r.required('depot'), r.required('bay')];
  const what = `${depot} ${name}`;
  const depotId = known.depots.get(depot);
  if (depot && !depotId) r.fault('depot', `${depot} is not here yet: import vehicles.csv first`);
  if (name.length > 40) r.fault('bay', 'at most 40 characters');
  const text = r.text('hours');
  const hours = text === null ? null : weekFromText(text);
  if (text !== null && hours === null)
    r.fault('hours', `“${text}” cannot be read. Write it like Mon Tue Wed Thu 08:00-16:00, Fri 08:00-12:00`);
  const values = { depotId: depotId ?? '', name, can: (r.list('can') ?? []).map((word) => word.toLowerCase()), hours };
  if (r.faults.length > 0) return { line, verdict: 'refuse', what, reasons: r.faults };
  const again = seen.check(what, line, values);
  if (again) return { line, verdict: again.verdict, what, reasons: [again.reason] };
  const before = known.bays.find((bay) => bay.depotId === values.depotId && bay.name === name);
  if (!before) return { line, verdict: 'add', what, reasons: [], write: { id: null, values } };
  const changed = differences(before, values);
  return changed.length === 0
    ? { line, verdict: 'skip', what, reasons: ['already here'] }
    : { line, verdict: 'change', what, reasons: [`changes ${changed.join(', ')}`], write: { id: before.id, values } };
}
