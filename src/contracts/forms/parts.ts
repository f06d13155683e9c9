import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { SAMPLE_DIFFERENCES } from '@/core/stock/receiving';
import { type FormInput, fromJson } from './form-input';
import { reasonText } from './reason-text';

const counted = z.coerce.number('Give a whole number.').int('Give a whole number.').min(0).max(100_000);

export const deliveryForm = {
  schema: z.object({
    orderedNumber: z.string().trim().min(1, 'Give the number that was ordered.').max(60),
    orderedQuantity: counted.min(1, 'At least 1.'),
    orderReference: z.string().trim().max(60).default(''),
    deliveredNumber: z.string().trim().min(1, 'Read the number off the box.').max(60),
    quantity: counted,
    source: z.string().trim().min(1, 'Say who sent it.').max(120),
    price: z.string().trim().max(20).default(''),
    lot: z.string().trim().max(60).default(''),
    gaps: z.string().trim().max(600).default(''),
    differsFromSample: z.array(z.enum(SAMPLE_DIFFERENCES)).default([]),
    /** Another box of an order and lot that were received before. */
    again: z.stringbool().or(z.boolean()).default(false),
  }),
  read: (texts, data) => ({ ...texts, differsFromSample: data.getAll('differsFromSample') }),
} satisfies FormInput;

export const resolveDeliveryForm = {
  schema: z.object({
    deliveryId: z.uuid(),
    version: z.coerce.number().int(),
    resolved: z.enum(['accepted', 'returned']),
    reason: reasonText(300),
  }),
} satisfies FormInput;

export const quarantineForm = {
  schema: z.object({
    deliveryId: z.uuid(),
    version: z.coerce.number().int(),
    reason: reasonText(300),
  }),
} satisfies FormInput;

export const banForm = {
  schema: z.object({
    name: z.string().trim().min(1, 'Say who.').max(120),
    reason: reasonText(300),
  }),
} satisfies FormInput;

export const startTrialForm = {
  schema: z.object({
    number: z.string().trim().min(1, 'Give the number on trial.').max(60),
    controlNumber: z.string().trim().min(1, 'Give the usual number.').max(60),
    why: z.string().trim().min(3, 'Say why it is tried, in a few words.').max(300),
    reviewOn: z.string().trim().refine(isPlainDate, 'Give a day as 2027-05-31.'),
  }),
} satisfies FormInput;

export const endTrialForm = {
  schema: z.object({
    trialId: z.uuid(),
    version: z.coerce.number().int(),
    outcome: z.string().trim().min(3, 'Say what came of it.').max(300),
  }),
} satisfies FormInput;

const figure = z.coerce.number('Give a number.');

export const wrenchForm = {
  schema: z
    .object({
      name: z.string().trim().min(1, 'Give it the name that is on its handle.').max(60),
      unit: z.enum(['N·m', 'lbf·ft', 'lbf·in']),
      min: figure.min(0, 'Not below 0.'),
      max: figure.gt(0, 'Above 0.').max(2000, 'At most 2,000.'),
      step: figure.gt(0, 'Above 0.').max(50, 'At most 50.'),
      lengthMm: figure.int('Whole millimetres.').min(50, 'At least 50 mm.').max(2000, 'At most 2,000 mm.'),
      calibratedOn: z.string().refine(isPlainDate, 'Give a day, as 2026-03-02.'),
    })
    .refine((w) => w.min < w.max, { path: ['min'], message: 'Must be below the greatest.' }),
} satisfies FormInput;

export const calibrationForm = {
  schema: z.object({
    wrenchId: z.uuid(),
    calibratedOn: z.string().refine(isPlainDate, 'Give a day, as 2026-03-02.').optional(),
    retired: z.boolean().optional(),
  }),
  read: ({ wrenchId, calibratedOn, retire }) => ({ wrenchId, ...(retire ? { retired: true } : { calibratedOn }) }),
} satisfies FormInput;

export const keepResultForm = {
  schema: z.object({
    tool: z.enum(['gaps', 'torque', 'convert', 'spark', 'firing', 'leads']),
    /** What was typed, so that the calculation can be made again. */
    input: z.record(z.string().max(60), z.string().max(2000)),
    summary: z.string().trim().min(1, 'There is no result to keep yet.').max(1000),
    /** Empty: kept without a work order. */
    workOrderNumber: z
      .string()
      .trim()
      .regex(/^\d{0,9}$/, 'Give the number of the order.')
      .default(''),
  }),
  read: ({ input = '{}', ...rest }) => ({ ...rest, input: fromJson(input) }),
} satisfies FormInput;
