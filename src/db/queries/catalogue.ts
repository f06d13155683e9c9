import { and, asc, eq, inArray, or, sql } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Candidate } from '@/core/catalogue/match';
import { standardCoils } from '@/core/engine/coils';
import type { Bank, EngineModel } from '@/core/engine/model';
import type { Electrode } from '@/core/gap/check';
import { groupBy } from '@/core/shared/group-by';
import type { FleetId, Mm, Nm } from '@/core/shared/kinds';
import type { Seat, Thread } from '@/core/torque/plan';
import type { Querier } from '../client';
import { engineCylinders, engineFamilies, heatCrosses, numberCodes, parts, specSheets, supersessions } from '../schema';

type EngineFamilyRow = typeof engineFamilies.$inferSelect;

export interface EngineFamily extends EngineFamilyRow {
  readonly model: EngineModel;
}

/** All engine families of a fleet with their layouts, by code. */
export async function loadFamilies(
  q: Querier,
  fleetId: FleetId,
  ids?: readonly string[],
): Promise<readonly EngineFamily[]> {
  const families = await q
    .select()
    .from(engineFamilies)
    .where(and(eq(engineFamilies.fleetId, fleetId), ids ? inArray(engineFamilies.id, [...ids]) : undefined))
    .orderBy(asc(engineFamilies.code));
  const cylinders = await q
    .select()
    .from(engineCylinders)
    .where(
      and(eq(engineCylinders.fleetId, fleetId), ids ? inArray(engineCylinders.engineFamilyId, [...ids]) : undefined),
    )
    .orderBy(asc(engineCylinders.bank), asc(engineCylinders.place));
  const byFamily = groupBy(cylinders, (row) => row.engineFamilyId);
  return families.map((family) => ({ ...family, model: toModel(family, byFamily.get(family.id) ?? []) }));
}

function toModel(family: EngineFamilyRow, cylinders: readonly (typeof engineCylinders.$inferSelect)[]): EngineModel {
  const banks = [...groupBy(cylinders, (row) => row.bank).values()];
  const model = {
    arrangement: family.arrangement,
    mounting: family.mounting,
    ignition: family.ignition,
    plugsPerCylinder: family.plugsPerCylinder,
    firingOrder: family.firingOrder,
    holes: family.holes,
    connectorRail: family.connectorRail,
    banks: banks.map(
      (rows): Bank => ({ place: rows[0]?.bankPlace ?? 'only', cylinders: rows.map((row) => row.cylinder) }),
    ),
  };
  const usual = family.ignition === 'distributor' ? ({ rotation: 'clockwise', towerOfCylinder1: 1 } as const) : null;
  return { ...model, coils: family.coils ?? standardCoils(model), distributor: family.distributor ?? usual };
}

type SpecRow = typeof specSheets.$inferSelect;
export type PartRow = typeof parts.$inferSelect;

/** A sheet for any component, with its part and who has checked it. */
export type ComponentSheet = SpecRow & Candidate & { readonly part: PartRow };

/** A plug: its table sees to it that what decides about it is known. */
type PlugPart = PartRow & { readonly electrode: Electrode; readonly thread: Thread; readonly seat: Seat };
const isPlug = (part: PartRow): part is PlugPart =>
  part.electrode !== null && part.thread !== null && part.seat !== null;

/** A sheet for a plug: whole, as a constraint of its table says. */
export type SpecSheet = ComponentSheet & {
  readonly part: PlugPart;
  readonly gapMinMm: Mm;
  readonly gapMaxMm: Mm;
  readonly gapAsTyped: string;
  readonly torqueMinNm: Nm;
  readonly torqueMaxNm: Nm;
  readonly torqueAsTyped: string;
  readonly intervalAsTyped: string;
};

