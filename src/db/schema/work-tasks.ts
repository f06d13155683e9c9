import { sql } from 'drizzle-orm';
import {
  boolean,
  check,
  foreignKey,
  integer,
  jsonb,
  pgTable,
  text,
  unique,
  uniqueIndex,
  uuid,
} from 'drizzle-orm/pg-core';
import { REMOVAL_REASONS } from '../../core/components/history';
import { BREAKAWAY_FEELS, TORQUE_METHODS } from '../../core/inspection/vocabulary';
import type { SpecSheetId, TaskId, VehicleId, WorkOrderId } from '../../core/shared/kinds';
import type { KeptCurve } from '../../core/torque/kept-curve';
import { COMPOUNDS, DROPPED, GRADES, HAND_STARTS, HOLE_THREADS, PIECES, RESULTS } from '../../core/work/place-fields';
import { TASK_ACTIONS, TASK_COMPONENTS, TASK_WHYS } from '../../core/work/task';
import { specSheets } from './catalogue';
import { createdAt, fleetId, id, instant, km, list, mm, nm, ohm, version } from './columns';
import { vehicles } from './fleet';
import { workOrders } from './work';

/** One action on one component at some places of a vehicle. */
/** A part that may go in although the sheet names another. */
export interface ApprovedPart {
  readonly number: string;
  /** equivalent: of another maker, the same for this engine; trial: to learn how it does. */
  readonly as: 'equivalent' | 'trial';
  readonly reason: string;
  readonly by: string;
  readonly on: string;
}

export const workTasks = pgTable(
  'work_tasks',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    /** In what order they were put on. */
    ordinal: integer().notNull(),
    action: text({ enum: list(TASK_ACTIONS) }).notNull(),
    component: text({ enum: list(TASK_COMPONENTS) }).notNull(),
    why: text({ enum: list(TASK_WHYS) }).notNull(),
    /** More about why, in words. */
    note: text(),
    /** The finding that it answers; null: none. */
    findingKey: text(),
    /** In force when the task was put on; null: it is looked at or measured by none. */
    specSheetId: uuid().$type<SpecSheetId>(),
    /** Parts other than the sheet's that a supervisor let in, with who and why. */
    approved: jsonb().$type<ApprovedPart[]>().notNull().default([]),
    /** Why a supervisor released it under a sheet that is unchecked, expired or disputed. */
    releaseReason: text(),
    takenOffAt: instant(),
    takenOffBy: uuid(),
    takenOffWhy: text(),
    createdBy: uuid().notNull(),
    createdAt: createdAt(),
  },
  (t) => [
    unique().on(t.fleetId, t.id),
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    foreignKey({ columns: [t.fleetId, t.specSheetId], foreignColumns: [specSheets.fleetId, specSheets.id] }),
    unique().on(t.workOrderId, t.ordinal),
    check('work_tasks_replace_by_a_sheet', sql`${t.action} <> 'replace' or ${t.specSheetId} is not null`),
    check('work_tasks_taken_off_whole', sql`num_nulls(${t.takenOffAt}, ${t.takenOffBy}, ${t.takenOffWhy}) in (0, 3)`),
  ],
);

