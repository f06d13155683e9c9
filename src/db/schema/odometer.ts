import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  doublePrecision,
  foreignKey,
  index,
  integer,
  jsonb,
  numeric,
  pgTable,
  primaryKey,
  text,
  uuid,
} from 'drizzle-orm/pg-core';
import { type Binding, CERTAINTIES, DUE_STATES, type HourMeter, type SiteClock } from '../../core/due/due';
import { COMPONENTS, type Component } from '../../core/engine/quantities';
import { READING_CERTAINTIES } from '../../core/odometer/intake';
import type { Km, SpecSheetId, VehicleId } from '../../core/shared/kinds';
import { bytea, createdAt, day, fleetId, instant, km, list } from './columns';
import { vehicles } from './fleet';

/** Append-only in meaning: a doubtful reading is kept and flagged, never dropped. */
export const odometerReadings = pgTable(
  'odometer_readings',
  {
    vehicleId: uuid().$type<VehicleId>().notNull(),
    readOn: day().notNull(),
    odometerKm: km().notNull(),
    fleetId: fleetId(),
    asTyped: text().notNull(),
    unit: text({ enum: ['km', 'mi'] }).notNull(),
    source: text().notNull(),
    /** `estimated`: said to be about so much. */
    certainty: text({ enum: list(READING_CERTAINTIES) })
      .notNull()
      .default('exact'),
    state: text({ enum: ['accepted', 'suspect', 'rejected'] }).notNull(),
    /** Codes of what is wrong with it, the likely cause last, separated by commas. */
    doubt: text(),
    /** What it probably was. */
    suggestedKm: km(),
    /** How a person resolved a suspect one, with the reason; the reading itself stays. */
    resolved: text({ enum: ['accepted', 'corrected', 'meter_replaced', 'rejected', 'cleared'] }),
    resolvedReason: text(),
    resolvedBy: uuid(),
    resolvedAt: instant(),
    /** The figure that this one corrects. */
    correctsKm: km(),
    enteredBy: uuid(),
    createdAt: createdAt(),
  },
  (t) => [
    primaryKey({ columns: [t.vehicleId, t.readOn, t.odometerKm] }),
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    index('odometer_readings_suspect').on(t.fleetId, t.vehicleId).where(sql`${t.state} = 'suspect'`),
    check('odometer_readings_possible', sql`${t.odometerKm} between 0 and 3300000`),
    check('odometer_readings_unit_known', sql`${t.unit} in ('km','mi')`),
    check('odometer_readings_state_known', sql`${t.state} in ('accepted','suspect','rejected')`),
    check('odometer_readings_certainty_known', sql`${t.certainty} in ('exact','estimated')`),
  ],
);

/** Hour meters, for engines that idle: kept like odometer readings, a doubtful one flagged and not used. */
export const engineHourReadings = pgTable(
  'engine_hour_readings',
  {
    vehicleId: uuid().$type<VehicleId>().notNull(),
    readOn: day().notNull(),
    hours: numeric({ precision: 7, scale: 1, mode: 'number' }).notNull(),
    fleetId: fleetId(),
    asTyped: text().notNull(),
    source: text().notNull(),
    state: text({ enum: ['accepted', 'suspect', 'rejected'] }).notNull(),
    doubt: text({ enum: ['backwards', 'too_fast'] }),
    resolvedBy: uuid(),
    resolvedAt: instant(),
    enteredBy: uuid(),
    createdAt: createdAt(),
  },
  (t) => [
    primaryKey({ columns: [t.vehicleId, t.readOn, t.hours] }),
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    index('engine_hour_readings_suspect').on(t.fleetId).where(sql`${t.state} = 'suspect'`),
    check('engine_hour_readings_possible', sql`${t.hours} between 0 and 99999`),
  ],
);

/** What decides when one component of a vehicle is due. */
export interface ComponentInputs {
  readonly component: Component;
  readonly fitment: 'match' | 'needs-answer' | 'no-spec';
  /** What would resolve the fitment, or why there is none. */
  readonly fitmentWhy: string | null;
  readonly specSheetId: SpecSheetId | null;
  readonly limitKm: Km | null;
  /** Whose distance it is: the sheet's, or the shop's ceiling for the electrode of a plug. */
  readonly limitBy: 'sheet' | 'maker' | 'shop';
  readonly limitMonths: number | null;
  /** Share of the limits at which it counts as due: the option of the interval in force. */
  readonly limitShare: number;
  /** The distinct clocks of its places; which of them is worst depends on the day. */
  readonly clocks: readonly SiteClock[];
}

