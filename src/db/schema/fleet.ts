import { sql } from 'drizzle-orm';
import {
  bigserial,
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
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Weekday } from '../../core/calendar/plain-date';
import { ELECTRODES } from '../../core/gap/check';
import { ABSENCE_OF } from '../../core/planning/absence-of';
import { USUAL_HOURS } from '../../core/planning/hours';
import type { WeekHours } from '../../core/planning/presence';
import type { DepotId, PersonId } from '../../core/shared/kinds';
import type { PlanSummary } from '../../core/shared/plan-summary';
import type { FoundDistributor } from '../../core/wiring/found-distributor';
import { user } from './auth';
import { engineFamilies } from './catalogue';
import { createdAt, day, fleetId, id, instant, km, list, version } from './columns';

export const fleets = pgTable('fleets', {
  id: id(),
  name: text().notNull(),
  isDemo: boolean().notNull().default(false),
  /** ISO 4217. */
  currency: text().notNull().default('EUR'),
  /** Cost of a failure on the road where neither vehicle nor duty group has its own. */
  failureCost: integer().notNull().default(500),
  /** Share of the bays' time that plug and coil service gets, in (0, 1]. */
  bayShare: numeric({ precision: 4, scale: 3, mode: 'number' }).notNull().default(1),
  /** Cost a week for each per cent of life over the limit. */
  wearCostPerPercent: numeric({ precision: 7, scale: 2, mode: 'number' }).notNull().default(0.5),
  /** Of an hour in the bay. */
  labourPerHour: numeric({ precision: 9, scale: 2, mode: 'number' }).notNull().default(60),
  /** Of a vehicle out of service, an hour. */
  hourCost: integer().notNull().default(15),
  /** What it costs to move a booking that was agreed, so that a replan disturbs little. */
  moveCost: integer().notNull().default(20),
  /** Of a break within a long day's work, minutes; 0: none is planned. */
  breakMinutes: integer().notNull().default(30),
  /** Of a vehicle off the road for one more visit. */
  downtimePerVisit: numeric({ precision: 9, scale: 2, mode: 'number' }).notNull().default(150),
  createdAt: createdAt(),
});

export const depots = pgTable(
  'depots',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    name: text().notNull(),
    timeZone: text().notNull().default('Etc/UTC'),
    /** By ISO 8601: 1 Monday to 7 Sunday. */
    workingDays: integer()
      .array()
      .$type<Weekday[]>()
      .notNull()
      .default([...USUAL_HOURS.workingDays]),
    /** Hours of its bays, minutes since midnight by its own clock. */
    opensMin: integer().notNull().default(USUAL_HOURS.fromMin),
    closesMin: integer().notNull().default(USUAL_HOURS.toMin),
    /** Days of the week on which parts come: a ferry. None: any working day. */
    deliveryDays: integer().array().$type<Weekday[]>().notNull().default([]),
    /** Minutes since midnight from which they are there on such a day; null: from the opening. */
    deliveryFromMin: integer(),
  },
  (t) => [
    check('depots_delivery_time', sql`${t.deliveryFromMin} between 0 and 1440`),
    unique().on(t.fleetId, t.name),
    unique().on(t.fleetId, t.id),
    check(
      'depots_hours_possible',
      sql`${t.opensMin} >= 0 and ${t.opensMin} < ${t.closesMin} and ${t.closesMin} <= 1440`,
    ),
    check('depots_delivery_days', sql`${t.deliveryDays} <@ array[1,2,3,4,5,6,7]`),
    check('depots_working_days', sql`${t.workingDays} <@ array[1,2,3,4,5,6,7]`),
  ],
);

/** What people need from one depot to another, by the worst of its days: a ferry, a tide. One row for both directions. */
export const depotWays = pgTable(
  'depot_ways',
  {
    id: id(),
    fleetId: fleetId(),
    depotId: uuid().$type<DepotId>().notNull(),
    otherId: uuid().$type<DepotId>().notNull(),
    minutes: integer().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.depotId], foreignColumns: [depots.fleetId, depots.id] }),
    foreignKey({ columns: [t.fleetId, t.otherId], foreignColumns: [depots.fleetId, depots.id] }),
    unique().on(t.depotId, t.otherId),
    check('depot_ways_in_order', sql`${t.depotId} < ${t.otherId}`),
    check('depot_ways_possible', sql`${t.minutes} between 0 and 1440`),
  ],
);