/** What was found and done at one place of one task. */
export const taskPlaces = pgTable(
  'task_places',
  {
    id: id(),
    fleetId: fleetId(),
    workOrderId: uuid().$type<WorkOrderId>().notNull(),
    taskId: uuid().$type<TaskId>().notNull(),
    vehicleId: uuid().$type<VehicleId>().notNull(),
    component: text({ enum: list(TASK_COMPONENTS) }).notNull(),
    /** 0: of the whole engine. */
    cylinder: integer().notNull(),
    position: text({ enum: ['A', 'B'] }).notNull(),
    /** Its work order goes on and it is still on it: no other task may have the place. */
    live: boolean().notNull().default(true),
    /** The work order it went to; null: it is done, or left, under this one. */
    movedToId: uuid().$type<WorkOrderId>(),
    /** The revision this place was done under; null: by none. */
    specSheetId: uuid().$type<SpecSheetId>(),
    expectedNumber: text(),
    expectedTag: text(),
    observedNumber: text(),
    believedNumber: text(),
    tagOut: text(),
    removedGapMm: mm(),
    removedGapAsTyped: text(),
    /** Null: not looked at. A healthy part has its own words, so this is never empty. */
    conditions: text().array(),
    /** How clear each is, where it is not 2: 1 just visible, 3 beyond doubt. */
    severities: jsonb().$type<Readonly<Record<string, 1 | 3>>>().notNull().default({}),
    grade: text({ enum: list(GRADES) }),
    /** Name of the wrench, and the length of what was on it, as typed. */
    wrench: text(),
    adapter: text(),
    hole: text({ enum: list(HOLE_THREADS) }),
    dropped: text({ enum: list(DROPPED) }),
    pieces: text({ enum: list(PIECES) }),
    start: text({ enum: list(HAND_STARTS) }),
    breakawayFeel: text({ enum: list(BREAKAWAY_FEELS) }),
    breakawayTorqueNm: nm(),
    breakawayTorqueAsTyped: text(),
    primaryOhm: ohm(),
    primaryOhmAsTyped: text(),
    secondaryOhm: ohm(),
    secondaryOhmAsTyped: text(),
    ohm: ohm(),
    ohmAsTyped: text(),
    result: text({ enum: list(RESULTS) }),
    goodForKm: km(),
    goodForAsTyped: text(),
    removalReason: text({ enum: list(REMOVAL_REASONS) }),
    newNumber: text(),
    tagIn: text(),
    newGapMm: mm(),
    newGapAsTyped: text(),
    /** Gaps at which it was bent, mm. */
    bentFrom: text(),
    newLot: text(),
    /** Of a lead set or a cap: plugs whose lead is on, by site. */
    leadsOn: text(),
    compound: text({ enum: list(COMPOUNDS) }),
    compoundBatch: text(),
    torqueMethod: text({ enum: list(TORQUE_METHODS) }),
    wrenchSettingNm: nm(),
    wrenchSettingAsTyped: text(),
    installedTorqueNm: nm(),
    installedTorqueAsTyped: text(),
    /** Torque against angle, as the wrench sent it. */
    curve: jsonb().$type<KeptCurve>(),
    /** Penetrant went in; a seized plug. */
    soakedAt: instant(),
    /** Why it was left as it was; null: it was not. */
    leftWhy: text(),
    remark: text(),
    doneAt: instant(),
    doneBy: uuid(),
    /** Why it need not be redone although it was done under another revision than the one in force. */
    releasedReason: text(),
    releasedBy: uuid(),
    version: version(),
  },
  (t) => [
    foreignKey({ columns: [t.fleetId, t.workOrderId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    foreignKey({ columns: [t.fleetId, t.taskId], foreignColumns: [workTasks.fleetId, workTasks.id] }),
    foreignKey({ columns: [t.fleetId, t.vehicleId], foreignColumns: [vehicles.fleetId, vehicles.id] }),
    foreignKey({ columns: [t.fleetId, t.specSheetId], foreignColumns: [specSheets.fleetId, specSheets.id] }),
    foreignKey({ columns: [t.fleetId, t.movedToId], foreignColumns: [workOrders.fleetId, workOrders.id] }),
    unique().on(t.workOrderId, t.component, t.cylinder, t.position),
    uniqueIndex('task_places_in_one_open_task')
      .on(t.vehicleId, t.component, t.cylinder, t.position)
      .where(sql`${t.live}`),
    check('task_places_gap_possible', sql`${t.newGapMm} between 0.4 and 2.0`),
    check('task_places_done_by_someone', sql`(${t.doneAt} is null) = (${t.doneBy} is null)`),
    check('task_places_moved_is_not_live', sql`${t.movedToId} is null or not ${t.live}`),
  ],
);
