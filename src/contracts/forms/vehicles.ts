import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { REMOVAL_REASONS } from '@/core/components/history';
import { COMPONENTS } from '@/core/engine/quantities';
import type { FormInput } from './form-input';
import { reasonText } from './reason-text';

const cylinder = z.coerce.number('Choose a cylinder.').int().min(1, 'Choose a cylinder.').max(16);

export const swapCoilsForm = {
  schema: z
    .object({
      vehicleId: z.uuid(),
      first: cylinder,
      second: cylinder,
      reason: reasonText(200),
    })
    .refine((input) => input.first !== input.second, { path: ['second'], message: 'Choose another cylinder.' }),
} satisfies FormInput;

export const recordChangeForm = {
  schema: z.object({
    vehicleId: z.uuid(),
    component: z.enum(COMPONENTS.filter((component) => component !== 'plug')),
    /** Empty: all of them; else such as "1 3 5" or "bank 2". */
    sites: z.string().trim().max(60).default(''),
    on: z.string().trim().refine(isPlainDate, 'Give a day as 2026-11-02.'),
    odometer: z.string().trim().min(1, 'Give what the odometer showed.').max(60),
    certainty: z.enum(['exact', 'estimated']).default('exact'),
    partNumber: z.string().trim().max(60).default(''),
    /** Why the old ones came out. */
    removalReason: z.enum(REMOVAL_REASONS, 'Choose why the old ones came out.').default('unknown'),
    /** What is written on the part itself; for one part only. */
    tag: z.string().trim().max(60).default(''),
  }),
} satisfies FormInput;

export const distributorForm = {
  schema: z.object({
    vehicleId: z.uuid(),
    version: z.coerce.number().int(),
    /** Towers with the cylinder that their lead runs to: "5=1 6=5". */
    traced: z.string().trim().min(1, 'Write tower=cylinder for two leads, as 5=1 6=5.').max(80),
    /** How the turn was proven. */
    proof: z.string().trim().min(3, 'Say how it was proven: at which mark the rotor stood at which tower.').max(200),
  }),
} satisfies FormInput;

const key = z.object({ vehicleId: z.uuid(), readOn: z.string(), odometerKm: z.number() });

/** A reading of the inbox as its form carries it. */
function itemOf(text: string): unknown {
  const [vehicleId, readOn, odometerKm] = text.split('|');
  return { vehicleId, readOn, odometerKm: Number(odometerKm) };
}

export const resolveReadingsForm = {
  schema: z.object({
    items: z.array(key).min(1).max(1000),
    /** `correct` takes the suggestion, or the figure given; `meter_replaced` lets life go on from here. */
    how: z.enum(['accept', 'correct', 'meter_replaced', 'reject']),
    /** For one reading: what it was, with or without a unit. */
    corrected: z.string().trim().max(60).default(''),
    reason: z.string().trim().max(200).default(''),
  }),
  read: (texts, data) => ({ ...texts, items: data.getAll('item').map((item) => itemOf(String(item))) }),
} satisfies FormInput;
