import { eq, inArray } from 'drizzle-orm';
import { plainVin, readVin, yearContradiction } from '@/core/catalogue/vin';
import { STEERING_SIDES } from '@/core/engine/sides';
import type { FleetId } from '@/core/shared/kinds';
import type { Querier, Tx } from '@/db/client';
import { type EngineFamily, loadFamilies } from '@/db/queries/catalogue';
import { depots, vehicles } from '@/db/schema';
import { refreshDue } from '../../due/refresh-due';
import { defineKind, differences, type PlannedRow, type PlanScope, type RawRow, SeenBefore } from '../kind';

type Values = Omit<typeof vehicles.$inferInsert, 'fleetId' | 'id' | 'version' | 'depotId' | 'createdAt'> & {
  readonly depot: string;
};
interface VehicleWrite {
  readonly id: string | null;
  readonly version: number;
  readonly values: Values;
}
type Known = Values & { readonly id: string; readonly version: number };

export const vehiclesKind = defineKind<VehicleWrite>({
  name: 'vehicles',
  title: 'Vehicles',
  about:
    'One row a vehicle. A depot that is not here yet is made. Leave variant or model year empty when nobody has looked: Isobar then asks instead of guessing.',
  needs: ['engine-families'],
  dateColumns: ['in_service_on', 'built_on', 'retires_on'],
  columns: [
    {
      key: 'unit_number',
      required: true,
      help: 'Your own number of the vehicle',
      example: '32',
      aliases: ['unit', 'fleet_number', 'vehicle'],
    },
    {
      key: 'name',
      required: true,
      help: 'What people call it',
      example: 'lifeboat-crew pickup',
      aliases: ['description'],
    },
    { key: 'depot', required: true, help: 'Where it is kept', example: 'Northhaven' },
    {
      key: 'duty_group',
      required: true,
      help: 'Vehicles of like use: they lend each other a use rate',
      example: 'lifeboat pickups',
      aliases: ['group', 'duty'],
    },
    { key: 'make', help: '', example: 'Pellworm' },
    { key: 'model', help: '', example: 'Strand' },
    { key: 'model_year', help: 'Decides between look-alike engines', example: '2019', aliases: ['year'] },
    { key: 'vin', help: '17 characters', example: '' },
    {
      key: 'engine_family',
      required: true,
      help: 'Code of the engine family',
      example: 'PW-34M',
      aliases: ['engine', 'engine_code'],
    },
    { key: 'variant', help: 'Variant of the engine; empty when unknown', example: '' },
    {
      key: 'in_service_on',
      required: true,
      help: 'First day in service',
      example: '2019-05-06',
      aliases: ['in_service'],
    },
    { key: 'odometer_unit', help: 'km or mi: what the dash shows; km when empty', example: 'km' },
    { key: 'built_on', help: 'Day of build', example: '2018-11-20' },
    { key: 'fuel', help: 'Such as petrol, e85 or lpg', example: 'petrol' },
    { key: 'induction', help: 'natural, turbo or supercharged, where the family has both', example: '' },
    { key: 'market', help: 'For which market it was built', example: '' },
    { key: 'steering', help: 'Side on which the driver sits', example: 'left', choices: ['', ...STEERING_SIDES] },
    { key: 'severe_duty', help: 'yes for the short interval', example: 'no', aliases: ['severe'] },
    { key: 'failure_cost', help: 'Of a failure on the road; empty: that of its duty group', example: '1200' },
    {
      key: 'options',
      help: 'What it has or lacks that the way to its plugs depends on, separated by a vertical bar',
      example: 'air suspension',
    },
    { key: 'intake_kpa', help: 'Absolute intake pressure where it is not its family’s: a tuned engine', example: '' },
    { key: 'hour_cost', help: 'Of an hour out of service; empty: that of the fleet', example: '20' },
    {
      key: 'sleeps_at_bay',
      help: 'yes where it is parked overnight at its bay: it is cool in the morning',
      example: 'no',
    },
    { key: 'retires_on', help: 'Day on which it leaves the fleet', example: '2028-06-30', aliases: ['leaves_on'] },
  ],

  async plan(q, scope, rows) {
    const families = new Map((await loadFamilies(q, scope.fleetId)).map((family) => [family.code, family]));
    const known = await knownVehicles(q, scope.fleetId);
    const seen = new SeenBefore();
    return rows.map((row) => planRow(row, scope, families, known, seen));
  },

  async apply(tx, { fleetId, today }, writes) {
    const depotIds = await ensureDepots(
      tx,
      fleetId,
      writes.map((write) => write.values.depot),
    );
    const added: (typeof vehicles.$inferInsert)[] = [];
    const changed: string[] = [];
    for (const { id, version, values } of writes) {
      const { depot, ...rest } = values;
      const row = { ...rest, depotId: depotIds.get(depot) ?? '' };
      if (id === null) added.push({ fleetId, ...row });
      else {
        await tx
          .update(vehicles)
          .set({ ...row, version: version + 1 })
          .where(eq(vehicles.id, id));
        changed.push(id);
      }
    }
    for (let at = 0; at < added.length; at += 1000) {
      const made = await tx
        .insert(vehicles)
        .values(added.slice(at, at + 1000))
        .returning({ id: vehicles.id });
      changed.push(...made.map((row) => row.id));
    }
    await refreshDue(tx, fleetId, today, changed);
  },
});

