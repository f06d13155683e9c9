import { eq } from 'drizzle-orm';
import { ACCESS_CLASSES, type BankAccess, type Fastener, fastenersFromText } from '@/core/engine/access';
import { coilsFromText, standardCoils } from '@/core/engine/coils';
import { holesFromText, modelFaults } from '@/core/engine/layout';
import {
  ARRANGEMENTS,
  BANK_PLACES,
  type Bank,
  type Distributor,
  type EngineModel,
  IGNITIONS,
  INDUCTIONS,
  MOUNTINGS,
  ROTATIONS,
} from '@/core/engine/model';
import { type OtherWork, otherWorkFromText } from '@/core/engine/other-work';
import { type Resting, restingFromText } from '@/core/engine/resting';
import { weakPointFromText } from '@/core/engine/weak-points';
import { type BoostBand, boostFromText } from '@/core/gap/boost';
import { COMPOUND_PLACES } from '@/core/policy/apply';
import type { FleetId } from '@/core/shared/kinds';
import { HEADS } from '@/core/torque/plan';
import { readQuantity } from '@/core/units/read-quantity';
import type { Tx } from '@/db/client';
import { type EngineFamily, loadFamilies } from '@/db/queries/catalogue';
import { engineCylinders, engineFamilies } from '@/db/schema';
import { refreshFamiliesSoon } from '../../due/refresh-families';
import { MAX_LIST } from '../csv/row-reader';
import { defineKind, differences, type PlannedRow, type RawRow, SeenBefore } from '../kind';

interface FamilyWrite {
  readonly id: string | null;
  readonly values: Omit<typeof engineFamilies.$inferInsert, 'fleetId' | 'id' | 'version'>;
  readonly banks: readonly Bank[];
}