/** What decides where each vehicle stands, kept in step with its cause in the same transaction; `npm run rebuild-due` makes it anew. */
export const dueInputs = pgTable(
  'due_inputs',
  {
    vehicleId: uuid().$type<VehicleId>().primaryKey(),
    fleetId: fleetId(),
    odometerOn: day(),
    odometerKm: km(),
    suspectReadings: integer().notNull().default(0),
    /** The vehicle's own rate; null: its readings cannot tell, and its duty group lends one when it is read. */
    rateKmPerDay: doublePrecision(),
    /** Standard deviations of the logarithm of a week's use and of its drift, and the days they were seen over; null: not worked out yet. */
    rateWeeklySpread: doublePrecision(),
    rateDrift: doublePrecision(),
    rateObservedDays: integer(),
    rateReadings: integer().notNull().default(0),
    hourMeter: jsonb().$type<HourMeter>(),
    /** Of its plugs, and of every other component of which a sheet speaks. */
    components: jsonb().$type<readonly ComponentInputs[]>().notNull(),
  },
  (t) => [foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] })],
);

/** What forecasts of the past taught of a duty group, or, with an empty name, of the whole fleet. Worked out once a day. */
export const backTests = pgTable(
  'back_tests',
  {
    fleetId: fleetId(),
    dutyGroup: text().notNull(),
    drift: doublePrecision().notNull(),
    scale: doublePrecision().notNull(),
    forecasts: integer().notNull(),
    held: integer().notNull(),
  },
  (t) => [primaryKey({ columns: [t.fleetId, t.dutyGroup] })],
);

/**
 * The due status of each component of each vehicle today, computed by the core: what the due list filters and sorts by. One of a
 * vehicle's components leads: it speaks for the vehicle, whatever else is due of it. Computed anew once a day and whenever its
 * cause changes, so that a list is an index scan and no sum.
 */
export const dueStatus = pgTable(
  'due_status',
  {
    vehicleId: uuid().$type<VehicleId>().notNull(),
    component: text({ enum: list(COMPONENTS) }).notNull(),
    /** It binds first of its vehicle. */
    leads: boolean().notNull(),
    fleetId: fleetId(),
    depot: text().notNull(),
    dutyGroup: text().notNull(),
    /** The unit number with its digits padded, so that 9 comes before 10. */
    unitOrder: text().notNull(),
    state: text({ enum: list(DUE_STATES) }).notNull(),
    lifeUsed: doublePrecision(),
    /** Where seven and twenty-eight more days take it. */
    lifeIn7: doublePrecision(),
    lifeIn28: doublePrecision(),
    odometerNowKm: doublePrecision(),
    binds: text().$type<Binding>(),
    certainty: text({ enum: list(CERTAINTIES) }),
    dueP10: day(),
    dueP50: day(),
    dueP90: day(),
    /** The rate worked with: its own, or its duty group's. */
    rateKmPerDay: doublePrecision(),
    rateReadings: integer().notNull(),
    rateBorrowed: boolean().notNull(),
    /** Its rate is borrowed from its group: it changes with the group. */
    borrowsGroupRate: boolean().notNull(),
    failureCost: doublePrecision().notNull(),
    /** Money a week if this component waits; null where its life is not known. */
    pressure: doublePrecision(),
    /** The same of all components of the vehicle. */
    vehiclePressure: doublePrecision(),
    fitment: text({ enum: ['match', 'needs-answer', 'no-spec'] }).notNull(),
    fitmentWhy: text(),
    specSheetId: uuid().$type<SpecSheetId>(),
    limitKm: km(),
    limitBy: text({ enum: ['sheet', 'maker', 'shop'] }).notNull(),
    limitMonths: integer(),
    limitShare: doublePrecision().notNull(),
    /** When the one that speaks for it was fitted, and at how much. */
    fittedOn: day(),
    fittedKm: km(),
  },
  (t) => [
    primaryKey({ columns: [t.vehicleId, t.component] }),
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    index('due_status_by_life').on(t.fleetId, sql`${t.lifeUsed} desc nulls last`, t.unitOrder).where(sql`${t.leads}`),
    index('due_status_by_pressure')
      .on(t.fleetId, sql`${t.vehiclePressure} desc nulls last`, t.unitOrder)
      .where(sql`${t.leads}`),
    index('due_status_by_due').on(t.fleetId, t.dueP50, t.unitOrder).where(sql`${t.leads}`),
    index('due_status_by_unit').on(t.fleetId, t.unitOrder).where(sql`${t.leads}`),
    index('due_status_of_component_by_place').on(t.fleetId, t.component, t.depot, t.dutyGroup, t.state),
    index('due_status_of_component_by_due').on(t.fleetId, t.component, t.dueP50, t.unitOrder),
    index('due_status_of_component_by_pressure').on(
      t.fleetId,
      t.component,
      sql`${t.pressure} desc nulls last`,
      t.unitOrder,
    ),
    index('due_status_of_component').on(t.fleetId, t.component, sql`${t.lifeUsed} desc nulls last`, t.unitOrder),
    index('due_status_borrowing').on(t.fleetId, t.dutyGroup).where(sql`${t.borrowsGroupRate} and ${t.leads}`),
    check('due_status_component_known', sql`${t.component} in (${sql.raw(COMPONENTS.map((c) => `'${c}'`).join(','))})`),
  ],
);

