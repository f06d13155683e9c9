import { z } from 'zod';
import { ALL_CONDITIONS } from '@/core/inspection/vocabulary';
import { isKeptCurve } from '@/core/torque/kept-curve';
import type { Json } from '@/core/work/entry';
import { hasField, PLACE_FIELDS, type PlaceField } from '@/core/work/place-fields';
import { ORDER_TARGET, readPlaceTarget, readTarget } from '@/core/work/targets';

/* What a device at the vehicle may say of each field of an order: its shape, not yet whether it can be right. */

const curve = z
  .object({
    points: z.array(z.tuple([z.number(), z.number()])).max(200),
    verdict: z.string(),
    fault: z.string().nullable(),
    peakNm: z.number(),
    contactDeg: z.number().nullable(),
    source: z.string().max(60),
  })
  .refine(isKeptCurve, 'This is no curve of a wrench.');

function shapeOf(name: PlaceField): z.ZodType<Json> {
  const field = PLACE_FIELDS[name];
  switch (field.kind) {
    case 'text':
      return z.string().trim().max(field.max);
    case 'quantity':
      return z.string().trim().max(60);
    case 'choice':
      return z.enum(field.choices).nullable();
    case 'seen':
      return z.partialRecord(z.enum(ALL_CONDITIONS), z.union([z.literal(1), z.literal(2), z.literal(3)]));
    case 'curve':
      return curve.nullable();
    case 'instant':
      return z.iso.datetime({ offset: true }).nullable();
    case 'flag':
      return z.boolean();
  }
}

/** Made once: to make a schema takes far longer than to use it. */
const SHAPES = Object.fromEntries(
  (Object.keys(PLACE_FIELDS) as PlaceField[]).map((name) => [name, shapeOf(name)]),
) as Readonly<Record<PlaceField, z.ZodType<Json>>>;

const STEP_ANSWER = z.string('Write it down in words.').trim().max(300, 'At most 300 characters.');
const STEP_STATE = z.enum(['open', 'done', 'not_done'], 'A step is open, done or not done.');
const COUNT_FAULT = 'A count is a whole number from 0 to 200.';
const COUNT = z.number(COUNT_FAULT).int(COUNT_FAULT).min(0, COUNT_FAULT).max(200, COUNT_FAULT).nullable();
const TRAY_FIRST = z.string().nullable();

/** The shape of a value by its target and field; null: no order has such a field. */
export function entryValueSchema(target: string, field: string): z.ZodType<Json> | null {
  const place = readPlaceTarget(target);
  switch (readTarget(target).kind) {
    case 'place':
      return place && hasField(place.component, field) ? SHAPES[field] : null;
    case 'step':
      return field === 'state' ? STEP_STATE : STEP_ANSWER;
    case 'count':
      return COUNT;
    case ORDER_TARGET:
      return TRAY_FIRST;
    default:
      return null;
  }
}

const jsonValue: z.ZodType<Json> = z.json() as z.ZodType<Json>;

export const MAX_ENTRIES = 200;

/** One entry as a device sends it. */
export const entryInput = z.object({
  id: z.uuid(),
  /** Whose it is: on a shared device the next person's sign-in does not make it theirs. Missing: the sender's. */
  by: z.uuid().optional(),
  target: z.string().min(1).max(60),
  field: z.string().min(1).max(60),
  value: jsonValue,
  base: jsonValue,
  at: z.iso.datetime({ offset: true }),
  resolves: z.uuid().nullable().optional(),
});

/** Whatever has an id can be answered; the rest of it is looked at entry by entry. */
const sentEntry = z.custom<{ readonly id: string }>(
  (value) => z.looseObject({ id: z.uuid() }).safeParse(value).success,
  'Each entry has an id, a UUID.',
);

export const entriesInput = z.object({
  workOrderId: z.uuid(),
  /** Each is read by itself: one that cannot be taken is answered, and the others go in. */
  entries: z.array(sentEntry).min(1).max(MAX_ENTRIES),
});

export const photoInput = z.object({
  id: z.uuid(),
  workOrderId: z.uuid(),
  target: z.string().regex(/^[a-z_]{3,10} \w{1,40}$/, 'A photo belongs to a place or a step.'),
  at: z.iso.datetime({ offset: true }),
});

export const codesInput = z.object({
  workOrderId: z.uuid(),
  moment: z.enum(['before', 'after']),
  /** Typed by hand, separated by spaces; "none" where nothing is stored; empty: ask the reader. */
  typed: z.string().trim().max(300).default(''),
});

export const workTimeInput = z.object({ workOrderId: z.uuid(), working: z.boolean() });
