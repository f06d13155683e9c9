import { z } from 'zod';
import { ABSENCE_OF } from '@/core/planning/absence-of';
import { PROPOSAL_STATES } from '@/core/planning/plan-proposal';
import { PLANNED_REASONS, UNPLANNED_REASONS } from '@/core/planning/solver/reasons';

/* Bays, people, absences and plans as other programs see them. */

const window = z.object({ from_min: z.number().int(), to_min: z.number().int() });
/** By day of the week, 1 Monday to 7 Sunday; null: the hours of the depot. */
const week = z.record(z.string(), window).nullable();

export const bay = z.object({
  id: z.uuid(),
  depot: z.string(),
  name: z.string(),
  can: z.array(z.string()),
  hours: week,
});
export const bayList = z.object({ items: z.array(bay) });

export const person = z.object({
  id: z.uuid(),
  name: z.string(),
  role: z.string(),
  skills: z.array(z.string()),
  /** None: at every depot. */
  depots: z.array(z.string()),
  hours: week,
  active: z.boolean(),
});
export const personList = z.object({ items: z.array(person) });

export const absence = z.object({
  id: z.uuid(),
  of: z.enum(ABSENCE_OF),
  of_id: z.uuid(),
  name: z.string(),
  what: z.string(),
  from: z.string(),
  to: z.string(),
  from_min: z.number().int().nullable(),
  to_min: z.number().int().nullable(),
  /** RRULE of RFC 5545; null: once. */
  rule: z.string().nullable(),
});
export const absenceList = z.object({ items: z.array(absence) });

export const absenceBody = z.object({
  of: z.enum(ABSENCE_OF),
  of_id: z.uuid(),
  what: z.string().max(120),
  from: z.string().max(10),
  to: z.string().max(10).optional(),
  from_time: z.string().max(5).optional(),
  to_time: z.string().max(5).optional(),
  rule: z.string().max(300).optional(),
});
export const absenceKept = z.object({ id: z.uuid() });
export const absenceRemoved = z.object({ removed: z.literal(true) });

export const proposalBody = z.object({
  /** First day; left out: today. */
  from: z.string().max(10).optional(),
  days: z.number().optional(),
  seconds: z.number().optional(),
  seed: z.number().optional(),
});
export const proposalAsked = z.object({ id: z.uuid() });

const plannedJob = z.object({
  unit_number: z.string(),
  /** Null: it is due, and adopting the plan opens one. */
  work_order: z.number().int().nullable(),
  day: z.string(),
  bay: z.string(),
  person: z.string(),
  start_min: z.number().int(),
  minutes: z.number().int(),
  cost: z.number(),
  why: z.object({ code: z.enum(PLANNED_REASONS), message: z.string() }),
});
const unplannedJob = z.object({
  unit_number: z.string(),
  work_order: z.number().int().nullable(),
  reason: z.enum(UNPLANNED_REASONS),
  message: z.string(),
});
export const proposal = z.object({
  id: z.uuid(),
  state: z.enum(PROPOSAL_STATES),
  asked_by: z.string(),
  progress: z.object({ cost: z.number().nullable(), lower_bound: z.number().nullable(), share: z.number() }).nullable(),
  /** Null until it is done. */
  plan: z
    .object({
      days: z.array(z.string()),
      planned: z.array(plannedJob),
      unplanned: z.array(unplannedJob),
      cost: z.number(),
      lower_bound: z.number(),
      proven: z.boolean(),
    })
    .nullable(),
  problem: z.string().nullable(),
});
export const adopted = z.object({
  planned: z.number().int(),
  opened: z.number().int(),
  moved: z.number().int(),
  refused: z.array(z.object({ unit_number: z.string(), message: z.string() })),
});
export const planQuery = z.object({
  /** First day; left out: today. */
  from: z.string().max(10).optional(),
  /** Last day; left out: four weeks on. */
  to: z.string().max(10).optional(),
  /** By name; left out: all. */
  depot: z.string().max(120).optional(),
});
const booked = z.object({
  work_order: z.number().int(),
  work_order_id: z.uuid(),
  unit_number: z.string(),
  work: z.string(),
  depot: z.string(),
  day: z.string(),
  /** Since midnight by the clock of the depot. */
  start_min: z.number().int(),
  minutes: z.number().int(),
  bay: z.string(),
  bay_id: z.uuid(),
  person: z.string(),
  person_id: z.uuid(),
  state: z.string(),
  /** Whoever did the work says that it is done. */
  handed_over: z.boolean(),
  pinned: z.boolean(),
  /** Named by whoever moves it. */
  version: z.number().int(),
});
export const bookedList = z.object({ items: z.array(booked) });

export const moveBody = z.object({
  /** "order <id>", or "vehicle <id>" of one that is due: moving it opens its order. */
  job: z.string().max(60),
  /** Null: it is taken off the plan. */
  to: z.object({ day: z.string().max(10), bay_id: z.uuid(), person_id: z.uuid(), start_min: z.number() }).nullable(),
  /** It goes back to where it was agreed to be: that is not judged anew. */
  undo: z.boolean().optional(),
  /** The booking that was seen; null: there was none. */
  version: z.number().int().nullable(),
});
export const moved = z.object({ work_order_id: z.uuid(), opened: z.boolean(), version: z.number().int().nullable() });

export const pinBody = z.object({ work_order_id: z.uuid(), pinned: z.boolean(), version: z.number().int() });
export const pinKept = z.object({ pinned: z.boolean() });

export const stopped = z.object({ stopped: z.literal(true) });