export const bays = pgTable(
  'bays',
  {
    id: id(),
    fleetId: fleetId(),
    depotId: uuid().$type<DepotId>().notNull(),
    name: text().notNull(),
    /** What it takes besides any vehicle: hybrid, lift. */
    can: text().array().notNull().default([]),
    /** Its own hours; null: those of its depot. */
    hours: jsonb().$type<WeekHours>(),
    version: version(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.depotId], foreignColumns: [depots.fleetId, depots.id] }),
    unique().on(t.fleetId, t.depotId, t.name),
    unique().on(t.fleetId, t.id),
  ],
);

export const people = pgTable(
  'people',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    userId: text()
      .unique()
      .references(() => user.id),
    name: text().notNull(),
    role: text({ enum: ['supervisor', 'technician', 'parts_clerk', 'viewer'] }).notNull(),
    unitSystem: text({ enum: ['metric', 'us'] })
      .notNull()
      .default('metric'),
    hybridQualified: boolean().notNull().default(false),
    shiftMinutes: integer().notNull().default(450),
    /** Where they work; none: at every depot. */
    depotIds: uuid().array().$type<DepotId[]>().notNull().default([]),
    /** What they are trained on besides, tools among it. */
    skills: text().array().notNull().default([]),
    /** Their own shifts; null: the hours of the depot. */
    hours: jsonb().$type<WeekHours>(),
    active: boolean().notNull().default(true),
    version: version(),
    createdAt: createdAt(),
  },
  (t) => [
    unique().on(t.fleetId, t.id),
    check('people_role_known', sql`${t.role} in ('supervisor','technician','parts_clerk','viewer')`),
    check('people_unit_system_known', sql`${t.unitSystem} in ('metric','us')`),
    check('people_shift_possible', sql`${t.shiftMinutes} between 0 and 1440`),
  ],
);

export const vehicles = pgTable(
  'vehicles',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    unitNumber: text().notNull(),
    name: text().notNull(),
    depotId: uuid().$type<DepotId>().notNull(),
    dutyGroup: text().notNull(),
    make: text(),
    model: text(),
    modelYear: integer(),
    vin: text(),
    builtOn: day(),
    fuel: text(),
    induction: text(),
    market: text(),
    /** On which side the driver sits. */
    steering: text({ enum: ['left', 'right'] }),
    /** Chosen by a person among sheets that nothing else tells apart. */
    chosenSheetId: uuid(),
    engineFamilyId: uuid().notNull(),
    /** Null: nobody has said. */
    variant: text(),
    inServiceOn: day().notNull(),
    odometerUnit: text({ enum: ['km', 'mi'] }).notNull(),
    /** Added to what the meter shows since it was replaced, so that life goes on. */
    meterOffsetKm: km().notNull().default(0),
    meterReplacedOn: day(),
    /** What it has or lacks that the way to its plugs depends on: air suspension. */
    options: text().array().notNull().default([]),
    severeDuty: boolean().notNull().default(false),
    /** Cost of a failure on the road; null: that of its duty group. */
    failureCost: integer(),
    /** The day on which it leaves the fleet, where that is known. */
    retiresOn: day(),
    /** Highest absolute pressure in its intake where that is not its family's, kPa. */
    intakeKpa: integer(),
    /** Parked overnight where its bay is: it is cool when the bay opens. */
    sleepsAtBay: boolean().notNull().default(false),
    /** Of an hour out of service; null: that of the fleet. */
    hourCost: integer(),
    /** A distributor found re-indexed: how it stands in this vehicle, and how that was proven. */
    distributor: jsonb().$type<FoundDistributor>(),
    /** Its own service reminder has been on since then; null: it is off. */
    reminderOn: day(),
    version: version(),
    createdAt: createdAt(),
  },
  (t) => [
    unique().on(t.fleetId, t.unitNumber),
    // For the search of the due list, where three letters or more are asked for.
    index('vehicles_by_words').using('gin', sql`lower(${t.unitNumber} || ' ' || ${t.name}) gin_trgm_ops`),
    unique().on(t.fleetId, t.id),
    foreignKey({ columns: [t.fleetId, t.depotId], foreignColumns: [depots.fleetId, depots.id] }),
    foreignKey({ columns: [t.fleetId, t.engineFamilyId], foreignColumns: [engineFamilies.fleetId, engineFamilies.id] }),
    check('vehicles_model_year_possible', sql`${t.modelYear} between 1950 and 2100`),
    check('vehicles_intake_possible', sql`${t.intakeKpa} between 50 and 500`),
    check('vehicles_hour_cost_possible', sql`${t.hourCost} >= 0`),
    check('vehicles_failure_cost_possible', sql`${t.failureCost} > 0`),
    check('vehicles_odometer_unit_known', sql`${t.odometerUnit} in ('km','mi')`),
  ],
);

