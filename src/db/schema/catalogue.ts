import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  foreignKey,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  text,
  unique,
  uuid,
} from 'drizzle-orm/pg-core';
import { TEMPERATURES } from '../../core/catalogue/others-in-force';
import { SUFFIX_ATTRIBUTES } from '../../core/catalogue/suffix';
import { SUPERSESSION_KINDS } from '../../core/catalogue/supersession';
import type { BankAccess, Fastener } from '../../core/engine/access';
import type { AccessItem } from '../../core/engine/access-items';
import type { Coil, Distributor, SiteKey } from '../../core/engine/model';
import type { OtherWork } from '../../core/engine/other-work';
import { COMPONENTS } from '../../core/engine/quantities';
import type { Resting } from '../../core/engine/resting';
import type { WeakPoint } from '../../core/engine/weak-points';
import type { BoostBand } from '../../core/gap/boost';
import { REGAP_POLICIES } from '../../core/gap/check';
import { COMPOUND_PLACES, SHEET_LUBRICANTS, SHELLS, TORQUE_CONDITIONS } from '../../core/policy/apply';
import type { PartId, PersonId, SpecSheetId } from '../../core/shared/kinds';
import { createdAt, day, fleetId, id, instant, km, list, mm, nm, ohm, version } from './columns';

export const engineFamilies = pgTable(
  'engine_families',
  {
    id: id(),
    fleetId: fleetId(),
    code: text().notNull(),
    name: text().notNull(),
    displacementL: numeric({ precision: 4, scale: 2, mode: 'number' }),
    arrangement: text({ enum: ['inline', 'v', 'flat'] }).notNull(),
    mounting: text({ enum: ['longitudinal', 'transverse'] }).notNull(),
    ignition: text({
      enum: ['coil_on_plug', 'coil_per_cylinder', 'coil_rail', 'waste_spark', 'distributor'],
    }).notNull(),
    induction: text({ enum: ['natural', 'turbo', 'supercharged'] }).notNull(),
    headMaterial: text({ enum: ['aluminium', 'iron'] }).notNull(),
    hybrid: boolean().notNull().default(false),
    plugsPerCylinder: integer().$type<1 | 2>().notNull(),
    firingOrder: integer().array().notNull(),
    /** Look-alike variants that a sheet may tell apart. */
    variants: text().array().notNull(),
    /** Cylinders that rest at part load, by variant. */
    resting: jsonb().$type<Resting[]>().notNull().default([]),
    serviceMinutes: integer().notNull(),
    /** Null: as its ignition usually has them. */
    coils: jsonb().$type<Coil[]>(),
    distributor: jsonb().$type<Distributor>(),
    /** Two plugs a cylinder: the holes in the order in which they lie along each bank; null where A and B lie side by side. */
    holes: jsonb().$type<SiteKey[][]>(),
    /** One strip holds the connectors of all coils of a bank. */
    connectorRail: boolean().notNull().default(false),
    /** Lengths of the leads that it needs, in order of site, mm. */
    leadLengthsMm: integer().array(),
    /** Time constant of its head when it cools, minutes; null: a usual one. */
    coolingMinutes: integer(),
    compressionRatio: numeric({ precision: 4, scale: 1, mode: 'number' }),
    /** Highest absolute pressure in the intake, kPa; about 100 without boost. */
    intakeKpa: integer(),
    /** Gaps by intake pressure, for vehicles with another one than the engine left the works with. */
    boostBands: jsonb().$type<BoostBand[]>().notNull().default([]),
    boostSource: text(),
    /** Where compound goes, wherever any is called for; null: on the threads only. */
    compoundPlace: text({ enum: list(COMPOUND_PLACES) }),
    /** In order of bank. */
    access: jsonb().$type<BankAccess[]>(),
    fasteners: jsonb().$type<Fastener[]>(),
    /** On the way to the plugs, in the order in which it comes off; null: nobody has written it. */
    accessItems: jsonb().$type<AccessItem[]>(),
    /** Known weak points, each a precaution. */
    weakPoints: jsonb().$type<WeakPoint[]>(),
    /** Not ignition, done in the same visit: belts, filters, fluids. */
    otherWork: jsonb().$type<OtherWork[]>().notNull().default([]),
    version: version(),
  },
  (t) => [
    unique().on(t.fleetId, t.code),
    check('engine_families_ratio_possible', sql`${t.compressionRatio} between 4 and 20`),
    check('engine_families_intake_possible', sql`${t.intakeKpa} between 50 and 500`),
    unique().on(t.fleetId, t.id),
    check('engine_families_plugs_per_cylinder', sql`${t.plugsPerCylinder} in (1, 2)`),
    check('engine_families_cooling_possible', sql`${t.coolingMinutes} between 20 and 600`),
    check('engine_families_minutes_possible', sql`${t.serviceMinutes} between 5 and 2880`),
  ],
);

