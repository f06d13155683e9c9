import { z } from 'zod';
import { liftGateForm } from '@/contracts/forms/work-orders';
import { REMOVAL_REASONS } from '@/core/components/history';
import { BANK_PLACES } from '@/core/engine/model';
import { VERDICTS } from '@/core/inspection/finding';
import type { Json } from '@/core/work/entry';
import { ORDER_STATES } from '@/core/work/order-state';
import { PLACE_STATES, TASK_ACTIONS, TASK_COMPONENTS, TASK_WHYS } from '@/core/work/task';
import { codesInput, entriesInput, entryInput, MAX_ENTRIES, photoInput, workTimeInput } from '../order-entry';

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
  /** Of its plugs; null: no task is on plugs. */
  part_number: z.string().nullable(),
  gap_min_mm: z.number().nullable(),
  gap_max_mm: z.number().nullable(),
  torque_min_nm: z.number().nullable(),
  torque_max_nm: z.number().nullable(),
  minutes: z.number().int(),
  tasks: z.array(
    z.object({
      id: z.uuid(),
      action: z.enum(TASK_ACTIONS),
      component: z.enum(TASK_COMPONENTS),
      why: z.enum(TASK_WHYS),
      note: z.string().nullable(),
      part_number: z.string().nullable(),
      places: z.array(
        z.object({
          /** 2A, or engine. */
          place: z.string(),
          /** How entries name it: "site 2A" of a plug, "coil 2A". */
          target: z.string(),
          state: z.enum(PLACE_STATES),
          redo: z.boolean(),
          /** By the names that entries use. */
          fields,
        }),
      ),
    }),
  ),
  /** Besides the ignition; each has a step of its own. */
  other_work: z.array(z.object({ what: z.string(), minutes: z.number().int() })),
  /** What goes in, by number. */
  kit: z.array(z.object({ part_number: z.string(), component: z.enum(TASK_COMPONENTS), quantity: z.number().int() })),
  /** The plugs once more, by site. */
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

/** A task as it is asked for. */
const taskBody = z.object({
  action: z.enum(TASK_ACTIONS),
  component: z.enum(TASK_COMPONENTS),
  /** All, one bank, or places by name: "2A", a cylinder "2", or "engine". */
  places: z
    .union([
      z.literal('all'),
      z.object({ bank: z.enum(BANK_PLACES) }),
      z.array(z.string().min(1).max(12)).min(1).max(32),
    ])
    .default('all'),
  why: z.enum(TASK_WHYS).default('due'),
  note: z.string().max(300).default(''),
});

export const tasksBody = z.object({
  tasks: z.array(taskBody).min(1).max(20),
  release_reason: z.string().max(300).optional(),
});
export const tasksAdded = z.object({ added: z.number().int() });

export const splitBody = z.object({
  /** What goes to the other visit, by target: "site 3A", "coil 3A". */
  places: z.array(z.string().min(1).max(40)).min(1).max(100),
  reason: z.string().min(3).max(200),
});

export const openBody = z.object({
  unit_number: z.string().min(1).max(40),
  /** What is done; left out: what is due. */
  tasks: z.array(taskBody).min(1).max(20).optional(),
  /** Work besides the ignition, by what its engine family calls it. */
  other_work: z.array(z.string().max(120)).max(20).default([]),
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
export const codesBody = codesInput.omit({ workOrderId: true });
export const liftBody = liftGateForm.schema.omit({ workOrderId: true });
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
  /** Why the old plugs came out, where nobody said it at their site; left out: as their task says. */
  removal_reason: z.enum(REMOVAL_REASONS).optional(),
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
