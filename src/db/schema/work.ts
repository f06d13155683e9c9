import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  customType,
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
import { REMOVAL_REASONS } from '../../core/components/history';
import { CERTAINTIES } from '../../core/due/due';
import { ACCESS_CLASSES } from '../../core/engine/access';
import type { Ways } from '../../core/engine/access-items';
import type { VisitWork } from '../../core/engine/other-work';
import { COMPONENTS } from '../../core/engine/quantities';
import { type Finding, VERDICTS } from '../../core/inspection/finding';
import type { BayId, PartId, PersonId, SpecSheetId, VehicleId, WorkOrderId } from '../../core/shared/kinds';
import type { Ask } from '../../core/work/ask';
import { ORDER_STATES } from '../../core/work/order-state';
import { COMPOUNDS } from '../../core/work/place-fields';
import { PHASES, STEP_KINDS } from '../../core/work/procedure/step';
import { parts, specSheets } from './catalogue';
import { createdAt, day, fleetId, id, instant, km, list, mm, version } from './columns';
import { bays, people, vehicles } from './fleet';

const tsrange = customType<{ data: string }>({ dataType: () => 'tsrange' });

/** What sits, or sat, in each site: its own clock and history. */
export const fittedComponents = pgTable(
  'fitted_components',
  {
    id: id(),
    fleetId: fleetId(),
    vehicleId: uuid().$type<VehicleId>().notNull(),
    component: text({ enum: list(COMPONENTS) }).notNull(),
    /** What is written on the part itself, such as a coil's serial: it moves with the part. */
    tag: text(),
    cylinder: integer().notNull(),
    position: text({ enum: ['A', 'B'] }).notNull(),
    /** By the record; null: the record names none. */
    partId: uuid().$type<PartId>(),
    /** Read off the part itself. */
    observedNumber: text(),
    /** What someone says it is. */
    believedNumber: text(),
    history: text({ enum: ['proven', 'probable', 'unknown'] }).notNull(),
    installedOn: day().notNull(),
    installedOnCertainty: text({ enum: ['exact', 'estimated', 'assumed'] }).notNull(),
    installedOnAsTyped: text(),
    installedKm: km().notNull(),
    installedKmCertainty: text({ enum: ['exact', 'estimated', 'assumed'] }).notNull(),
    installedKmAsTyped: text(),
    gapMm: mm(),
    gapAsTyped: text(),
    /** Of its box: what a fault is traced by. */
    lot: text(),
    /** What is on its threads, with the batch of the tube: the next one to undo it wants to know. */
    compound: text({ enum: list(COMPOUNDS) }),
    compoundBatch: text(),
    specSheetId: uuid().$type<SpecSheetId>(),
    workOrderId: uuid().$type<WorkOrderId>(),
    removedOn: day(),
    removedKm: km(),
    /** As sure as the reading at which it came out. */
    removedKmCertainty: text({ enum: list(CERTAINTIES) }),
    /** Null as long as it sits there. */
    removalReason: text({ enum: list(REMOVAL_REASONS) }),
    removedByWorkOrderId: uuid(),
    /** Looked at while it stayed in, and found good for so much more; null: never, or it is counted from its fitting. */
    checkedOn: day(),
    checkedKm: km(),
    goodForKm: km(),
    /** From what that was told: a measurement, in words. */
    checkedFrom: text(),
    checkedByWorkOrderId: uuid(),
    createdAt: createdAt(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    foreignKey({ columns: [t.fleetId, t.partId], foreignColumns: [parts.fleetId, parts.id] }),
    foreignKey({ columns: [t.fleetId, t.specSheetId], foreignColumns: [specSheets.fleetId, specSheets.id] }),
    uniqueIndex('fitted_components_one_a_site')
      .on(t.vehicleId, t.component, t.cylinder, t.position)
      .where(sql`${t.removedOn} is null`),
    uniqueIndex('fitted_components_tag_in_one_place').on(t.fleetId, t.tag).where(sql`${t.removedOn} is null`),
    index().on(t.vehicleId),
    index().on(t.fleetId, t.partId, t.lot),
    check('fitted_components_km_possible', sql`${t.installedKm} >= 0`),
    check('fitted_components_checked_whole', sql`num_nulls(${t.checkedOn}, ${t.checkedKm}, ${t.goodForKm}) in (0, 3)`),
    check('fitted_components_removed_for_a_reason', sql`(${t.removedOn} is null) = (${t.removalReason} is null)`),
  ],
);

export const workOrders = pgTable(
  'work_orders',
  {
    id: id(),
    fleetId: fleetId(),
    number: integer().notNull(),
    vehicleId: uuid().$type<VehicleId>().notNull(),
    state: text({ enum: ORDER_STATES }).notNull(),
    minutes: integer().notNull(),
    /** The same by the steps alone, before the shop's own figures corrected it; null: opened before it was kept. */
    computedMinutes: integer(),
    /** The hardest access of the banks that it opens: by it and its family the minutes are learned. */
    access: text({ enum: list(ACCESS_CLASSES) }),
    /** Which way is taken where there are two: the usual item, and the one in its place. */
    ways: jsonb().$type<Ways>().notNull().default({}),
    openedOn: day().notNull(),
    openedBy: uuid().notNull(),
    closedOn: day(),
    closedBy: uuid(),
    closedKm: km(),
    closedKmAsTyped: text(),
    /** The first plug laid on the tray, as a site, and so the direction of the row; null: not declared. */
    trayFirst: text(),
    /** The person who did the work says that it is done. */
    handedOverBy: uuid(),
    handedOverAt: instant(),
    /** Bay time as it was worked, minutes. */
    minutesWorked: integer(),
    /** Why it was cancelled or reopened. */
    reason: text(),
    note: text(),
    /** What is done in the same visit besides the ignition: each is a step of its own, in this order. */
    otherWork: jsonb().$type<VisitWork[]>().notNull().default([]),
    version: version(),
    createdAt: createdAt(),
  },
  (t) => [
    unique().on(t.fleetId, t.number),
    unique().on(t.fleetId, t.id),
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    index().on(t.vehicleId),
    check(
      'work_orders_closed_whole',
      sql`(${t.state} = 'closed') = (${t.closedOn} is not null and ${t.closedKm} is not null)`,
    ),
  ],
);

export const workOrderSteps = pgTable(
  'work_order_steps',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    place: integer().notNull(),
    key: text().notNull(),
    /** What the rules go by; null: opened before steps had kinds, and its key names none. */
    kind: text({ enum: list(STEP_KINDS) }),
    title: text().notNull(),
    caution: text(),
    /** Null: opened before the steps had phases. */
    phase: text({ enum: list(PHASES) }),
    why: text(),
    tools: text().array(),
    consumables: text().array(),
    /** What has to be written down before it can be ticked; null: opened before the steps asked. */
    asks: jsonb().$type<readonly Ask[]>(),
    /** What was written down, by the key of its ask. */
    answers: jsonb().$type<Readonly<Record<string, string>>>().notNull().default({}),
    minutes: integer(),
    perSite: boolean().notNull().default(false),
    state: text({ enum: ['open', 'done', 'not_done'] })
      .notNull()
      .default('open'),
    saidBy: uuid(),
    saidAt: instant(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    unique().on(t.workOrderId, t.key),
    check('work_order_steps_state_known', sql`${t.state} in ('open','done','not_done')`),
  ],
);

/** A day, bay and person for a work order. Exclusion constraints in the migration refuse a double booking. */
export const bookings = pgTable(
  'bookings',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull().unique(),
    bayId: uuid().$type<BayId>().notNull(),
    personId: uuid().$type<PersonId>().notNull(),
    /** Local time at the depot. */
    during: tsrange().notNull(),
    /** A person says that it stays where it is. */
    pinned: boolean().notNull().default(false),
    version: version(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    foreignKey({ columns: [t.fleetId, t.bayId], foreignColumns: [bays.fleetId, bays.id] }),
    foreignKey({ columns: [t.fleetId, t.personId], foreignColumns: [people.fleetId, people.id] }),
  ],
);

/**
 * What a person said to a finding: the finding as the core gave it then, and what they made of it, side by side. A finding
 * nobody has spoken on is worked out anew whenever it is looked at.
 */
export const findingVerdicts = pgTable(
  'finding_verdicts',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    /** Cause and sites: the finding that is meant. */
    findingKey: text().notNull(),
    found: jsonb().$type<Finding>().notNull(),
    verdict: text({ enum: list(VERDICTS) }).notNull(),
    /** What it is instead, in the person's words, where they know better. */
    insteadText: text(),
    reason: text(),
    saidBy: uuid().notNull(),
    saidAt: instant().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    unique().on(t.workOrderId, t.findingKey),
  ],
);

