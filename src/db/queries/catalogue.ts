import { and, asc, eq, inArray } from 'drizzle-orm';
import type { Bank, EngineModel } from '@/core/engine/layout';
import type { Candidate } from '@/core/fitment/match';
import { groupBy } from '@/core/shared/group-by';
import type { Querier } from '../client';
import { engineCylinders, engineFamilies, parts, specSheets } from '../schema';

export type EngineFamilyRow = typeof engineFamilies.$inferSelect;

export interface EngineFamily extends EngineFamilyRow {
  readonly model: EngineModel;
}

/** All engine families of a fleet with their layouts, by code. */
export async function loadFamilies(q: Querier, fleetId: string): Promise<readonly EngineFamily[]> {
  const families = await q
    .select()
    .from(engineFamilies)
    .where(eq(engineFamilies.fleetId, fleetId))
    .orderBy(asc(engineFamilies.code));
  const cylinders = await q
    .select()
    .from(engineCylinders)
    .where(eq(engineCylinders.fleetId, fleetId))
    .orderBy(asc(engineCylinders.bank), asc(engineCylinders.place));
  const byFamily = groupBy(cylinders, (row) => row.engineFamilyId);
  return families.map((family) => ({ ...family, model: toModel(family, byFamily.get(family.id) ?? []) }));
}

function toModel(family: EngineFamilyRow, cylinders: readonly (typeof engineCylinders.$inferSelect)[]): EngineModel {
  const banks = [...groupBy(cylinders, (row) => row.bank).values()];
  return {
    arrangement: family.arrangement,
    mounting: family.mounting,
    ignition: family.ignition,
    plugsPerCylinder: family.plugsPerCylinder,
    firingOrder: family.firingOrder,
    banks: banks.map(
      (rows): Bank => ({ place: rows[0]?.bankPlace ?? 'only', cylinders: rows.map((row) => row.cylinder) }),
    ),
  };
}

export type SpecRow = typeof specSheets.$inferSelect;
export type PartRow = typeof parts.$inferSelect;

export type SpecSheet = SpecRow & Candidate & { readonly part: PartRow };

/** Spec sheets of a fleet with their part; `ids` narrows to some. */
export async function loadSpecs(q: Querier, fleetId: string, ids?: readonly string[]): Promise<readonly SpecSheet[]> {
  const rows = await q
    .select()
    .from(specSheets)
    .innerJoin(parts, eq(parts.id, specSheets.partId))
    .where(and(eq(specSheets.fleetId, fleetId), ids ? inArray(specSheets.id, [...ids]) : undefined));
  return rows.map((row) => ({ ...row.spec_sheets, part: row.parts }));
}
