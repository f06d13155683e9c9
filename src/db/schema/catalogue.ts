import { sql } from 'drizzle-orm';
import { boolean, check, foreignKey, integer, numeric, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import { createdAt, day, fleetId, id, km, mm, nm, version } from './columns';

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
    serviceMinutes: integer().notNull(),
    version: version(),
  },
  (t) => [
    unique().on(t.fleetId, t.code),
    unique().on(t.fleetId, t.id),
    check('engine_families_plugs_per_cylinder', sql`${t.plugsPerCylinder} in (1, 2)`),
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
    kind: text({ enum: ['plug', 'coil', 'boot', 'lead', 'cap', 'rotor'] }).notNull(),
    electrode: text({ enum: ['nickel', 'fine_wire', 'multi_ground'] }),
    thread: text({ enum: ['M8', 'M10', 'M12', 'M14', 'M18'] }),
    seat: text({ enum: ['gasket', 'conical'] }),
    reachMm: mm(),
    hexMm: mm(),
    version: version(),
  },
  (t) => [unique().on(t.fleetId, t.numberKey), unique().on(t.fleetId, t.id)],
);

/** One row a revision; never changed once written, so that a site can keep the one it was done under. */
export const specSheets = pgTable(
  'spec_sheets',
  {
    id: id(),
    fleetId: fleetId(),
    engineFamilyId: uuid().notNull(),
    component: text({ enum: ['plug', 'coil', 'boot', 'lead', 'cap', 'rotor'] }).notNull(),
    variant: text(),
    modelYearFrom: integer(),
    modelYearTo: integer(),
    partId: uuid().notNull(),
    gapMinMm: mm().notNull(),
    gapMaxMm: mm().notNull(),
    gapAsTyped: text().notNull(),
    torqueMinNm: nm().notNull(),
    torqueMaxNm: nm().notNull(),
    torqueAsTyped: text().notNull(),
    intervalKm: km(),
    intervalSevereKm: km(),
    intervalMonths: integer(),
    intervalAsTyped: text().notNull(),
    sourceKind: text({ enum: ['service_information', 'bulletin', 'part_maker', 'box', 'forum', 'memory'] }).notNull(),
    sourceDocument: text().notNull(),
    sourceDated: day(),
    revision: integer().notNull(),
    enteredBy: text().notNull(),
    /** Null: nobody but the one who entered it has seen it. */
    checkedBy: text(),
    note: text(),
    createdAt: createdAt(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.engineFamilyId], foreignColumns: [engineFamilies.fleetId, engineFamilies.id] }),
    foreignKey({ columns: [t.fleetId, t.partId], foreignColumns: [parts.fleetId, parts.id] }),
    unique().on(t.fleetId, t.id),
    unique('spec_sheets_one_revision')
      .on(t.engineFamilyId, t.component, t.variant, t.modelYearFrom, t.modelYearTo, t.sourceDocument, t.revision)
      .nullsNotDistinct(),
    check('spec_sheets_gap_range', sql`0 < ${t.gapMinMm} and ${t.gapMinMm} <= ${t.gapMaxMm}`),
    check('spec_sheets_torque_range', sql`0 < ${t.torqueMinNm} and ${t.torqueMinNm} <= ${t.torqueMaxNm}`),
    check('spec_sheets_some_interval', sql`coalesce(${t.intervalKm}, ${t.intervalMonths}) > 0`),
    check('spec_sheets_checked_by_another', sql`${t.checkedBy} <> ${t.enteredBy}`),
  ],
);