/** Where each cylinder stands: the layout, one row a cylinder. */
export const engineCylinders = pgTable(
  'engine_cylinders',
  {
    id: id(),
    fleetId: fleetId(),
    engineFamilyId: uuid().notNull(),
    cylinder: integer().notNull(),
    bank: integer().notNull(),
    bankPlace: text({ enum: ['only', 'left', 'right', 'front', 'rear'] }).notNull(),
    /** From 0: from the viewer's left (transverse) or from the front (longitudinal). */
    place: integer().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.engineFamilyId], foreignColumns: [engineFamilies.fleetId, engineFamilies.id] }),
    unique().on(t.engineFamilyId, t.cylinder),
    unique().on(t.engineFamilyId, t.bank, t.place),
    check(
      'engine_cylinders_possible',
      sql`${t.cylinder} between 1 and 16 and ${t.bank} in (1, 2) and ${t.place} between 0 and 15`,
    ),
  ],
);

export const parts = pgTable(
  'parts',
  {
    id: id(),
    fleetId: fleetId(),
    number: text().notNull(),
    /** The number without case, spaces and hyphens. */
    numberKey: text().notNull(),
    maker: text().notNull(),
    kind: text({ enum: list(COMPONENTS) }).notNull(),
    name: text(),
    electrode: text({ enum: ['nickel', 'fine_wire', 'multi_ground'] }),
    thread: text({ enum: ['M8', 'M10', 'M12', 'M14', 'M18'] }),
    seat: text({ enum: ['gasket', 'conical'] }),
    reachMm: mm(),
    hexMm: mm(),
    pitchMm: mm(),
    projectionMm: mm(),
    resistor: boolean(),
    terminal: text({ enum: ['solid', 'threaded', 'removable'] }),
    heatRange: integer(),
    shell: text({ enum: list(SHELLS) }),
    /** The gap it leaves the maker's works with. */
    preGapMm: mm(),
    packSize: integer(),
    /** Of one, in the fleet's currency. */
    price: numeric({ precision: 9, scale: 2, mode: 'number' }),
    leadDays: integer(),
    approvedSources: text().array(),
    onHand: integer(),
    /** Lengths of a lead set's leads, mm, in the order of its box. */
    lengthsMm: integer().array(),
    /** How long its maker answers for it. */
    warrantyMonths: integer(),
    warrantyKm: integer(),
    note: text(),
    version: version(),
  },
  (t) => [
    unique().on(t.fleetId, t.numberKey),
    unique().on(t.fleetId, t.id),
    check('parts_counts_possible', sql`${t.packSize} > 0 and ${t.leadDays} >= 0 and ${t.onHand} >= 0`),
    check('parts_warranty_possible', sql`${t.warrantyMonths} > 0 and ${t.warrantyKm} > 0`),
    check('parts_price_possible', sql`${t.price} >= 0`),
  ],
);

/** One number that took the place of another. The graph never runs in a circle: the use-case checks it. */
export const supersessions = pgTable(
  'supersessions',
  {
    id: id(),
    fleetId: fleetId(),
    fromPartId: uuid().notNull(),
    toPartId: uuid().notNull(),
    kind: text({ enum: list(SUPERSESSION_KINDS) }).notNull(),
    since: day(),
    note: text(),
    source: text().notNull(),
    createdAt: createdAt(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.fromPartId], foreignColumns: [parts.fleetId, parts.id] }),
    foreignKey({ columns: [t.fleetId, t.toPartId], foreignColumns: [parts.fleetId, parts.id] }),
    unique().on(t.fromPartId, t.toPartId),
    check('supersessions_of_another', sql`${t.fromPartId} <> ${t.toPartId}`),
    check('supersessions_kind_known', sql`${t.kind} in ('renumbered','redesigned')`),
  ],
);

/** Two makers' heat numbers that one of them says are the same. */
export const heatCrosses = pgTable(
  'heat_crosses',
  {
    id: id(),
    fleetId: fleetId(),
    makerA: text().notNull(),
    heatA: integer().notNull(),
    makerB: text().notNull(),
    heatB: integer().notNull(),
    source: text().notNull(),
  },
  (t) => [
    unique().on(t.fleetId, t.makerA, t.heatA, t.makerB, t.heatB),
    check('heat_crosses_two_makers', sql`${t.makerA} <> ${t.makerB}`),
  ],
);

/** How a maker's numbers are to be read: what each code at each place of the suffix says. */
export const numberCodes = pgTable(
  'number_codes',
  {
    id: id(),
    fleetId: fleetId(),
    maker: text().notNull(),
    place: integer().notNull(),
    attribute: text({ enum: ['base', ...SUFFIX_ATTRIBUTES] }).notNull(),
    code: text().notNull(),
    value: text().notNull(),
    source: text().notNull(),
    version: version(),
  },
  (t) => [
    unique().on(t.fleetId, t.maker, t.place, t.code),
    check(
      'number_codes_place_possible',
      sql`${t.place} between 0 and 9 and (${t.place} = 0) = (${t.attribute} = 'base')`,
    ),
  ],
);