export const engineFamiliesKind = defineKind<FamilyWrite>({
  name: 'engine-families',
  title: 'Engine families',
  about:
    'One row an engine family: how its cylinders, plugs and coils are laid out. Stand at the front of the vehicle and look down at the engine: a transverse bank is listed from your left, a longitudinal one from the front.',
  needs: [],
  dateColumns: [],
  columns: [
    {
      key: 'code',
      required: true,
      help: 'The short name that other files use',
      example: 'PW-34M',
      aliases: ['engine_family', 'family'],
    },
    { key: 'name', required: true, help: 'What it is, in words', example: '3.4 l V6 transverse' },
    { key: 'displacement_l', help: 'Litres', example: '3.4', aliases: ['displacement'] },
    { key: 'arrangement', required: true, help: 'inline, v or flat', example: 'v', choices: ARRANGEMENTS },
    {
      key: 'mounting',
      required: true,
      help: 'longitudinal or transverse',
      example: 'transverse',
      choices: MOUNTINGS,
    },
    {
      key: 'ignition',
      required: true,
      help: 'coil_on_plug, coil_per_cylinder (leads), coil_rail, waste_spark or distributor',
      example: 'coil_on_plug',
      choices: IGNITIONS,
    },
    {
      key: 'induction',
      help: 'natural, turbo or supercharged; natural when empty',
      example: 'natural',
      choices: INDUCTIONS,
    },
    {
      key: 'head_material',
      required: true,
      help: 'aluminium or iron',
      example: 'aluminium',
      aliases: ['head'],
      choices: HEADS,
    },
    { key: 'hybrid', help: 'yes where a traction system must be isolated', example: 'no' },
    { key: 'plugs_per_cylinder', required: true, help: '1 or 2', example: '1' },
    {
      key: 'bank_1',
      required: true,
      help: 'Cylinders of the bank that holds cylinder 1, in their order',
      example: '1 3 5',
    },
    { key: 'bank_1_place', help: 'only, left, right, front or rear, as you stand; “only” when empty', example: 'rear' },
    { key: 'bank_2', help: 'Cylinders of the other bank', example: '2 4 6' },
    { key: 'bank_2_place', help: 'Place of the other bank', example: 'front' },
    { key: 'firing_order', required: true, help: 'Every cylinder once', example: '1 2 3 4 5 6' },
    {
      key: 'variants',
      help: 'Look-alike variants, separated by a vertical bar',
      example: 'with deactivation | without deactivation',
    },
    {
      key: 'resting_cylinders',
      help: 'Cylinders that rest at part load, after the variant that has it; entries separated by a vertical bar',
      example: 'with deactivation: 1 3 5',
    },
    {
      key: 'service_minutes',
      required: true,
      help: 'Bay time for one plug service, minutes',
      example: '210',
      aliases: ['minutes'],
    },
    {
      key: 'coils',
      help: 'Which plugs each unit fires, units separated by commas: 1, 2, 3 or 1 4, 2 3, or 1 4 2 3 for one housing; a word after a plug is the terminal that serves it: 1A upper 1B lower; empty where it is as usual for the ignition',
      example: '1, 2, 3, 4, 5, 6',
    },
    {
      key: 'hole_order',
      help: 'Two plugs a cylinder: the holes in the order in which they lie along each bank, banks separated by a vertical bar; empty where A and B lie side by side',
      example: '',
      aliases: ['holes'],
    },
    { key: 'connector_rail', help: 'yes where one strip holds the connectors of all coils of a bank', example: 'no' },
    {
      key: 'rotation',
      help: 'Distributor: clockwise or counterclockwise, seen from above',
      example: '',
      choices: ['', ...ROTATIONS],
    },
    { key: 'tower_of_cylinder_1', help: 'Distributor: tower of cylinder 1, counted clockwise from 1', example: '' },
    { key: 'lead_lengths_mm', help: 'Lengths of the leads it needs, in order of cylinder', example: '' },
    { key: 'cooling_minutes', help: 'Time constant of its head when it cools; 100 when empty', example: '100' },
    { key: 'compression_ratio', help: 'For example 10.5', example: '10.5' },
    { key: 'intake_kpa', help: 'Highest absolute pressure in the intake; about 100 without boost', example: '100' },
    {
      key: 'boost_gaps',
      help: 'Gaps by intake pressure, for vehicles with more boost than it left the works with, separated by a vertical bar',
      example: '180 kPa: 0.60 to 0.70 mm | 210 kPa: 0.50 to 0.60 mm',
    },
    { key: 'boost_source', help: 'Where these gaps stand', example: '' },
    {
      key: 'compound_place',
      help: 'Where compound goes, if any: threads, or threads_and_shield where the plugs have a long shield',
      example: 'threads',
      choices: ['', ...COMPOUND_PLACES],
    },
    {
      key: 'access',
      help: `How each bank is reached, and its minutes, bank 1 first: ${ACCESS_CLASSES.join(', ')}`,
      example: 'under_intake 140, open 70',
    },
    {
      key: 'fasteners',
      help: 'Screws opened on the way, with their own small torques',
      example: 'coil bolt M6 x6 9 N·m; intake bolt M8 x8 20 N·m centre outward',
    },
    {
      key: 'weak_points',
      help: 'Known weak points, separated by a vertical bar; each may begin with its kind: seizing, intake, brittle or other',
      example: 'seizing: long shields | intake: brittle duct',
    },
    {
      key: 'other_work',
      help: 'Not ignition, done in the same visit: its interval, its minutes and the bank it lies behind, separated by a vertical bar; work under a name of your own says its kind first: petrol strainer: fuel filter, 40000 km, 20 min',
      example: 'air filter: 40000 km, 24 months, 10 min | drive belt: 60 months, 45 min, front bank',
    },
  ],

  async plan(q, { fleetId }, rows) {
    const byCode = new Map((await loadFamilies(q, fleetId)).map((family) => [family.code, family]));
    const seen = new SeenBefore();
    return rows.map((row) => planRow(row, byCode, seen));
  },

  async apply(tx, { fleetId, today, jobs }, writes) {
    for (const write of writes) await save(tx, fleetId, write);
    // Any of them can change which sheet holds, and which sites there are, for any vehicle of its own.
    const codes = new Set(writes.map(({ values }) => values.code));
    const changed = (await loadFamilies(tx, fleetId)).filter(({ code }) => codes.has(code)).map(({ id }) => id);
    await refreshFamiliesSoon(tx, jobs, fleetId, today, changed, 'an engine family was changed');
  },
});

