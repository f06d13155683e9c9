import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { DUE_SORTS } from '@/core/due/due-item';
import { POSITIONS } from '@/core/engine/model';
import { COMPONENTS } from '@/core/engine/quantities';
import { CAUSES, CONFIDENCES, URGENCIES, VERDICTS } from '@/core/inspection/finding';
import { SHAPES } from '@/core/inspection/shape';
import { READING_CERTAINTIES } from '@/core/odometer/intake';
import { TASK_ACTIONS, TASK_COMPONENTS } from '@/core/work/task';

/* Shapes of the stored data: the same schemas check the requests and describe them. */

export const vehiclesQuery = z.object({
  limit: z.coerce.number().int().min(1).max(1000).default(100),
  cursor: z.uuid().optional(),
});
export const vehicle = z.object({
  id: z.uuid(),
  unit_number: z.string(),
  name: z.string(),
  depot: z.string(),
  duty_group: z.string(),
  make: z.string().nullable(),
  model: z.string().nullable(),
  model_year: z.number().int().nullable(),
  vin: z.string().nullable(),
  engine_family: z.string().nullable(),
  variant: z.string().nullable(),
  in_service_on: z.string(),
  odometer_unit: z.enum(['km', 'mi']),
  severe_duty: z.boolean(),
  version: z.number().int(),
});
export const vehicleList = z.object({ items: z.array(vehicle), next_cursor: z.string().nullable() });

export const dueQuery = z.object({
  /** Left out: each vehicle once, with the component that binds first. */
  component: z.enum(COMPONENTS).optional(),
  depot: z.string().max(120).optional(),
  before: z.iso.date().optional(),
  min_life: z.coerce.number().min(0).max(100).optional(),
  min_pressure: z.coerce.number().min(0).optional(),
  sort: z.enum(DUE_SORTS).default('life'),
  limit: z.coerce.number().int().min(1).max(1000).default(100),
  cursor: z.coerce.number().int().min(0).default(0),
});
const dates = z.object({ p10: z.string(), p50: z.string(), p90: z.string() });
export const dueItem = z.object({
  vehicle_id: z.uuid(),
  unit_number: z.string(),
  name: z.string(),
  depot: z.string(),
  duty_group: z.string(),
  engine_family: z.string(),
  component: z.enum(COMPONENTS),
  part_number: z.string().nullable(),
  state: z.string(),
  life_used: z.number().nullable(),
  binds: z.enum(['distance', 'hours', 'time']).nullable(),
  limit_km: z.number().nullable(),
  limit_months: z.number().nullable(),
  history: z.string().nullable(),
  fitted_on: z.string().nullable(),
  fitted_km: z.number().nullable(),
  /** What its own dash will show on the due day, km; null: another limit binds, or it is past. */
  due_at_dash_km: z.number().nullable(),
  /** Plugs that were never out for long, steel in aluminium. */
  may_be_seized: z.boolean(),
  due: dates.nullable(),
  /** What else of the vehicle has a due status, the soonest first; `due` is the likely day. */
  others: z.array(
    z.object({
      component: z.enum(COMPONENTS),
      state: z.string(),
      life_used: z.number().nullable(),
      due: z.string().nullable(),
    }),
  ),
  /** Money a week if the work waits, in the fleet's currency: of the component asked for, else of all of the vehicle. */
  pressure_per_week: z.number().nullable(),
  failure_cost: z.number(),
  odometer_unit: z.enum(['km', 'mi']),
  odometer_km: z.number().nullable(),
  odometer_on: z.string().nullable(),
  odometer_now_km: z.number().nullable(),
  rate_km_per_day: z.number().nullable(),
  rate_borrowed: z.boolean().nullable(),
  work_order: z.number().int().nullable(),
});
export const dueList = z.object({
  items: z.array(dueItem),
  next_cursor: z.number().int().nullable(),
  /** The day for which it was computed. */
  today: z.string(),
});

const range = z.object({ min: z.number(), max: z.number() });
export const fitmentSheet = z.object({
  spec_sheet_id: z.uuid(),
  part_number: z.string(),
  scope: z.string(),
  gap_mm: range,
  torque_nm: range,
  source_kind: z.string(),
  source_document: z.string(),
  revision: z.number().int(),
  checked_by: z.string().nullable(),
});
/** What goes in of a component other than the plug. */
const componentFitment = z.object({
  component: z.enum(COMPONENTS),
  result: z.enum(['match', 'needs-answer', 'no-spec']),
  part_number: z.string().nullable(),
  quantity: z.number().int(),
  /** Of the screw that holds it. */
  torque_nm: range.nullable(),
  primary_ohm: range.nullable(),
  secondary_ohm: range.nullable(),
  resistance_ohm: range.nullable(),
  interval_km: z.number().nullable(),
  interval_months: z.number().nullable(),
  source_document: z.string().nullable(),
  blocked_by: z.array(z.string()),
});

/** What sits where, from when on. */
export const componentsQuery = z.object({
  unit: z.string().min(1).max(60).optional(),
  limit: z.coerce.number().int().min(1).max(1000).default(100),
  cursor: z.uuid().optional(),
});
export const componentItem = z.object({
  unit_number: z.string(),
  component: z.enum(COMPONENTS),
  /** 3A, or engine. */
  place: z.string(),
  tag: z.string().nullable(),
  part_number: z.string().nullable(),
  history: z.string(),
  installed_on: z.string(),
  installed_km: z.number(),
  /** exact, estimated or assumed. */
  installed_certainty: z.string(),
  lot: z.string().nullable(),
  checked_on: z.string().nullable(),
  good_for_km: z.number().nullable(),
  checked_from: z.string().nullable(),
});
export const componentList = z.object({ items: z.array(componentItem), next_cursor: z.string().nullable() });

