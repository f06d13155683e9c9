import { eq } from 'drizzle-orm';
import {
  ARRANGEMENTS,
  BANK_PLACES,
  type Bank,
  type EngineModel,
  IGNITIONS,
  MOUNTINGS,
  modelFaults,
} from '@/core/engine/layout';
import { HEADS } from '@/core/torque/plan';
import type { Tx } from '@/db/client';
import { type EngineFamily, loadFamilies } from '@/db/queries/catalogue';
import { engineCylinders, engineFamilies } from '@/db/schema';
import { refreshStatus } from '../../due/refresh-status';
import { defineKind, differences, type PlannedRow, type RawRow, SeenBefore } from '../kind';

interface FamilyWrite {
  readonly id: string | null;
  readonly values: Omit<typeof engineFamilies.$inferInsert, 'fleetId' | 'id' | 'version'>;
  readonly banks: readonly Bank[];
}

const INDUCTIONS = ['natural', 'turbo', 'supercharged'] as const;

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
    { key: 'arrangement', required: true, help: 'inline, v or flat', example: 'v' },
    { key: 'mounting', required: true, help: 'longitudinal or transverse', example: 'transverse' },
    {
      key: 'ignition',
      required: true,
      help: 'coil_on_plug, coil_per_cylinder (leads), coil_rail, waste_spark or distributor',
      example: 'coil_on_plug',
    },
    { key: 'induction', help: 'natural, turbo or supercharged; natural when empty', example: 'natural' },
    { key: 'head_material', required: true, help: 'aluminium or iron', example: 'aluminium', aliases: ['head'] },
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
      key: 'service_minutes',
      required: true,
      help: 'Bay time for one plug service, minutes',
      example: '210',
      aliases: ['minutes'],
    },
  ],

  async plan(q, { fleetId }, rows) {
    const byCode = new Map((await loadFamilies(q, fleetId)).map((family) => [family.code, family]));
    const seen = new SeenBefore();
    return rows.map((row) => planRow(row, byCode, seen));
  },

  async apply(tx, { fleetId }, writes) {
    for (const write of writes) await save(tx, fleetId, write);
    // Any of them can change which sheet holds, and which sites there are, for any vehicle.
    await refreshStatus(tx, fleetId, null);
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
    plugsPerCylinder: plugs === 2 ? (2 as const) : (1 as const),
    firingOrder,
    variants: (r.text('variants') ?? '')
      .split('|')
      .map((v) => v.trim())
      .filter(Boolean),
    serviceMinutes: r.integer('service_minutes', 5, 2880) ?? r.fault('service_minutes', 'give the minutes') ?? 0,
  };
  if (r.faults.length === 0) r.faults.push(...modelFaults({ ...values, banks } satisfies EngineModel));
  if (r.faults.length > 0) return { line, verdict: 'refuse', what, reasons: r.faults };
  const again = seen.check(code, line, { values, banks });
  if (again) return { line, verdict: again.verdict, what, reasons: [again.reason] };
  const before = byCode.get(code);
  if (!before) return { line, verdict: 'add', what, reasons: [], write: { id: null, values, banks } };
  const changed = differences({ ...before, banks: before.model.banks }, { ...values, banks });
  return changed.length === 0
    ? { line, verdict: 'skip', what, reasons: ['already here'] }
    : {
        line,
        verdict: 'change',
        what,
        reasons: [`changes ${changed.join(', ')}`],
        write: { id: before.id, values, banks },
      };
}

function readBanks(r: RawRow['reader']): Bank[] {
  const first = { place: r.oneOf('bank_1_place', BANK_PLACES, 'only') ?? 'only', cylinders: r.integers('bank_1') };
  const second = r.integers('bank_2');
  if (second.length === 0) return [first];
  return [first, { place: r.oneOf('bank_2_place', BANK_PLACES) ?? 'only', cylinders: second }];
}

async function save(tx: Tx, fleetId: string, { id, values, banks }: FamilyWrite): Promise<void> {
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