function planRow(
  { line, reader: r }: RawRow,
  byCode: ReadonlyMap<string, EngineFamily>,
  seen: SeenBefore,
): PlannedRow<FamilyWrite> {
  const code = r.required('code');
  const what = `engine family ${code}`;
  const plugs = r.integer('plugs_per_cylinder', 1, 2);
  if (plugs === null) r.fault('plugs_per_cylinder', 'give 1 or 2');
  const banks = readBanks(r);
  const firingOrder = r.integers('firing_order');
  const values = {
    code,
    name: r.required('name'),
    displacementL: r.decimal('displacement_l', 0.1, 30),
    arrangement: r.oneOf('arrangement', ARRANGEMENTS) ?? 'inline',
    mounting: r.oneOf('mounting', MOUNTINGS) ?? 'transverse',
    ignition: r.oneOf('ignition', IGNITIONS) ?? 'coil_on_plug',
    induction: r.oneOf('induction', INDUCTIONS, 'natural') ?? 'natural',
    headMaterial: r.oneOf('head_material', HEADS) ?? 'aluminium',
    hybrid: r.yesNo('hybrid'),
    connectorRail: r.yesNo('connector_rail'),
    holes: readHoles(r),
    plugsPerCylinder: plugs === 2 ? (2 as const) : (1 as const),
    firingOrder,
    variants: r.list('variants') ?? [],
    serviceMinutes: r.integer('service_minutes', 5, 2880) ?? r.fault('service_minutes', 'give the minutes') ?? 0,
    leadLengthsMm: r.numbers('lead_lengths_mm', 50, 3000),
    coolingMinutes: r.integer('cooling_minutes', 20, 600),
    compressionRatio: r.decimal('compression_ratio', 4, 20),
    intakeKpa: r.integer('intake_kpa', 50, 500),
    boostBands: readBoost(r),
    boostSource: r.text('boost_source'),
    compoundPlace: r.text('compound_place') === null ? null : r.oneOf('compound_place', COMPOUND_PLACES),
    access: readAccess(r),
    fasteners: readFasteners(r),
    weakPoints: r.list('weak_points')?.map(weakPointFromText) ?? null,
    otherWork: readOtherWork(r),
  };
  const model = { ...values, banks };
  const resting = readResting(r, values);
  const coils = readCoils(r, model);
  const distributor = readDistributor(r);
  if (r.faults.length === 0)
    r.faults.push(
      ...modelFaults({ ...model, coils: coils ?? standardCoils(model), distributor } satisfies EngineModel),
    );
  if (r.faults.length === 0) serviceFaults(r, values, banks);
  if (r.faults.length > 0) return { line, verdict: 'refuse', what, reasons: r.faults };
  const stored = { ...values, resting, coils, distributor };
  const again = seen.check(code, line, { stored, banks });
  if (again) return { line, verdict: again.verdict, what, reasons: [again.reason] };
  const before = byCode.get(code);
  if (!before) return { line, verdict: 'add', what, reasons: [], write: { id: null, values: stored, banks } };
  const changed = differences({ ...before, banks: before.model.banks }, { ...stored, banks });
  return changed.length === 0
    ? { line, verdict: 'skip', what, reasons: ['already here'] }
    : {
        line,
        verdict: 'change',
        what,
        reasons: [`changes ${changed.join(', ')}`],
        write: { id: before.id, values: stored, banks },
      };
}

/** Null: as its ignition usually has them. */
function readCoils(r: RawRow['reader'], model: Parameters<typeof standardCoils>[0]) {
  const text = r.text('coils');
  if (text === null) return null;
  return (
    coilsFromText(model, text)?.map((coil) => ({ ...coil, fires: [...coil.fires] })) ??
    r.fault('coils', `“${text}” is not a list such as 1, 2, 3 or 1 4, 2 3`)
  );
}

/** Null: A and B of a cylinder lie side by side. */
function readHoles(r: RawRow['reader']) {
  const text = r.text('hole_order');
  if (text === null) return null;
  return (
    holesFromText(text)?.map((bank) => [...bank]) ??
    r.fault('hole_order', `“${text}” is not a list such as 1A 3A 1B 3B | 2A 4A 2B 4B`)
  );
}

function readResting(
  r: RawRow['reader'],
  { variants, firingOrder }: { readonly variants: readonly string[]; readonly firingOrder: readonly number[] },
): Resting[] {
  const read = restingFromText(r.text('resting_cylinders') ?? '', { variants, cylinders: firingOrder });
  if (!read.ok) r.fault('resting_cylinders', read.error);
  return read.ok ? [...read.value] : [];
}