/** One answer: match, the one question that decides, or no spec. */
export const fitmentAnswer = z.object({
  vehicle_id: z.uuid(),
  unit_number: z.string(),
  result: z.enum(['match', 'needs-answer', 'no-spec']),
  spec: fitmentSheet.nullable(),
  quantity: z.number().int().nullable(),
  /** Why the sheet releases no work without a supervisor's reason. */
  blocked_by: z.array(z.string()),
  question: z.object({ key: z.string(), text: z.string(), choices: z.array(z.string()) }).nullable(),
  candidates: z.array(fitmentSheet),
  /** The other parts that this engine has, each by its own sheets. */
  components: z.array(componentFitment),
  reason: z.string().nullable(),
});

/** Readings of a feed: each is judged on its own, and sending twice does no harm. */
export const readingsBody = z.object({
  readings: z
    .array(
      z.object({
        unit_number: z.string().min(1).max(60),
        on: z.string().refine(isPlainDate, 'a real day as 2031-04-18').meta({ format: 'date' }),
        value: z.number().min(0).max(10_000_000),
        /** Without one it is what the dash shows; h is a reading of the hour meter. */
        unit: z.enum(['km', 'mi', 'h']).optional(),
        source: z.string().max(60).optional(),
      }),
    )
    .min(1)
    .max(1000),
});
export const readingsAnswer = z.object({
  results: z.array(
    z.object({
      unit_number: z.string(),
      on: z.string(),
      state: z.enum(['accepted', 'suspect', 'known', 'refused']),
      odometer_km: z.number().nullable(),
      /** Of an hour meter. */
      engine_hours: z.number().nullable(),
      message: z.string(),
    }),
  ),
});

/** A file that has come and waits for a worker. */
export const loadAccepted = z.object({ load_id: z.uuid() });

/** The sums of a file that was written. */
export const loadAnswer = z.object({
  load_id: z.uuid(),
  added: z.number().int(),
  suspect: z.number().int(),
  known: z.number().int(),
  refused: z.number().int(),
});

export const loadItem = z.object({
  load_id: z.uuid(),
  file_name: z.string(),
  /** `receiving`: it is still being sent. `stopped`: it did not arrive whole, and nothing was written. */
  state: z.enum(['receiving', 'queued', 'running', 'done', 'failed', 'cancelled', 'stopped']),
  step: z.string(),
  rows_read: z.number().int(),
  rows_judged: z.number().int(),
  added: z.number().int().nullable(),
  suspect: z.number().int().nullable(),
  known: z.number().int().nullable(),
  refused: z.number().int().nullable(),
  refusals: z.array(z.object({ line: z.number().int(), text: z.string(), why: z.string() })),
  message: z.string().nullable(),
  started_at: z.string(),
  started_by: z.string().nullable(),
});
export const loadList = z.object({ items: z.array(loadItem) });

export const reading = z.object({
  unit_number: z.string(),
  on: z.string(),
  odometer_km: z.number(),
  /** As it was typed or sent. */
  as_typed: z.string(),
  unit: z.enum(['km', 'mi']),
  source: z.string(),
  /** `estimated`: said to be about so much. */
  certainty: z.enum(READING_CERTAINTIES),
  state: z.enum(['accepted', 'suspect', 'rejected']),
  doubt: z.string().nullable(),
  suggested_km: z.number().nullable(),
});
export const readingList = z.object({ items: z.array(reading), next_cursor: z.string().nullable() });

export const followUpsQuery = z.object({ open: z.enum(['true', 'false']).default('true') });
export const followUp = z.object({
  id: z.uuid(),
  unit_number: z.string(),
  /** Null: of a misfire without a visit. */
  work_order: z.number().int().nullable(),
  /** Number of the misfire that it watches; null: none. */
  misfire: z.number().int().nullable(),
  what: z.string(),
  owner: z.string(),
  due_on: z.string().nullable(),
  due_km: z.number().nullable(),
  is_due: z.boolean(),
  done_at: z.string().nullable(),
  outcome: z.string().nullable(),
});
export const followUpList = z.object({ items: z.array(followUp) });

const place = z.object({ cylinder: z.number().int(), position: z.enum(POSITIONS) });
export const finding = z.object({
  /** Names it when a verdict is sent. */
  key: z.string(),
  cause: z.enum(CAUSES),
  shape: z.enum(SHAPES),
  sites: z.array(place),
  confidence: z.enum(CONFIDENCES),
  urgency: z.enum(URGENCIES),
  evidence: z.array(place.extend({ words: z.string() })),
  against: z.array(place.extend({ words: z.string() })),
  /** Plugs that were looked at, of all that the engine has. */
  looked: z.number().int(),
  of: z.number().int(),
  next: z.array(z.string()),
  /** The tasks that would answer it, as a work order takes them. */
  answers: z.array(
    z.object({
      action: z.enum(TASK_ACTIONS),
      component: z.enum(TASK_COMPONENTS),
      places: z.union([z.literal('all'), z.array(z.string())]),
    }),
  ),
  /** It no longer shows, as the record has been changed since somebody spoke on it. */
  past: z.boolean(),
  said: z
    .object({
      verdict: z.enum(VERDICTS),
      instead: z.string().nullable(),
      reason: z.string().nullable(),
      by: z.string(),
    })
    .nullable(),
});
export const findingList = z.object({ items: z.array(finding) });