/** Something to do later for a vehicle: by a day, at a distance, or when there is time. */
export const followUps = pgTable(
  'follow_ups',
  {
    id: id(),
    fleetId: fleetId(),
    vehicleId: uuid().$type<VehicleId>().notNull(),
    /** The visit it came from; null: a misfire without one. */
    workOrderId: uuid().$type<WorkOrderId>(),
    /** The misfire it came from, of the same fleet by the migration; null: none. */
    misfireCaseId: uuid(),
    /** The finding it came from; null: none. */
    findingKey: text(),
    what: text().notNull(),
    ownerId: uuid().notNull(),
    dueOn: day(),
    dueKm: km(),
    dueKmAsTyped: text(),
    createdBy: uuid().notNull(),
    createdAt: createdAt(),
    doneAt: instant(),
    doneBy: uuid(),
    outcome: text(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    foreignKey({ columns: [t.fleetId, t.ownerId], foreignColumns: [people.fleetId, people.id] }),
    index().on(t.fleetId, t.dueOn).where(sql`${t.doneAt} is null`),
    check('follow_ups_from_somewhere', sql`num_nonnulls(${t.workOrderId}, ${t.misfireCaseId}) > 0`),
    // The follow-up of a misfire ends by itself when a driver reports that it is back.
    check(
      'follow_ups_done_by_someone',
      sql`(${t.doneAt} is null) = (${t.doneBy} is null) or (${t.doneAt} is not null and ${t.misfireCaseId} is not null)`,
    ),
  ],
);

/** A due date that a person moved, with the reason. Only the latest that has not ended holds. */
export const deferrals = pgTable(
  'deferrals',
  {
    id: id(),
    fleetId: fleetId(),
    vehicleId: uuid().$type<VehicleId>().notNull(),
    component: text({ enum: list(COMPONENTS) }).notNull(),
    /** The day before which it is not asked for; null: nobody can say when the fault will be mended. */
    until: day(),
    /** Another fault that is to be mended first: it holds until someone says that it is. */
    fault: text(),
    reason: text().notNull(),
    deferredBy: uuid().notNull(),
    deferredAt: instant().notNull(),
    /** Taken back, replaced by another, or the work was done. */
    endedAt: instant(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    uniqueIndex('deferrals_one_in_force').on(t.vehicleId, t.component).where(sql`${t.endedAt} is null`),
    check('deferrals_end_somehow', sql`${t.until} is not null or ${t.fault} is not null`),
  ],
);