function readOtherWork(r: RawRow['reader']): OtherWork[] {
  const read = otherWorkFromText(r.text('other_work', MAX_LIST) ?? '');
  if (!read.ok) r.fault('other_work', read.error);
  return read.ok ? [...read.value] : [];
}

function readBoost(r: RawRow['reader']): BoostBand[] {
  const read = boostFromText(r.text('boost_gaps', MAX_LIST) ?? '');
  if (!read.ok) r.fault('boost_gaps', read.error);
  if (read.ok && read.value.length > 0 && r.text('boost_source') === null)
    r.fault('boost_source', 'say where these gaps stand');
  return read.ok ? [...read.value] : [];
}

function readDistributor(r: RawRow['reader']): Distributor | null {
  if (r.text('rotation') === null) return null;
  const rotation = r.oneOf('rotation', ROTATIONS);
  return rotation && { rotation, towerOfCylinder1: r.integer('tower_of_cylinder_1', 1, 16) ?? 1 };
}

function readAccess(r: RawRow['reader']): BankAccess[] | null {
  const text = r.text('access');
  if (text === null) return null;
  const banks = text.split(',').map((part) => {
    const [name, minutes] = part.trim().split(/\s+/);
    const access = ACCESS_CLASSES.find((known) => known === name);
    return access && minutes && /^\d{1,4}$/.test(minutes) ? { access, minutes: Number(minutes) } : null;
  });
  const whole = banks.filter((bank) => bank !== null);
  if (whole.length === banks.length) return whole;
  return r.fault(
    'access',
    `“${text}” cannot be read. Write it like under_intake 140, open 70; ways are ${ACCESS_CLASSES.join(', ')}`,
  );
}

function readFasteners(r: RawRow['reader']): Fastener[] | null {
  const text = r.text('fasteners', MAX_LIST);
  if (text === null) return null;
  const read = fastenersFromText(text, (torque) => {
    const reading = readQuantity({ kind: 'torque', text: torque, window: { min: 0.5, max: 200 } });
    return reading.verdict === 'ok' ? reading.valueSi : null;
  });
  return read.ok ? [...read.value] : r.fault('fasteners', read.error);
}

/** What is written of an engine besides its layout must agree with it. */
function serviceFaults(
  r: RawRow['reader'],
  values: {
    readonly access: readonly BankAccess[] | null;
    readonly leadLengthsMm: readonly number[] | null;
    readonly firingOrder: readonly number[];
    readonly plugsPerCylinder: 1 | 2;
  },
  banks: readonly Bank[],
): void {
  const { access, leadLengthsMm, firingOrder, plugsPerCylinder } = values;
  if (access && access.length !== banks.length)
    r.fault('access', `names ${access.length} banks, the engine has ${banks.length}`);
  const sites = firingOrder.length * plugsPerCylinder;
  if (leadLengthsMm && leadLengthsMm.length !== sites)
    r.fault('lead_lengths_mm', `names ${leadLengthsMm.length} leads, the engine has ${sites} plugs`);
}

function readBanks(r: RawRow['reader']): Bank[] {
  const first = { place: r.oneOf('bank_1_place', BANK_PLACES, 'only') ?? 'only', cylinders: r.integers('bank_1') };
  const second = r.integers('bank_2');
  if (second.length === 0) return [first];
  return [first, { place: r.oneOf('bank_2_place', BANK_PLACES) ?? 'only', cylinders: second }];
}

async function save(tx: Tx, fleetId: FleetId, { id, values, banks }: FamilyWrite): Promise<void> {
  const [row] = id
    ? await tx.update(engineFamilies).set(values).where(eq(engineFamilies.id, id)).returning()
    : await tx
        .insert(engineFamilies)
        .values({ fleetId, ...values })
        .returning();
  if (!row) throw new Error('the engine family was not written');
  await tx.delete(engineCylinders).where(eq(engineCylinders.engineFamilyId, row.id));
  await tx.insert(engineCylinders).values(
    banks.flatMap((bank, b) =>
      bank.cylinders.map((cylinder, place) => ({
        fleetId,
        engineFamilyId: row.id,
        cylinder,
        bank: b + 1,
        bankPlace: bank.place,
        place,
      })),
    ),
  );
}
