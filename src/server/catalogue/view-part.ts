import { and, asc, eq, isNull, or, sql } from 'drizzle-orm';
import { z } from 'zod';
import { compareParts } from '@/core/catalogue/equivalent';
import { match, partKey } from '@/core/catalogue/match';
import { type NearNumber, nearestNumbers } from '@/core/catalogue/nearest-number';
import { withOthersInForce } from '@/core/catalogue/others-in-force';
import { mixing, type SupersessionGraph } from '@/core/catalogue/supersession';
import { layoutOf } from '@/core/engine/layout';
import { quantityOf } from '@/core/engine/quantities';
import type { PartId } from '@/core/shared/kinds';
import { ok } from '@/core/shared/result';
import { stockAge } from '@/core/stock/age';
import {
  isPlugSheet,
  loadFamilies,
  loadHeatCrosses,
  loadSheets,
  loadSpecs,
  type PartRow,
  type SpecSheet,
} from '@/db/queries/catalogue';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { deliveries, fittedComponents, vehicles } from '@/db/schema';
import type { Actor } from '../access';
import type { Deps } from '../deps';
import { notFound, type Outcome } from '../failure';
import { useCase } from '../use-case';
import { currentOf, gapSpecOf, loadGraph } from './fitment-of';
import { type ReadNumber, readNumberOf } from './read-number';

/** Every part with the number that it goes by today. */
export const listParts = useCase({
  permission: 'read the fleet',
  async run(deps, actor) {
    const { graph, parts, byKey } = await loadGraph(deps.db, actor.fleetId);
    return ok(parts.map((part) => ({ part, current: currentOf(graph, byKey, part) })));
  },
});

/** A part with its history, what may stand for it, the sheets that name it and the vehicles that take it. */
export const viewPart = useCase({
  permission: 'read the fleet',
  input: z.uuid(),
  async run(deps, actor, id) {
    const { graph, parts, byKey, rows } = await loadGraph(deps.db, actor.fleetId);
    const part = parts.find((p) => p.id === id);
    if (!part) return notFound('part');
    const [crosses, families, sheets, keys, fitted] = await Promise.all([
      loadHeatCrosses(deps.db, actor.fleetId),
      loadFamilies(deps.db, actor.fleetId),
      loadSheets(deps.db, actor.fleetId, deps.today()),
      loadVehicleKeys(deps.db, actor.fleetId, null),
      fittedNow(deps, actor, id),
    ]);
    const line = graph.family(part.numberKey);
    const onLine = new Set(line);
    const taking = graph.sameParts(part.numberKey);
    const current = currentOf(graph, byKey, part);
    const familyById = new Map(families.map((family) => [family.id, family]));
    const stock =
      part.onHand === null ? null : stockAge(part.onHand, await acceptedDeliveries(deps, actor, part.numberKey));
    const number = await readNumberOf(deps.db, actor.fleetId, part.number, part, {
      byKey,
      sheetsOf: (base) => sheets.filter(isPlugSheet).filter((sheet) => sheet.partId === base.id),
    });
    const ownSheets = sheets.filter((sheet) => onLine.has(sheet.part.numberKey));
    const wanted = ownSheets
      .filter(isPlugSheet)
      .map((sheet) => ({ spec: gapSpecOf(sheet), regap: sheet.regap ?? ('adjust' as const) }));
    const vehiclesTaking = keys.flatMap((vehicle) => {
      const family = familyById.get(vehicle.engineFamilyId);
      const candidates = sheets.filter((s) => s.engineFamilyId === vehicle.engineFamilyId && s.component === part.kind);
      if (!family || !candidates.some((s) => onLine.has(s.part.numberKey))) return [];
      const fitment = match(vehicle, candidates, family.variants);
      if (fitment.kind === 'no-spec') return [];
      const specKey = fitment.kind === 'match' ? fitment.spec.part.numberKey : null;
      const takes = specKey === null ? ('ask' as const) : verdictFor(graph, part.numberKey, specKey, taking);
      if (takes === 'no') return [];
      return [
        {
          id: vehicle.id,
          unitNumber: vehicle.unitNumber,
          name: vehicle.name,
          family: family.code,
          takes,
          quantity: quantityOf(layoutOf(family.model), part.kind),
        },
      ];
    });
    return ok({
      part,
      number,
      stock,
      current,
      history: line.flatMap((key) => byKey.get(key) ?? []),
      edges: graph.edgesAmong(line).map((edge) => ({ ...edge, row: rows.find((r) => isEdge(r, edge, byKey)) ?? null })),
      mixes: line
        .filter((key) => key !== part.numberKey)
        .flatMap((key) => {
          const other = byKey.get(key);
          return other ? [{ part: other, mixing: mixing(graph, part.numberKey, key) }] : [];
        }),
      comparisons: parts
        .filter((other) => other.kind === part.kind && other.id !== part.id && !onLine.has(other.numberKey))
        .map((other) => ({ part: other, ...compareParts(part, other, crosses, wanted) })),
      sheets: ownSheets.map((sheet) => ({ ...sheet, familyCode: familyById.get(sheet.engineFamilyId)?.code ?? '' })),
      vehicles: vehiclesTaking.sort((a, b) => a.unitNumber.localeCompare(b.unitNumber, 'en', { numeric: true })),
      fittedIn: fitted,
    });
  },
});

