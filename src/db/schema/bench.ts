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
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import type { PartId, WorkOrderId } from '../../core/shared/kinds';
import { parts } from './catalogue';
import { createdAt, day, fleetId, id, instant, version } from './columns';
import { fleets } from './fleet';
import { workOrders } from './work';

/** The register of torque wrenches. */
export const wrenches = pgTable(
  'wrenches',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    name: text().notNull(),
    /** Unit of min, max and step. */
    unit: text({ enum: ['N·m', 'lbf·ft', 'lbf·in'] }).notNull(),
    min: numeric({ precision: 7, scale: 2, mode: 'number' }).notNull(),
    max: numeric({ precision: 7, scale: 2, mode: 'number' }).notNull(),
    step: numeric({ precision: 6, scale: 3, mode: 'number' }).notNull(),
    lengthMm: integer().notNull(),
    calibratedOn: day().notNull(),
    retired: boolean().notNull().default(false),
    version: version(),
  },
  (t) => [
    unique().on(t.fleetId, t.name),
    check('wrenches_range', sql`0 <= ${t.min} and ${t.min} < ${t.max} and ${t.step} > 0`),
    check('wrenches_length_possible', sql`${t.lengthMm} between 10 and 3000`),
  ],
);

/** A calculation from the bench, kept with a work order or by itself. Append-only in meaning. */
export const benchResults = pgTable(
  'bench_results',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    tool: text({ enum: ['gaps', 'torque', 'convert', 'spark', 'firing', 'leads'] }).notNull(),
    input: jsonb().$type<Record<string, string>>().notNull(),
    /** In words, with units: what a person reads later. */
    summary: text().notNull(),
    workOrderId: uuid().$type<WorkOrderId>(),
    keptBy: uuid().notNull(),
    keptAt: instant().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    index().on(t.fleetId, t.workOrderId),
  ],
);

/** One line of a delivery as it was checked. */
export const deliveries = pgTable(
  'deliveries',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    receivedOn: day().notNull(),
    orderReference: text(),
    partId: uuid().$type<PartId>().notNull(),
    orderedQuantity: integer().notNull(),
    deliveredNumber: text().notNull(),
    quantity: integer().notNull(),
    /** Of these, what is no stock: set aside one by one. */
    setAside: integer().notNull().default(0),
    source: text().notNull(),
    price: numeric({ precision: 9, scale: 2, mode: 'number' }),
    lot: text(),
    /** As measured, mm, in the order of the box. */
    gapsMm: numeric({ precision: 6, scale: 4, mode: 'number' }).array().notNull(),
    gapsAsTyped: text(),
    differsFromSample: text().array().notNull(),
    verdict: text({ enum: ['accepted', 'quarantined', 'back_to_supplier'] }).notNull(),
    reasons: jsonb().$type<{ code: string; message: string }[]>().notNull(),
    /** Points that speak for a counterfeit. */
    suspicion: integer().notNull().default(0),
    /** What a person did with what was set aside, with the reason. */
    resolved: text({ enum: ['accepted', 'returned'] }),
    resolvedReason: text(),
    resolvedBy: uuid(),
    checkedBy: uuid().notNull(),
    createdAt: createdAt(),
    version: version(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.partId], foreignColumns: [parts.fleetId, parts.id] }),
    index().on(t.fleetId, t.receivedOn),
    check(
      'deliveries_counts_possible',
      sql`${t.orderedQuantity} > 0 and ${t.setAside} >= 0 and ${t.quantity} >= ${t.setAside}`,
    ),
    check('deliveries_resolved_whole', sql`num_nulls(${t.resolved}, ${t.resolvedReason}, ${t.resolvedBy}) in (0, 3)`),
    check('deliveries_resolved_what_was_quarantined', sql`${t.resolved} is null or ${t.verdict} <> 'accepted'`),
  ],
);

/** A seller from whom nothing is taken any more, with the reason; lifted, it stays as history. */
export const bannedSellers = pgTable(
  'banned_sellers',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    name: text().notNull(),
    reason: text().notNull(),
    bannedBy: uuid().notNull(),
    bannedOn: day().notNull(),
    liftedOn: day(),
  },
  (t) => [uniqueIndex('banned_sellers_once').on(t.fleetId, sql`lower(${t.name})`).where(sql`${t.liftedOn} is null`)],
);

/** Another part tried on some vehicles against the usual one on the others. */
export const trials = pgTable(
  'trials',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    partId: uuid().$type<PartId>().notNull(),
    controlPartId: uuid().notNull(),
    why: text().notNull(),
    startedOn: day().notNull(),
    reviewOn: day().notNull(),
    startedBy: uuid().notNull(),
    endedOn: day(),
    outcome: text(),
    version: version(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.partId], foreignColumns: [parts.fleetId, parts.id] }),
    foreignKey({ columns: [t.fleetId, t.controlPartId], foreignColumns: [parts.fleetId, parts.id] }),
    uniqueIndex('trials_one_running').on(t.partId).where(sql`${t.endedOn} is null`),
    check('trials_of_another', sql`${t.partId} <> ${t.controlPartId}`),
    check('trials_in_order', sql`${t.reviewOn} > ${t.startedOn} and num_nulls(${t.endedOn}, ${t.outcome}) in (0, 2)`),
  ],
);

/** An option chosen for the shop, a duty group or one vehicle. A spec sheet's own word stands on the sheet. */
export const policyChoices = pgTable(
  'policy_choices',
  {
    id: id(),
    fleetId: fleetId().references(() => fleets.id),
    policy: text().notNull(),
    scope: text({ enum: ['shop', 'group', 'vehicle'] }).notNull(),
    /** Null for the shop; the duty group's name or the vehicle's id. */
    scopeKey: text(),
    option: text().notNull(),
    why: text().notNull(),
    chosenBy: uuid().notNull(),
    chosenAt: instant().notNull(),
  },
  (t) => [
    unique().on(t.fleetId, t.policy, t.scope, t.scopeKey).nullsNotDistinct(),
    check('policy_choices_scope_whole', sql`(${t.scope} = 'shop') = (${t.scopeKey} is null)`),
  ],
);
