import { sql } from 'drizzle-orm';
import {
  check,
  foreignKey,
  index,
  integer,
  jsonb,
  pgTable,
  text,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { Said } from '../../core/misfire/case-entry';
import { CASE_STATES } from '../../core/misfire/case-state';
import { DRIVING } from '../../core/misfire/driving';
import type { Suspicion } from '../../core/misfire/posterior';
import type { PersonId, VehicleId, WorkOrderId } from '../../core/shared/kinds';
import { createdAt, day, fleetId, id, instant, km, list, version } from './columns';
import { fleets, people, vehicles } from './fleet';
import { workOrders } from './work';

/** A vehicle that misfires, until it does no more. */
export const misfireCases = pgTable(
  'misfire_cases',
  {
    id: id(),
    fleetId: fleetId(),
    number: integer().notNull(),
    vehicleId: uuid().$type<VehicleId>().notNull(),
    state: text({ enum: list(CASE_STATES) })
      .notNull()
      .default('open'),
    openedOn: day().notNull(),
    openedKm: km(),
    /** What its entries pointed to when the last of them was made; null: they say nothing. */
    pointsTo: jsonb().$type<Suspicion>(),
    /** Whether the vehicle may be driven, by the same entries. */
    driving: text({ enum: list(DRIVING) })
      .notNull()
      .default('to_the_shop'),
    /** The visit that is to cure it, or did. */
    workOrderId: uuid().$type<WorkOrderId>(),
    /** Believed cured when the vehicle comes to so much. */
    watchUntilKm: km(),
    endedOn: day(),
    endedKm: km(),
    version: version(),
    createdAt: createdAt(),
  },
  (t) => [
    unique().on(t.fleetId, t.id),
    unique().on(t.fleetId, t.number),
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    uniqueIndex('misfire_cases_one_a_vehicle').on(t.vehicleId).where(sql`${t.state} <> 'closed'`),
    index().on(t.workOrderId),
    check('misfire_cases_state_known', sql`${t.state} in ('open','mending','referred','watching','closed')`),
    check('misfire_cases_driving_known', sql`${t.driving} in ('free','to_the_shop','stop')`),
    check('misfire_cases_ended_whole', sql`(${t.state} = 'closed') = (${t.endedOn} is not null)`),
  ],
);

/** What was said, found, tried and decided of a case, one after the other. Nothing is written over. */
export const misfireEntries = pgTable(
  'misfire_entries',
  {
    /** Given by the device, so that what is sent twice is there once. */
    id: uuid().primaryKey(),
    fleetId: fleetId(),
    caseId: uuid().notNull(),
    /** In what order they came. */
    ordinal: integer().notNull(),
    said: jsonb().$type<Said>().notNull(),
    at: instant().notNull(),
    /** Null: somebody without an account, by the address for drivers. */
    saidBy: uuid().$type<PersonId>(),
    /** What they call themselves. */
    driver: text(),
    takenBackAt: instant(),
    takenBackBy: uuid().$type<PersonId>(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.caseId], foreignColumns: [misfireCases.fleetId, misfireCases.id] }),
    foreignKey({ columns: [t.fleetId, t.saidBy], foreignColumns: [people.fleetId, people.id] }),
    unique().on(t.caseId, t.ordinal),
    check('misfire_entries_taken_back_by_someone', sql`(${t.takenBackAt} is null) = (${t.takenBackBy} is null)`),
  ],
);

/** What a driver reported and nobody could file, as it came; a supervisor deals with it. */
export const unfiledReports = pgTable(
  'unfiled_reports',
  {
    id: id(),
    fleetId: fleetId(),
    at: instant().notNull(),
    unitNumber: text().notNull(),
    driver: text().notNull(),
    /** Everything that was sent. */
    report: jsonb().$type<{ readonly complaint: Omit<Extract<Said, { kind: 'complaint' }>, 'kind'> }>().notNull(),
    why: text().notNull(),
    seenAt: instant(),
    seenBy: uuid().$type<PersonId>(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId], foreignColumns: [fleets.id] }),
    foreignKey({ columns: [t.fleetId, t.seenBy], foreignColumns: [people.fleetId, people.id] }),
    index().on(t.fleetId, t.at).where(sql`${t.seenAt} is null`),
    check('unfiled_reports_seen_by_someone', sql`(${t.seenAt} is null) = (${t.seenBy} is null)`),
  ],
);

/** The address at which drivers report without an account. Only its hash is kept. */
export const driverAddresses = pgTable(
  'driver_addresses',
  {
    id: id(),
    fleetId: fleetId().unique(),
    secretSha256: text().notNull().unique(),
    madeBy: uuid().$type<PersonId>().notNull(),
    createdAt: createdAt(),
  },
  (t) => [foreignKey({ columns: [t.fleetId, t.madeBy], foreignColumns: [people.fleetId, people.id] })],
);
