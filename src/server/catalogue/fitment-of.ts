import { type Fitment, match, type ReleaseBlocker } from '@/core/catalogue/match';
import { SupersessionGraph } from '@/core/catalogue/supersession';
import type { Component } from '@/core/engine/quantities';
import type { GapSpec } from '@/core/gap/check';
import type { FleetId, VehicleId } from '@/core/shared/kinds';
import { writtenAs } from '@/core/units/read-range';
import { asFound } from '@/core/wiring/found-distributor';
import type { Querier } from '@/db/client';
import {
  type ComponentSheet,
  type EngineFamily,
  isPlugSheet,
  loadEdges,
  loadFamilies,
  loadParts,
  loadSheets,
  loadSupersessions,
  type PartRow,
  type SpecSheet,
} from '@/db/queries/catalogue';
import { loadVehicleKeys } from '@/db/queries/due-inputs';
import { blockersFor, fitmentInForce, type SheetInForce } from './sheet-in-force';

type Vehicle = Awaited<ReturnType<typeof loadVehicleKeys>>[number];

export interface VehicleFitment {
  readonly vehicle: Vehicle;
  readonly family: EngineFamily;
  /** Of its engine family, for every component. */
  readonly sheets: readonly ComponentSheet[];
  readonly specs: readonly SpecSheet[];
  /** Of its plugs. */
  readonly fitment: Fitment<SheetInForce<SpecSheet>>;
  /** Why the sheet in force releases no work by itself; empty without a match. */
  readonly blockers: readonly ReleaseBlocker[];
}

/** One vehicle with its engine family and the answer to "what goes in?". Null: no such vehicle in this fleet. */
export async function fitmentOf(
  q: Querier,
  fleetId: FleetId,
  today: string,
  vehicleId: VehicleId,
): Promise<VehicleFitment | null> {
  const whose = await loadWhose(q, { fleetId, vehicleId });
  if (!whose) return null;
  const { vehicle, family } = whose;
  const sheets = await loadSheets(q, fleetId, today, { familyIds: [family.id] });
  const specs = sheets.filter(isPlugSheet);
  const fitment = fitmentInForce(match(vehicle, specs, family.variants), specs, { family, vehicle });
  return { vehicle, family, sheets, specs, fitment, blockers: blockersFor(fitment, specs) };
}

/** A vehicle with its engine as it is in it; null where it is gone. */
export async function loadWhose(
  q: Querier,
  { fleetId, vehicleId }: { readonly fleetId: FleetId; readonly vehicleId: VehicleId },
): Promise<Pick<VehicleFitment, 'vehicle' | 'family'> | null> {
  const [vehicle] = await loadVehicleKeys(q, fleetId, [vehicleId]);
  const [family] = vehicle ? await loadFamilies(q, fleetId, [vehicle.engineFamilyId]) : [];
  return vehicle && family
    ? { vehicle, family: { ...family, model: asFound(family.model, vehicle.distributor) } }
    : null;
}

/** What goes in of one component, by the same rules as a plug: its sheet, or the question that decides. */
export function fitmentFor(
  { vehicle, family, sheets }: Pick<VehicleFitment, 'vehicle' | 'family' | 'sheets'>,
  component: Component,
): { readonly fitment: Fitment<SheetInForce>; readonly blockers: readonly ReleaseBlocker[] } {
  const ofComponent = sheets.filter((sheet) => sheet.component === component);
  const fitment = fitmentInForce(match(vehicle, ofComponent, family.variants), ofComponent, { family, vehicle });
  return { fitment, blockers: blockersFor(fitment, ofComponent) };
}

/** The fleet's supersessions by part number key, with the part behind each. */
export async function loadGraph(q: Querier, fleetId: FleetId) {
  const parts = await loadParts(q, fleetId);
  const keys = new Map(parts.map((part) => [part.id, part.numberKey]));
  const rows = await loadSupersessions(q, fleetId);
  const graph = new SupersessionGraph(
    rows.map(({ fromPartId, toPartId, kind, note }) => ({
      from: keys.get(fromPartId) ?? fromPartId,
      to: keys.get(toPartId) ?? toPartId,
      kind,
      note,
    })),
  );
  return { graph, parts, byKey: new Map(parts.map((part) => [part.numberKey, part])), rows };
}

/** The supersessions alone, by part number key: what decides which number may go in. */
export async function loadNumbers(q: Querier, fleetId: FleetId): Promise<SupersessionGraph> {
  return new SupersessionGraph(await loadEdges(q, fleetId));
}

/** The gap of a sheet, with the precision in which it is written. */
export const gapSpecOf = (spec: SpecSheet): GapSpec => ({
  minMm: spec.gapMinMm,
  maxMm: spec.gapMaxMm,
  targetMm: spec.gapTargetMm,
  written: writtenAs(spec.gapAsTyped),
});

/** What a number goes by today. */
type CurrentNumber =
  | { readonly kind: 'itself' }
  | {
      readonly kind: 'replaced';
      readonly part: PartRow;
      readonly redesigned: boolean;
      /** What the changes brought with them: a removal or torque note. */
      readonly notes: readonly string[];
    }
  | { readonly kind: 'needs-answer'; readonly successors: readonly PartRow[] };

export function currentOf(graph: SupersessionGraph, byKey: ReadonlyMap<string, PartRow>, part: PartRow): CurrentNumber {
  const current = graph.current(part.numberKey);
  if (current.kind === 'needs-answer')
    return { kind: 'needs-answer', successors: current.successors.flatMap((key) => byKey.get(key) ?? []) };
  const end = byKey.get(current.part);
  if (!end || end.id === part.id) return { kind: 'itself' };
  return {
    kind: 'replaced',
    part: end,
    redesigned: current.path.some((edge) => edge.kind === 'redesigned'),
    notes: current.path.flatMap((edge) => edge.note ?? []),
  };
}