async function knownVehicles(q: Querier, fleetId: FleetId): Promise<ReadonlyMap<string, Known>> {
  const rows = await q
    .select({ v: vehicles, depot: depots.name })
    .from(vehicles)
    .innerJoin(depots, eq(depots.id, vehicles.depotId))
    .where(eq(vehicles.fleetId, fleetId));
  return new Map(rows.map(({ v, depot }) => [v.unitNumber, { ...v, depot }]));
}

function planRow(
  { line, reader: r }: RawRow,
  scope: PlanScope,
  families: ReadonlyMap<string, EngineFamily>,
  known: ReadonlyMap<string, Known>,
  seen: SeenBefore,
): PlannedRow<VehicleWrite> {
  const unitNumber = r.required('unit_number');
  const what = `unit ${unitNumber}`;
  const code = r.required('engine_family');
  const family = families.get(code);
  if (code && !family) r.fault('engine_family', `${code} is not here yet: import engine-families.csv first`);
  const inService = r.date('in_service_on');
  if (!inService && !r.faults.some((fault) => fault.startsWith('in_service_on'))) r.fault('in_service_on', 'is empty');
  if (inService && inService.date > scope.today) r.fault('in_service_on', `${inService.date} is in the future`);
  const variant = r.text('variant');
  if (variant !== null && family && !family.variants.includes(variant))
    r.fault('variant', `${code} has no variant “${variant}”: it knows ${family.variants.join(' and ') || 'none'}`);
  const vin = r.text('vin') === null ? null : plainVin(r.text('vin') ?? '');
  const vinReading = vin === null ? null : readVin(vin);
  if (vinReading && !vinReading.valid) r.fault('vin', vinReading.reasons.join('; '));
  const modelYear = r.integer('model_year', 1950, 2100);
  const contradiction = vin !== null && modelYear !== null ? yearContradiction(vin, modelYear) : null;
  if (contradiction) r.fault('vin', contradiction);
  const builtOn = r.date('built_on');
  const values = {
    unitNumber,
    name: r.required('name'),
    depot: r.required('depot'),
    dutyGroup: r.required('duty_group'),
    make: r.text('make'),
    model: r.text('model'),
    modelYear,
    vin,
    engineFamilyId: family?.id ?? '',
    variant,
    inServiceOn: inService?.date ?? '',
    odometerUnit: r.oneOf('odometer_unit', ['km', 'mi'], 'km') ?? 'km',
    severeDuty: r.yesNo('severe_duty'),
    options: r.list('options') ?? [],
    intakeKpa: r.integer('intake_kpa', 50, 500),
    hourCost: r.integer('hour_cost', 0, 100_000),
    sleepsAtBay: r.yesNo('sleeps_at_bay'),
    failureCost: r.integer('failure_cost', 1, 10_000_000),
    retiresOn: r.date('retires_on')?.date ?? null,
    builtOn: builtOn?.date ?? null,
    fuel: r.text('fuel'),
    induction: r.text('induction'),
    market: r.text('market'),
    steering: r.text('steering') === null ? null : r.oneOf('steering', STEERING_SIDES),
  };
  if (r.faults.length > 0) return { line, verdict: 'refuse', what, reasons: r.faults };
  const again = seen.check(unitNumber, line, values);
  if (again) return { line, verdict: again.verdict, what, reasons: [again.reason] };
  const before = known.get(unitNumber);
  if (!before) return { line, verdict: 'add', what, reasons: [], write: { id: null, version: 0, values } };
  const changed = differences(before, values);
  return changed.length === 0
    ? { line, verdict: 'skip', what, reasons: ['already here'] }
    : {
        line,
        verdict: 'change',
        what,
        reasons: [`changes ${changed.map((key) => (key === 'engineFamilyId' ? 'engine family' : key)).join(', ')}`],
        write: { id: before.id, version: before.version, values },
      };
}

async function ensureDepots(tx: Tx, fleetId: FleetId, names: readonly string[]): Promise<ReadonlyMap<string, string>> {
  const wanted = [...new Set(names)];
  if (wanted.length === 0) return new Map();
  await tx
    .insert(depots)
    .values(wanted.map((name) => ({ fleetId, name })))
    .onConflictDoNothing();
  const rows = await tx.select().from(depots).where(inArray(depots.name, wanted));
  return new Map(rows.filter((row) => row.fleetId === fleetId).map((row) => [row.name, row.id]));
}
