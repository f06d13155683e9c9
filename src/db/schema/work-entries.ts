import { sql } from 'drizzle-orm';
import { check, foreignKey, index, integer, jsonb, pgTable, text, unique, uuid } from 'drizzle-orm/pg-core';
import type { PersonId, WorkOrderId } from '../../core/shared/kinds';
import { COUNT_KINDS } from '../../core/work/ask';
import type { Json } from '../../core/work/entry';
import { GATES } from '../../core/work/gate-table';
import { bytea, createdAt, fleetId, id, instant, list } from './columns';
import { people } from './fleet';
import { workOrders } from './work';

/** Things counted out and in: while one is open the engine is not started. */
export const workOrderCounts = pgTable(
  'work_order_counts',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    key: text().notNull(),
    kind: text({ enum: list(COUNT_KINDS) }),
    what: text().notNull(),
    /** Null: as many as are found. */
    expected: integer(),
    outStep: text().notNull(),
    backStep: text().notNull(),
    out: integer(),
    back: integer(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    unique().on(t.workOrderId, t.key),
    check('work_order_counts_possible', sql`${t.out} between 0 and 200 and ${t.back} between 0 and 200`),
  ],
);

export const ENTRY_OUTCOMES = ['kept', 'same', 'differs', 'resolved', 'refused'] as const;

/**
 * What devices at the vehicle sent, as it came: append-only but for a difference that somebody resolves. The device makes the
 * id, so that what is sent twice is kept once.
 */
export const floorEntries = pgTable(
  'floor_entries',
  {
    id: uuid().primaryKey(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    target: text().notNull(),
    field: text().notNull(),
    value: jsonb().$type<Json>(),
    base: jsonb().$type<Json>(),
    outcome: text({ enum: list(ENTRY_OUTCOMES) }).notNull(),
    /** Why it was refused. */
    message: text(),
    enteredBy: uuid().notNull(),
    /** By the device's clock. */
    enteredAt: instant().notNull(),
    receivedAt: createdAt(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    foreignKey({ columns: [t.fleetId, t.enteredBy], foreignColumns: [people.fleetId, people.id] }),
    index().on(t.workOrderId, t.receivedAt),
    index('floor_entries_open').on(t.workOrderId).where(sql`${t.outcome} = 'differs'`),
  ],
);

/** A picture at a site or step, resized by the device. */
export const floorPhotos = pgTable(
  'floor_photos',
  {
    id: uuid().primaryKey(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    target: text().notNull(),
    mime: text({ enum: ['image/jpeg', 'image/png', 'image/webp'] }).notNull(),
    bytes: bytea().notNull(),
    takenBy: uuid().notNull(),
    takenAt: instant().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    index().on(t.workOrderId),
    check('floor_photos_not_large', sql`octet_length(${t.bytes}) <= 1500000`),
  ],
);

/** Fault codes as read before and after the work, kept before anything is cleared. */
export const workOrderCodes = pgTable(
  'work_order_codes',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    moment: text({ enum: ['before', 'after'] }).notNull(),
    /** Empty: none stored, which is an answer too. */
    codes: jsonb().$type<readonly KeptCode[]>().notNull(),
    source: text().notNull(),
    readBy: uuid().notNull(),
    readAt: instant().notNull(),
    clearedAt: instant(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    index().on(t.workOrderId),
  ],
);

export interface KeptCode {
  readonly code: string;
  /** What the engine computer froze with it. */
  readonly freeze: Readonly<Record<string, string>>;
}

/** Why a job stands still, and the part that it waits for. */
export const workOrderWaits = pgTable(
  'work_order_waits',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    /** The site it concerns; null: the job. */
    site: text(),
    reason: text().notNull(),
    /** What whoever goes on should know. */
    note: text(),
    /** Who goes on, where that is agreed. */
    nextPersonId: uuid().$type<PersonId>(),
    partNumber: text(),
    partWhat: text(),
    quantity: integer(),
    saidBy: uuid().notNull(),
    saidAt: instant().notNull(),
    endedAt: instant(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    foreignKey({ columns: [t.fleetId, t.nextPersonId], foreignColumns: [people.fleetId, people.id] }),
    index().on(t.fleetId).where(sql`${t.endedAt} is null`),
    index().on(t.workOrderId).where(sql`${t.endedAt} is null`),
    check('work_order_waits_whole', sql`(${t.partNumber} is null) = (${t.quantity} is null)`),
  ],
);

/** When somebody worked at it. Open: they do now. */
export const workTimes = pgTable(
  'work_times',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    personId: uuid().$type<PersonId>().notNull(),
    fromAt: instant().notNull(),
    toAt: instant(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    foreignKey({ columns: [t.fleetId, t.personId], foreignColumns: [people.fleetId, people.id] }),
    index().on(t.workOrderId),
  ],
);

/** What a person made of a drawn plug in the trainer. Append-only. */
export const trainerGrades = pgTable(
  'trainer_grades',
  {
    id: id(),
    fleetId: fleetId(),
    personId: uuid().$type<PersonId>().notNull(),
    /** Which plug was drawn: the same for everyone. */
    plug: integer().notNull(),
    answer: text().notNull(),
    said: text().notNull(),
    saidAt: createdAt(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.personId], foreignColumns: [people.fleetId, people.id] }),
    index().on(t.fleetId, t.personId),
  ],
);

/** A gate that a supervisor lifted for one visit: who, when and why stay on its record. */
export const gateLifts = pgTable(
  'gate_lifts',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    gate: text({ enum: list(GATES) }).notNull(),
    /** The place, as entries name it; null: the whole visit. */
    target: text(),
    reason: text().notNull(),
    liftedBy: uuid().$type<PersonId>().notNull(),
    liftedAt: instant().notNull(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    foreignKey({ columns: [t.fleetId, t.liftedBy], foreignColumns: [people.fleetId, people.id] }),
    unique().on(t.workOrderId, t.gate, t.target).nullsNotDistinct(),
    check('gate_lifts_have_reason', sql`length(${t.reason}) >= 3`),
  ],
);
