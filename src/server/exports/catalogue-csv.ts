import { z } from 'zod';
import { fastenersText } from '@/core/engine/access';
import { coilsText } from '@/core/engine/coils';
import { holesText } from '@/core/engine/layout';
import { otherWorkText } from '@/core/engine/other-work';
import { restingText } from '@/core/engine/resting';
import { weakPointText } from '@/core/engine/weak-points';
import { boostText } from '@/core/gap/boost';
import { ok } from '@/core/shared/result';
import {
  type ComponentSheet,
  type EngineFamily,
  loadFamilies,
  loadParts,
  loadSheets,
  type PartRow,
} from '@/db/queries/catalogue';
import type { Outcome } from '../failure';
import { kindOf } from '../imports/kinds';
import { useCase } from '../use-case';
import { toCsv } from './csv';

export const CATALOGUE_KINDS = ['engine-families', 'parts', 'spec-sheets'] as const;
export type CatalogueKind = (typeof CATALOGUE_KINDS)[number];

/** One row by column, as the import file has it. */
type Fields = Readonly<Record<string, string>>;

const text = (value: string | number | null | undefined): string => (value == null ? '' : String(value));
const YES_NO: ReadonlyMap<boolean | null, string> = new Map([
  [true, 'yes'],
  [false, 'no'],
]);
const yesNo = (value: boolean | null): string => YES_NO.get(value) ?? '';

export function familyFields(family: EngineFamily): Fields {
  const { model } = family;
  const [first, second] = model.banks;
  return {
    code: family.code,
    name: family.name,
    displacement_l: text(family.displacementL),
    arrangement: family.arrangement,
    mounting: family.mounting,
    ignition: family.ignition,
    induction: family.induction,
    head_material: family.headMaterial,
    hybrid: yesNo(family.hybrid),
    plugs_per_cylinder: text(family.plugsPerCylinder),
    bank_1: first?.cylinders.join(' ') ?? '',
    bank_1_place: first?.place ?? '',
    bank_2: second?.cylinders.join(' ') ?? '',
    bank_2_place: second?.place ?? '',
    firing_order: family.firingOrder.join(' '),
    variants: family.variants.join(' | '),
    resting_cylinders: restingText(family.resting),
    service_minutes: text(family.serviceMinutes),
    coils: family.coils ? coilsText(model) : '',
    hole_order: family.holes ? holesText(family.holes) : '',
    connector_rail: yesNo(family.connectorRail),
    rotation: family.distributor?.rotation ?? '',
    tower_of_cylinder_1: text(family.distributor?.towerOfCylinder1),
    lead_lengths_mm: family.leadLengthsMm?.join(' ') ?? '',
    cooling_minutes: text(family.coolingMinutes),
    compound_place: text(family.compoundPlace),
    boost_gaps: boostText(family.boostBands),
    boost_source: text(family.boostSource),
    compression_ratio: text(family.compressionRatio),
    intake_kpa: text(family.intakeKpa),
    access: family.access?.map((bank) => `${bank.access} ${bank.minutes}`).join(', ') ?? '',
    fasteners: family.fasteners ? fastenersText(family.fasteners) : '',
    weak_points: family.weakPoints?.map(weakPointText).join(' | ') ?? '',
    other_work: otherWorkText(family.otherWork),
  };
}

export function partFields(part: PartRow): Fields {
  return {
    number: part.number,
    maker: part.maker,
    kind: part.kind,
    name: text(part.name),
    electrode: text(part.electrode),
    thread: text(part.thread),
    seat: text(part.seat),
    reach_mm: text(part.reachMm),
    hex_mm: text(part.hexMm),
    pitch_mm: text(part.pitchMm),
    projection_mm: text(part.projectionMm),
    resistor: yesNo(part.resistor),
    terminal: text(part.terminal),
    heat_range: text(part.heatRange),
    shell: text(part.shell),
    pre_gap: part.preGapMm === null ? '' : `${part.preGapMm} mm`,
    pack_size: text(part.packSize),
    price: text(part.price),
    lead_days: text(part.leadDays),
    approved_sources: part.approvedSources?.join(' | ') ?? '',
    on_hand: text(part.onHand),
    lengths_mm: part.lengthsMm?.join(' ') ?? '',
    warranty_months: text(part.warrantyMonths),
    warranty_km: text(part.warrantyKm),
    note: text(part.note),
  };
}

