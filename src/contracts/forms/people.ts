import { z } from 'zod';
import { WEEKDAYS, type Weekday } from '@/core/calendar/plain-date';
import { isZone, minuteOf } from '@/core/calendar/zone';
import { ROLES } from '@/core/shared/role';
import { type FormInput, startingWith } from './form-input';

export const password = z.string().min(10, 'At least 10 characters.').max(200);

export const name = z.string().trim().min(1, 'Give a name.').max(80, 'At most 80 characters.');

export const email = z
  .email('Give an address such as name@example.org.')
  .max(200)
  .transform((text) => text.toLowerCase());

export const addPersonForm = {
  schema: z.object({
    name,
    email,
    password,
    role: z.enum(ROLES),
    hybridQualified: z.boolean().default(false),
    unitSystem: z.enum(['metric', 'us']).default('metric'),
  }),
  read: (texts) => ({ ...texts, hybridQualified: texts.hybridQualified === 'on' }),
} satisfies FormInput;

export const changePasswordForm = {
  schema: z.object({
    current: z.string().min(1, 'Give your current password.').max(200),
    password,
  }),
} satisfies FormInput;

export const resetPasswordForm = {
  schema: z.object({ personId: z.uuid(), password }),
} satisfies FormInput;

export const tokenForm = {
  schema: z.object({ name: z.string().trim().min(1, 'Say what it is for.').max(80) }),
} satisfies FormInput;

export const firstRunForm = {
  schema: z.object({
    fleetName: name,
    name,
    email,
    password,
    timeZone: z.string().max(60).optional(),
  }),
} satisfies FormInput;

export const bayForm = {
  schema: z.object({ depotId: z.uuid(), name: z.string().trim().min(1, 'Give the bay a name.').max(40) }),
} satisfies FormInput;

const time = z
  .string()
  .trim()
  .refine((text) => !Number.isNaN(minuteOf(text)), 'Give a time such as 08:00.')
  .transform(minuteOf);

const weekdays = (days: z.ZodArray<z.ZodCoercedNumber>) =>
  days.refine(
    (chosen): chosen is Weekday[] => chosen.every((day) => WEEKDAYS.some((known) => known === day)),
    'There are seven days, 1 Monday to 7 Sunday.',
  );

export const depotForm = {
  schema: z
    .object({
      depotId: z.uuid(),
      timeZone: z.string().trim().refine(isZone, 'Give a zone such as Europe/Lisbon.'),
      workingDays: weekdays(z.array(z.coerce.number()).min(1, 'Choose at least one day.')),
      opens: time,
      closes: time,
      /** Days on which parts come; none: any working day. */
      deliveryDays: weekdays(z.array(z.coerce.number())).default([]),
      /** From when they are there on such a day; null: from the opening. */
      deliveryFrom: time.nullable().default(null),
      /** Minutes to other depots, by their id. */
      ways: z
        .record(
          z.uuid(),
          z.coerce
            .number('Give minutes.')
            .int('Give whole minutes.')
            .min(0, 'Not below 0.')
            .max(1440, 'At most 1,440.'),
        )
        .default({}),
    })
    .refine(({ opens, closes }) => opens < closes, { path: ['closes'], message: 'It closes after it opens.' }),
  read: (texts, data) => ({
    ...texts,
    workingDays: data.getAll('workingDays'),
    deliveryDays: data.getAll('deliveryDays'),
    deliveryFrom: texts.deliveryFrom?.trim() || null,
    ways: startingWith(texts, 'ways.'),
  }),
} satisfies FormInput;