/**
 * How many vehicles stand where, as changes to be summed up: triggers add one wherever due status changes. Rows are only
 * added, so that nobody waits for anybody; those of a fleet are summed up into few once a day.
 */
export const dueCounts = pgTable(
  'due_counts',
  {
    fleetId: fleetId(),
    depot: text().notNull(),
    dutyGroup: text().notNull(),
    state: text({ enum: list(DUE_STATES) }).notNull(),
    n: integer().notNull(),
  },
  (t) => [index('due_counts_of_fleet').on(t.fleetId)],
);

/** The day for which the due status of a fleet was computed last. */
export const dueRuns = pgTable('due_runs', {
  fleetId: uuid().primaryKey(),
  ranOn: day().notNull(),
});

/**
 * Duty groups in which a rate changed since those who borrow it were computed. They are computed when somebody
 * next looks, so that a reading costs the work of its own vehicle and no more.
 */
export const staleGroups = pgTable(
  'stale_groups',
  { id: uuid().primaryKey().defaultRandom(), fleetId: fleetId(), dutyGroup: text().notNull() },
  // Not unique on purpose: a mark never waits for another transaction's.
  (t) => [index().on(t.fleetId)],
);

/** A large file of readings: how far it has come, and what came of it. Its readings are written whole or not at all. */
export const readingLoads = pgTable(
  'reading_loads',
  {
    id: uuid().primaryKey().defaultRandom(),
    fleetId: fleetId(),
    fileName: text().notNull(),
    startedBy: uuid().notNull(),
    startedAt: instant().notNull(),
    state: text({ enum: ['receiving', 'queued', 'running', 'done', 'failed', 'cancelled'] }).notNull(),
    /** What it is doing, in words. */
    step: text().notNull(),
    rowsRead: integer().notNull().default(0),
    rowsJudged: integer().notNull().default(0),
    added: integer(),
    suspect: integer(),
    known: integer(),
    refused: integer(),
    /** The first rows that were refused, with why. */
    refusals: jsonb().$type<{ line: number; text: string; why: string }[]>(),
    message: text(),
    cancelAsked: boolean().notNull().default(false),
    /** While its file arrives: when something of it came last. */
    heardAt: instant(),
    endedAt: instant(),
  },
  (t) => [
    index().on(t.fleetId, t.startedAt),
    check('reading_loads_state_known', sql`${t.state} in ('receiving','queued','running','done','failed','cancelled')`),
  ],
);

/** A file of readings as it came, until it is loaded: whichever worker takes it, on whichever machine. */
export const readingLoadPieces = pgTable(
  'reading_load_pieces',
  {
    loadId: uuid()
      .notNull()
      .references(() => readingLoads.id, { onDelete: 'cascade' }),
    n: integer().notNull(),
    bytes: bytea().notNull(),
  },
  (t) => [primaryKey({ columns: [t.loadId, t.n] })],
);