/** One row a revision; never changed once written, so that a site can keep the one it was done under. */
export const specSheets = pgTable(
  'spec_sheets',
  {
    id: id(),
    fleetId: fleetId(),
    engineFamilyId: uuid().notNull(),
    component: text({ enum: list(COMPONENTS) }).notNull(),
    variant: text(),
    modelYearFrom: integer(),
    modelYearTo: integer(),
    builtFrom: day(),
    builtTo: day(),
    serialFrom: integer(),
    serialTo: integer(),
    fuel: text(),
    induction: text(),
    market: text(),
    partId: uuid().$type<PartId>().notNull(),
    /** Gap of a plug; null for other components. */
    gapMinMm: mm(),
    gapMaxMm: mm(),
    gapTargetMm: mm(),
    gapAsTyped: text(),
    /** Of a plug, or of the screw that holds the component; null where it has none. */
    torqueMinNm: nm(),
    torqueMaxNm: nm(),
    torqueAsTyped: text(),
    /** Windings of a coil or rail, from terminal to terminal. */
    primaryMinOhm: ohm(),
    primaryMaxOhm: ohm(),
    primaryAsTyped: text(),
    secondaryMinOhm: ohm(),
    secondaryMaxOhm: ohm(),
    secondaryAsTyped: text(),
    /** Of a lead or rotor from end to end. */
    minOhm: ohm(),
    maxOhm: ohm(),
    ohmAsTyped: text(),
    /** The most that a lead may have by its length. */
    maxOhmPerMetre: ohm(),
    /** The sheet's own turn from finger-tight, degrees. */
    angleDeg: integer(),
    engineTemperature: text({ enum: list(TEMPERATURES) }),
    lubricant: text({ enum: list(SHEET_LUBRICANTS) }),
    regap: text({ enum: list(REGAP_POLICIES) }),
    /** How the old ones come out, in words; null: it does not speak of it. */
    method: text(),
    /** After this day the source no longer holds. */
    expiresOn: day(),
    intervalKm: km(),
    intervalSevereKm: km(),
    intervalMonths: integer(),
    intervalAsTyped: text(),
    sourceKind: text({ enum: ['service_information', 'bulletin', 'part_maker', 'box', 'forum', 'memory'] }).notNull(),
    sourceDocument: text().notNull(),
    sourceDated: day(),
    revision: integer().notNull(),
    /** As its file says; the one who entered it here is `enteredById`. */
    enteredBy: text().notNull(),
    /** Null: entered before it was noted. */
    enteredById: uuid(),
    /** Of sheets from before checks were by person: a new one is checked in `sheet_checks` alone. */
    checkedBy: text(),
    /** Whom its file names as the one who checked it: a remark, which releases nothing. */
    saidCheckedBy: text(),
    /** The threads for which its torque is given; null: it does not say, and is taken as dry. */
    torqueFor: text({ enum: list(TORQUE_CONDITIONS) }),
    note: text(),
    createdAt: createdAt(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.engineFamilyId], foreignColumns: [engineFamilies.fleetId, engineFamilies.id] }),
    foreignKey({ columns: [t.fleetId, t.partId], foreignColumns: [parts.fleetId, parts.id] }),
    unique().on(t.fleetId, t.id),
    unique('spec_sheets_one_revision')
      .on(
        t.engineFamilyId,
        t.component,
        t.variant,
        t.modelYearFrom,
        t.modelYearTo,
        t.builtFrom,
        t.builtTo,
        t.serialFrom,
        t.serialTo,
        t.fuel,
        t.induction,
        t.market,
        t.sourceDocument,
        t.revision,
      )
      .nullsNotDistinct(),
    check('spec_sheets_gap_range', sql`0 < ${t.gapMinMm} and ${t.gapMinMm} <= ${t.gapMaxMm}`),
    check('spec_sheets_target_in_range', sql`${t.gapTargetMm} between ${t.gapMinMm} and ${t.gapMaxMm}`),
    check('spec_sheets_torque_range', sql`0 < ${t.torqueMinNm} and ${t.torqueMinNm} <= ${t.torqueMaxNm}`),
    check(
      'spec_sheets_plug_is_whole',
      sql`${t.component} <> 'plug' or (num_nulls(${t.gapMinMm}, ${t.gapMaxMm}, ${t.gapAsTyped}, ${t.torqueMinNm}, ${t.torqueMaxNm}, ${t.torqueAsTyped}, ${t.intervalAsTyped}) = 0 and coalesce(${t.intervalKm}, ${t.intervalMonths}) > 0)`,
    ),
    check(
      'spec_sheets_resistance_ranges',
      sql`${t.primaryMinOhm} <= ${t.primaryMaxOhm} and ${t.secondaryMinOhm} <= ${t.secondaryMaxOhm} and ${t.minOhm} <= ${t.maxOhm}`,
    ),
    check('spec_sheets_checked_by_another', sql`${t.checkedBy} <> ${t.enteredBy}`),
  ],
);

/** Someone other than the one who entered a sheet has compared it with its source. */
export const sheetChecks = pgTable(
  'sheet_checks',
  {
    id: id(),
    fleetId: fleetId(),
    specSheetId: uuid().$type<SpecSheetId>().notNull(),
    personId: uuid().$type<PersonId>().notNull(),
    at: instant().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.specSheetId], foreignColumns: [specSheets.fleetId, specSheets.id] }),
    unique().on(t.specSheetId, t.personId),
    index().on(t.fleetId),
  ],
);