/** Sheets of a fleet for every component; `today` says which have expired. */
export async function loadSheets(
  q: Querier,
  fleetId: FleetId,
  today: string,
  which: {
    readonly ids?: readonly string[];
    readonly familyIds?: readonly string[];
    /** Beside those by id. */
    readonly orFamilyIds?: readonly string[];
  } = {},
): Promise<readonly ComponentSheet[]> {
  const checkedSince = sql<string | null>`(
    select p.name from sheet_checks c join people p on p.id = c.person_id
    where c.spec_sheet_id = ${specSheets.id} order by c.at limit 1)`;
  const rows = await q
    .select({ sheet: specSheets, part: parts, checkedSince })
    .from(specSheets)
    .innerJoin(parts, eq(parts.id, specSheets.partId))
    .where(
      and(
        eq(specSheets.fleetId, fleetId),
        or(
          which.ids ? inArray(specSheets.id, [...which.ids]) : undefined,
          which.orFamilyIds ? inArray(specSheets.engineFamilyId, [...which.orFamilyIds]) : undefined,
        ),
        which.familyIds ? inArray(specSheets.engineFamilyId, [...which.familyIds]) : undefined,
      ),
    );
  return rows.map(({ sheet, part, checkedSince: checked }) => ({
    ...sheet,
    checkedBy: sheet.checkedBy ?? checked,
    expired: sheet.expiresOn !== null && sheet.expiresOn < today,
    part,
  }));
}

/** Plug sheets of a fleet with their part; `ids` narrows to some. */
export async function loadSpecs(
  q: Querier,
  fleetId: FleetId,
  today: string,
  ids?: readonly string[],
): Promise<readonly SpecSheet[]> {
  return (await loadSheets(q, fleetId, today, ids && { ids })).filter(isPlugSheet);
}

export const isPlugSheet = (sheet: ComponentSheet): sheet is SpecSheet =>
  sheet.component === 'plug' && isPlug(sheet.part);

/** All parts of a fleet by number. */
export async function loadParts(q: Querier, fleetId: FleetId): Promise<readonly PartRow[]> {
  return q.select().from(parts).where(eq(parts.fleetId, fleetId)).orderBy(asc(parts.number));
}

/** Some parts of a fleet, by the keys of their numbers. */
export async function loadPartsByKey(
  q: Querier,
  fleetId: FleetId,
  keys: readonly string[],
): Promise<readonly PartRow[]> {
  if (keys.length === 0) return [];
  return q
    .select()
    .from(parts)
    .where(and(eq(parts.fleetId, fleetId), inArray(parts.numberKey, [...keys])));
}

/** Supersessions between part ids, oldest first. */
export async function loadSupersessions(q: Querier, fleetId: FleetId) {
  return q
    .select()
    .from(supersessions)
    .where(eq(supersessions.fleetId, fleetId))
    .orderBy(asc(supersessions.createdAt), asc(supersessions.id));
}

/** The same between part number keys. */
export async function loadEdges(q: Querier, fleetId: FleetId) {
  const [from, to] = [alias(parts, 'from_part'), alias(parts, 'to_part')];
  return q
    .select({ from: from.numberKey, to: to.numberKey, kind: supersessions.kind, note: supersessions.note })
    .from(supersessions)
    .innerJoin(from, eq(from.id, supersessions.fromPartId))
    .innerJoin(to, eq(to.id, supersessions.toPartId))
    .where(eq(supersessions.fleetId, fleetId))
    .orderBy(asc(supersessions.createdAt), asc(supersessions.id));
}

export async function loadHeatCrosses(q: Querier, fleetId: FleetId) {
  return q.select().from(heatCrosses).where(eq(heatCrosses.fleetId, fleetId));
}

/** The makers' tables of number codes, by maker and place. */
export async function loadNumberCodes(q: Querier, fleetId: FleetId) {
  return q
    .select()
    .from(numberCodes)
    .where(eq(numberCodes.fleetId, fleetId))
    .orderBy(asc(numberCodes.maker), asc(numberCodes.place), asc(numberCodes.code));
}
