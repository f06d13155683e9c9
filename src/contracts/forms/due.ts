import { z } from 'zod';
import { isPlainDate } from '@/core/calendar/plain-date';
import { COMPONENTS } from '@/core/engine/quantities';
import { ELECTRODES } from '@/core/gap/check';
import { POLICY_IDS } from '@/core/policy/policies';
import { type FormInput, filled, startingWith } from './form-input';
import { optionalDay } from './optional-day';
import { reasonText } from './reason-text';

const money = z.coerce.number('Give an amount.').int('Give a whole amount.').min(1, 'At least 1.').max(10_000_000);
const amount = (max: number) => z.coerce.number('Give an amount.').min(0, 'Not below 0.').max(max);
const wholeAmount = (max: number) => amount(max).int('Give a whole amount.');

export const costsForm = {
  schema: z.object({
    currency: z
      .string()
      .trim()
      .toUpperCase()
      .regex(/^[A-Z]{3}$/, 'Give its three letters, such as EUR.'),
    failureCost: money,
    wearCostPerPercent: amount(10_000),
    labourPerHour: amount(10_000).default(60),
    downtimePerVisit: amount(1_000_000).default(150),
    /** Of a vehicle out of service, an hour. */
    hourCost: wholeAmount(100_000).default(15),
    /** Of a booking that was agreed and is moved. */
    moveCost: wholeAmount(100_000).default(20),
    /** Of a break within a long day's work, minutes; 0: none. */
    breakMinutes: z.coerce
      .number('Give minutes.')
      .int('Give whole minutes.')
      .min(0, 'Not below 0.')
      .max(180, 'At most 180.')
      .default(30),
    /** Share of the bays' time that plug and coil service gets, in per cent. */
    bayPercent: z.coerce.number('Give a share.').min(1, 'At least 1 %.').max(100, 'At most 100 %.').default(100),
    /** By duty group; a group left out has the fleet's. */
    groups: z.record(z.string().min(1).max(120), money).default({}),
  }),
  read: (texts) => ({ ...texts, groups: filled(startingWith(texts, 'groups.')) }),
} satisfies FormInput;

export const deferForm = {
  schema: z.object({
    /** What is deferred; left out: all that the vehicle has due. */
    component: z.enum(COMPONENTS).optional(),
    vehicleIds: z.array(z.uuid()).min(1, 'Choose at least one vehicle.').max(500),
    until: z.string().trim().refine(isPlainDate, 'Give a day as 2026-12-31.'),
    reason: z.string().trim().min(3, 'Say why, so that the next person can tell.').max(300),
  }),
  read: ({ ids = '', component, ...rest }) => ({
    ...rest,
    component: component || undefined,
    vehicleIds: ids.split(',').filter(Boolean),
  }),
} satisfies FormInput;

export const blockForm = {
  schema: z.object({
    vehicleId: z.uuid(),
    fault: z.string().trim().min(3, 'Say which fault, in a few words.').max(200),
    /** When it is expected to be mended; empty: nobody can say. */
    until: optionalDay,
    reason: z.string().trim().max(300).default(''),
  }),
} satisfies FormInput;

export const saveViewForm = {
  schema: z.object({
    name: z.string().trim().min(1, 'Give it a name.').max(60),
    query: z.string().max(1000),
  }),
} satisfies FormInput;

export const reminderForm = {
  schema: z.object({
    vehicleId: z.uuid(),
    on: z.string().refine(isPlainDate, 'Give a day.'),
    /** What its dash shows. */
    odometer: z.string().trim().min(1, 'Give what the dash shows.').max(60),
  }),
} satisfies FormInput;

export const ceilingForm = {
  schema: z.object({
    electrode: z.enum(ELECTRODES),
    /** km; empty: no limit, the sheet alone decides. */
    km: z
      .union([z.literal(''), z.coerce.number('Give whole km.').int('Give whole km.').min(1000).max(1_000_000)])
      .default(''),
    why: z.string().trim().max(300).default(''),
  }),
} satisfies FormInput;

export const policyOptionForm = {
  schema: z.object({
    policy: z.enum(POLICY_IDS),
    scope: z.enum(['shop', 'group', 'vehicle']),
    /** The duty group's name or the vehicle's unit number; empty for the shop. */
    scopeName: z.string().trim().max(120).default(''),
    /** Empty: take the choice back. */
    option: z.string().max(40),
    why: z.string().trim().max(300).default(''),
  }),
} satisfies FormInput;

export const takeBackReminderForm = {
  schema: z.object({ vehicleId: z.uuid(), reason: reasonText(200) }),
} satisfies FormInput;
