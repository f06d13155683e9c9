import { z } from 'zod';
import { REMOVAL_REASONS } from '@/core/components/history';
import { VERDICTS } from '@/core/inspection/finding';
import { GATES } from '@/core/work/gate-table';
import type { FormInput } from './form-input';
import { optionalDay } from './optional-day';
import { reasonText } from './reason-text';

export const closeForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    version: z.coerce.number().int(),
    odometer: z.string().trim().max(60),
    note: z.string().trim().max(500).default(''),
    /** The odometer after the road test was written wrongly: the figure at the close holds. */
    roadTestWrong: z.stringbool().or(z.boolean()).default(false),
    /** Why the old plugs came out, where nobody said it at their site; left out: as their task says. */
    removalReason: z.preprocess(
      (typed) => (typed === '' ? undefined : typed),
      z.enum(REMOVAL_REASONS, 'Choose why the old plugs came out.').optional(),
    ),
  }),
} satisfies FormInput;

export const reasonForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    reason: reasonText(300),
  }),
} satisfies FormInput;

export const approvePartForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    taskId: z.uuid(),
    number: z.string().trim().min(1, 'Give the number of the part.').max(60),
    as: z.enum(['equivalent', 'trial']),
    reason: reasonText(200),
  }),
} satisfies FormInput;

export const releaseSiteForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    /** The target of the place: "site 3A". */
    target: z.string().trim().max(40),
    reason: z.string().trim().min(3, 'Say why it may stay as it is.').max(300),
  }),
} satisfies FormInput;

export const waitForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    reason: z.string('Choose why it stops.').trim().min(3, 'Say in a few words why it stops.').max(200),
    /** As its button is called: 5, or 3A of a cylinder with two plugs. */
    site: z.string().trim().max(6).default(''),
    note: z.string().trim().max(500).default(''),
    /** Who goes on; empty: whoever has the time. */
    nextPersonId: z.union([z.literal(''), z.uuid()]).default(''),
    partNumber: z.string().trim().max(40).default(''),
    partWhat: z.string().trim().max(80).default(''),
    quantity: z.coerce.number().int('A whole number.').min(1, 'At least 1.').max(100).default(1),
  }),
} satisfies FormInput;

export const splitForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    /** What goes to the other visit, by the targets of its places: "site 3A", "coil 3A". */
    places: z.array(z.string().min(1).max(40)).min(1, 'Choose what goes to the other visit.').max(100),
    reason: reasonText(200),
  }),
  read: (texts, data) => ({ ...texts, places: data.getAll('places') }),
} satisfies FormInput;

export const followUpForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    findingKey: z.string().max(400).default(''),
    what: z.string().trim().min(3, 'Say what is to be done.').max(300),
    ownerId: z.uuid('Choose who sees to it.'),
    dueOn: optionalDay,
    /** At what odometer figure; empty: none. */
    dueAt: z.string().trim().max(60).default(''),
  }),
} satisfies FormInput;

export const finishFollowUpForm = {
  schema: z.object({
    followUpId: z.uuid(),
    outcome: z.string().trim().min(3, 'Say what came of it.').max(300),
  }),
} satisfies FormInput;

export const verdictForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    findingKey: z.string().max(400),
    verdict: z.enum(VERDICTS),
    insteadText: z.string().trim().max(300).default(''),
    reason: z.string().trim().max(300).default(''),
  }),
} satisfies FormInput;

export const takeOffTaskForm = {
  schema: z.object({ workOrderId: z.uuid(), taskId: z.uuid(), reason: reasonText(200) }),
} satisfies FormInput;

export const liftGateForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    gate: z.enum(GATES, 'There is no such gate.'),
    /** The place, as entries name it, for a gate of one place; else none. */
    target: z.string().max(60).nullish(),
    reason: z.string().trim().min(3, 'Give the reason: it stays on the record.').max(300),
  }),
} satisfies FormInput;