export type PartView = Extract<Awaited<ReturnType<typeof viewPart>>, { ok: true }>['value'];

const isEdge = (
  row: { fromPartId: string; toPartId: string },
  edge: { from: string; to: string },
  byKey: ReadonlyMap<string, PartRow>,
): boolean => byKey.get(edge.from)?.id === row.fromPartId && byKey.get(edge.to)?.id === row.toPartId;

/** `whole-set`: a redesign stands between this number and the sheet's, so it goes in only as a whole set. */
type Takes = 'yes' | 'whole-set' | 'superseded' | 'ask' | 'no';

/** Whether a vehicle whose sheet names one number takes another of the same history. */
function verdictFor(graph: SupersessionGraph, key: string, specKey: string, same: ReadonlySet<string>): Takes {
  if (same.has(specKey)) return 'yes';
  if (!graph.family(key).includes(specKey)) return 'no';
  const end = graph.current(specKey);
  return end.kind === 'current' && same.has(end.part) ? 'whole-set' : 'superseded';
}

/** What came under this number and was put on the shelf. */
async function acceptedDeliveries(deps: Deps, actor: Actor, numberKey: string) {
  const onShelf = or(eq(deliveries.verdict, 'accepted'), eq(deliveries.resolved, 'accepted'));
  const rows = await deps.db
    .select()
    .from(deliveries)
    .where(and(eq(deliveries.fleetId, actor.fleetId), onShelf));
  return rows
    .filter((row) => partKey(row.deliveredNumber) === numberKey)
    .map((row) => ({ ...row, quantity: row.quantity - row.setAside }));
}

async function fittedNow(deps: Deps, actor: Actor, partId: PartId) {
  return deps.db
    .select({
      id: vehicles.id,
      unitNumber: vehicles.unitNumber,
      name: vehicles.name,
      sites: sql<number>`count(*)::int`,
    })
    .from(fittedComponents)
    .innerJoin(vehicles, eq(vehicles.id, fittedComponents.vehicleId))
    .where(
      and(
        eq(fittedComponents.fleetId, actor.fleetId),
        eq(fittedComponents.partId, partId),
        isNull(fittedComponents.removedOn),
      ),
    )
    .groupBy(vehicles.id, vehicles.unitNumber, vehicles.name)
    .orderBy(asc(vehicles.unitNumber));
}

interface FoundPart {
  readonly part: PartRow | null;
  /** What a number that is not in the catalogue says of itself. */
  readonly number: ReadNumber | null;
  readonly near: readonly (NearNumber & { readonly id: string })[];
}

const narrowed = (sheet: SpecSheet, specs: readonly SpecSheet[]): SpecSheet =>
  withOthersInForce(
    sheet,
    specs.filter(({ engineFamilyId }) => engineFamilyId === sheet.engineFamilyId),
  );

/** What a typed or scanned number is: the part, a known one with a suffix, or known numbers one slip away. */
export const findPart = useCase({
  permission: 'read the fleet',
  input: z.string().max(200),
  async run(deps, actor, text): Promise<Outcome<FoundPart>> {
    const { parts, byKey } = await loadGraph(deps.db, actor.fleetId);
    const part = byKey.get(partKey(text)) ?? null;
    if (part) return ok({ part, number: null, near: [] });
    const specs = await loadSpecs(deps.db, actor.fleetId, deps.today());
    const number = await readNumberOf(deps.db, actor.fleetId, text, null, {
      byKey,
      // As they are to be worked by: a gap that only one of two makers allows is not asked for.
      sheetsOf: (base) => specs.filter((sheet) => sheet.partId === base.id).map((sheet) => narrowed(sheet, specs)),
    });
    const near = nearestNumbers(
      text,
      parts.map((p) => p.number),
    ).map((other) => ({ ...other, id: parts.find((p) => p.number === other.number)?.id ?? '' }));
    return ok({ part: null, number, near });
  },
});
