import { z } from 'zod';
import { REMOVAL_REASONS } from '@/core/components/history';
import { VERDICTS } from '@/core/inspection/finding';
import type { Json } from '@/core/work/entry';
import { ORDER_STATES } from '@/core/work/order-state';
import { entriesInput, entryInput, MAX_ENTRIES, photoInput, workTimeInput } from '../order-entry';

/* Work orders as other software sees them. */

export const workOrdersQuery = z.object({
  open: z.enum(['true', 'false']).default('false'),
  unit: z.string().max(60).optional(),
  limit: z.coerce.number().int().min(1).max(1000).default(100),
  cursor: z.coerce.number().int().optional(),
});

export const workOrder = z.object({
  id: z.uuid(),
  number: z.number().int(),
  unit_number: z.string(),
  engine: z.string(),
  depot: z.string(),
  state: z.enum(ORDER_STATES),
  planned_at: z.string().nullable(),
  person: z.string().nullable(),
  opened_on: z.string(),
  closed_on: z.string().nullable(),
});
export const workOrderList = z.object({ items: z.array(workOrder), next_cursor: z.number().int().nullable() });

const fields = z.record(z.string(), z.json() as z.ZodType<Json>);

export const workOrderWhole = workOrder.extend({
  version: z.number().int(),
  part_number: z.string(),
  gap_min_mm: z.number(),
  gap_max_mm: z.number(),
  torque_min_nm: z.number(),
  torque_max_nm: z.number(),
  sites: z.array(
    z.object({
      site: z.string(),
      expected_number: z.string().nullable(),
      removed_gap_mm: z.number().nullable(),
      new_gap_mm: z.number().nullable(),
      installed_torque_nm: z.number().nullable(),
      done: z.boolean(),
      redo: z.boolean(),
      /** By the names that entries use. */
      fields,
    }),
  ),
  steps: z.array(z.object({ key: z.string(), title: z.string(), caution: z.string().nullable(), fields })),
  counts: z.array(
    z.object({
      key: z.string(),
      what: z.string(),
      expected: z.number().nullable(),
      out: z.number().nullable(),
      back: z.number().nullable(),
    }),
  ),
  /** What still stands between the order and its close, in words. */
  blockers: z.array(z.string()),
});

export const openBody = z.object({
  unit_number: z.string().min(1).max(40),
  /** Why a sheet that is unchecked, expired or disputed may be worked by. */
  release_reason: z.string().max(300).optional(),
});
export const opened = z.object({ id: z.uuid(), number: z.number().int() });

/** Each entry is read by itself, so the body is described more closely than it is checked. */
export const entriesBody = entriesInput.omit({ workOrderId: true });
export const entriesDescribed = z.object({ entries: z.array(entryInput).min(1).max(MAX_ENTRIES) });
/** What a device needs of an order; what stands here is what other software can count on. */
const floorJob = z.looseObject({
  orderId: z.uuid(),
  orderNumber: z.number().int(),
  live: z.boolean(),
  unitNumber: z.string(),
  /** Fields by target, as entries name them. */
  record: z.record(z.string(), fields),
});
export const floorAnswer = z.object({ job: floorJob });
export const workingBody = workTimeInput.omit({ workOrderId: true });
export const photoQuery = photoInput.pick({ target: true, at: true });
export const entriesAnswer = z.object({
  results: z.array(
    z.object({
      id: z.uuid(),
      outcome: z.enum(['kept', 'same', 'differs', 'resolved', 'refused']),
      message: z.string().nullable(),
    }),
  ),
  job: floorJob,
});

export const closeBody = z.object({
  version: z.number().int(),
  odometer: z.string().min(1).max(60),
  note: z.string().max(500).default(''),
  /** Why the old plugs came out. */
  removal_reason: z.enum(REMOVAL_REASONS).default('planned'),
});

export const verdictBody = z.object({
  finding: z.string().max(400),
  verdict: z.enum(VERDICTS),
  instead: z.string().max(300).default(''),
  reason: z.string().max(300).default(''),
});

export const followUpBody = z.object({
  work_order: z.uuid(),
  what: z.string().min(3).max(300),
  owner_id: z.uuid(),
  due_on: z.iso.date().optional(),
  due_at: z.string().max(60).optional(),
});