/** When a depot, a bay, a person or a vehicle cannot be had: once, or by a rule of RFC 5545. */
export const absences = pgTable(
  'absences',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    of: text({ enum: list(ABSENCE_OF) }).notNull(),
    /** Of the depot, bay, person or vehicle. */
    ofId: uuid().notNull(),
    what: text().notNull(),
    fromDay: day().notNull(),
    toDay: day().notNull(),
    /** Within each day, minutes since midnight; null: the whole day. */
    fromMin: integer(),
    toMin: integer(),
    rule: text(),
    except: day().array().notNull().default([]),
    /** Of its event, where it came from a calendar: read again it takes its own place. */
    uid: text(),
    createdAt: createdAt(),
  },
  (t) => [
    index().on(t.fleetId, t.of, t.ofId),
    check('absences_of_known', sql`${t.of} in ('depot','bay','person','vehicle')`),
    check('absences_days_in_order', sql`${t.fromDay} <= ${t.toDay}`),
    check('absences_hours_whole', sql`num_nulls(${t.fromMin}, ${t.toMin}) in (0, 2) and ${t.fromMin} < ${t.toMin}`),
  ],
);

/** What a failure on the road costs for the vehicles of one duty group. */
export const dutyCosts = pgTable(
  'duty_costs',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    dutyGroup: text().notNull(),
    failureCost: integer().notNull(),
  },
  (t) => [unique().on(t.fleetId, t.dutyGroup), check('duty_costs_possible', sql`${t.failureCost} > 0`)],
);

/** The farthest that the shop lets plugs of one electrode go, whatever their sheet says. */
export const electrodeCeilings = pgTable(
  'electrode_ceilings',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    electrode: text({ enum: list(ELECTRODES) }).notNull(),
    km: km().notNull(),
    why: text().notNull(),
  },
  (t) => [unique().on(t.fleetId, t.electrode), check('electrode_ceilings_possible', sql`${t.km} > 0`)],
);

/** Who did what, when. Append-only: a trigger refuses update and delete. */
export const auditTrail = pgTable(
  'audit_trail',
  {
    id: bigserial({ mode: 'number' }).primaryKey(),
    fleetId: fleetId(),
    at: createdAt(),
    personId: uuid().$type<PersonId>(),
    action: text().notNull(),
    entity: text().notNull(),
    entityId: text().notNull(),
    changes: jsonb().notNull(),
  },
  (t) => [index().on(t.fleetId, t.entity, t.entityId)],
);

/** `checking` and `applying`: a worker is to do it, or is at it. */
export const IMPORT_STATES = ['checking', 'checked', 'applying', 'applied', 'discarded'] as const;

/** Uploaded files between dry run and confirmation, and the memory of those applied. */
export const imports = pgTable(
  'imports',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    kind: text().notNull(),
    fileName: text().notNull(),
    content: text().notNull(),
    mapping: jsonb().$type<Record<string, string>>().notNull(),
    options: jsonb().$type<Record<string, string>>().notNull(),
    state: text({ enum: IMPORT_STATES }).notNull().default('checked'),
    /** Too large for a request: checked and applied by a worker. */
    inBackground: boolean().notNull().default(false),
    /** What a worker found that it would do; null: worked out whenever it is looked at. */
    plan: jsonb().$type<PlanSummary>(),
    /** The refused rows with why, as CSV, where a worker has found them. */
    refusedRows: text(),
    /** Why the check or the import came to nothing. */
    problem: text(),
    counts: jsonb().$type<Record<string, number>>(),
    createdBy: uuid(),
    createdAt: createdAt(),
    appliedAt: instant(),
  },
  (t) => [
    index().on(t.fleetId, t.createdAt),
    check('imports_state_known', sql`${t.state} in ('checking','checked','applying','applied','discarded')`),
  ],
);

/** The columns a person matched once, by the header they stood under. */
export const columnMappings = pgTable(
  'column_mappings',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    kind: text().notNull(),
    header: text().notNull(),
    mapping: jsonb().$type<Record<string, string>>().notNull(),
    options: jsonb().$type<Record<string, string>>().notNull(),
  },
  (t) => [uniqueIndex().on(t.fleetId, t.kind, t.header)],
);