function sheetFields(sheet: ComponentSheet, familyCode: string): Fields {
  const { part } = sheet;
  const typed = sheet.intervalAsTyped?.split(', ') ?? [];
  return {
    engine_family: familyCode,
    component: sheet.component,
    variant: text(sheet.variant),
    model_year_from: text(sheet.modelYearFrom),
    model_year_to: text(sheet.modelYearTo),
    built_from: text(sheet.builtFrom),
    built_to: text(sheet.builtTo),
    serial_from: text(sheet.serialFrom),
    serial_to: text(sheet.serialTo),
    fuel: text(sheet.fuel),
    induction: text(sheet.induction),
    market: text(sheet.market),
    part_number: part.number,
    part_maker: part.maker,
    electrode: text(part.electrode),
    thread: text(part.thread),
    seat: text(part.seat),
    reach_mm: text(part.reachMm),
    hex_mm: text(part.hexMm),
    // As it was typed, so that its precision is kept.
    gap: text(sheet.gapAsTyped),
    torque: text(sheet.torqueAsTyped),
    primary: text(sheet.primaryAsTyped),
    secondary: text(sheet.secondaryAsTyped),
    resistance: text(sheet.ohmAsTyped),
    ohm_per_metre: sheet.maxOhmPerMetre === null ? '' : `${sheet.maxOhmPerMetre} Ω`,
    angle_deg: text(sheet.angleDeg),
    interval: typed.find((word) => !word.startsWith('severe ') && !word.endsWith(' months')) ?? '',
    interval_severe: typed.find((word) => word.startsWith('severe '))?.slice('severe '.length) ?? '',
    interval_months: text(sheet.intervalMonths),
    engine_temperature: text(sheet.engineTemperature),
    torque_for: text(sheet.torqueFor),
    lubricant: text(sheet.lubricant),
    regap: text(sheet.regap),
    method: text(sheet.method),
    source_kind: sheet.sourceKind,
    source_document: sheet.sourceDocument,
    source_dated: text(sheet.sourceDated),
    expires_on: text(sheet.expiresOn),
    revision: text(sheet.revision),
    entered_by: sheet.enteredBy,
    checked_by: text(sheet.checkedBy),
    note: text(sheet.note),
  };
}

/** Rows of the catalogue in the columns of their import file. */
export const exportRows = useCase({
  permission: 'read the fleet',
  input: z.enum(CATALOGUE_KINDS),
  async run(deps, actor, kind): Promise<Outcome<readonly Fields[]>> {
    const { db } = deps;
    switch (kind) {
      case 'engine-families':
        return ok((await loadFamilies(db, actor.fleetId)).map(familyFields));
      case 'parts':
        return ok((await loadParts(db, actor.fleetId)).map(partFields));
      case 'spec-sheets': {
        const codes = new Map((await loadFamilies(db, actor.fleetId)).map((family) => [family.id, family.code]));
        const sheets = await loadSheets(db, actor.fleetId, deps.today());
        return ok(sheets.map((sheet) => sheetFields(sheet, codes.get(sheet.engineFamilyId) ?? '')));
      }
    }
  },
});

/** The same as a file that can be imported again. */
export const exportCatalogue = useCase({
  permission: 'read the fleet',
  input: z.enum(CATALOGUE_KINDS),
  async run(deps, actor, kind): Promise<Outcome<string>> {
    const rows = await exportRows(deps, actor, kind);
    if (!rows.ok) return rows;
    const columns = kindOf(kind).columns.map((column) => column.key);
    // A range goes out in one column, so those of its ends stay away.
    const [first] = rows.value;
    const keys = first ? columns.filter((key) => key in first) : columns;
    return ok(
      toCsv(
        keys,
        rows.value.map((row) => keys.map((key) => row[key] ?? '')),
      ),
    );
  },
});
