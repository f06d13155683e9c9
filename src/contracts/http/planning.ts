import { z } from 'zod';
import { ABSENCE_OF } from '@/core/planning/absence-of';

/* Bays, people and absences as other programs see them. */

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
