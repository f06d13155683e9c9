import { z } from 'zod';
import { minuteOf } from '@/core/calendar/zone';
import { ABSENCE_OF } from '@/core/planning/absence-of';
import { weeklyRule } from '@/core/planning/weekly-rule';
import type { FormInput } from './form-input';

export const planForm = {
  schema: z.object({
    workOrderId: z.uuid(),
    day: z.iso.date('Give the day as 2026-04-18.'),
    start: z.string().regex(/^([01]\d|2[0-3]):[0-5]\d$/, 'Give the start as 08:30.'),
    minutes: z.coerce.number().int().min(5, 'At least 5 minutes.').max(1440, 'At most 24 hours.'),
    bayId: z.uuid('Choose a bay.'),
    personId: z.uuid('Choose a person.'),
    /** Which booking the person saw; empty: the order had none, or it does not matter. */
    version: z.union([z.literal(''), z.coerce.number().int()]).default(''),
  }),
} satisfies FormInput;

const time = z
  .string()
  .trim()
  .refine((text) => text === '' || !Number.isNaN(minuteOf(text)), 'Give a time such as 08:00.')
  .default('');

const day = z.iso.date('Give a day as 2026-12-24.');

export const awayTarget = { of: z.enum(ABSENCE_OF, 'Say what is away.'), ofId: z.uuid('Choose which one.') };

/** Whose absence a form means: "person 0d1f…". */
export const awayOf = (chosen = ''): { of?: string; ofId?: string } => {
  const [of, ofId] = chosen.split(' ');
  return { of, ofId };
};

export const absenceForm = {
  schema: z
    .object({
      ...awayTarget,
      what: z.string().trim().min(1, 'Say why.').max(120),
      from: day,
      /** Its last day; empty: the same. */
      to: z.union([z.literal(''), day]).default(''),
      fromTime: time,
      toTime: time,
      rule: z.string().trim().max(300).default(''),
    })
    .superRefine(({ from, to, fromTime, toTime }, check) => {
      const fault = (path: string, message: string) => check.addIssue({ code: 'custom', path: [path], message });
      if (to !== '' && to < from) fault('to', 'It ends before it begins.');
      if ((fromTime === '') !== (toTime === '')) fault('toTime', 'Give both times, or none for the whole day.');
      else if (fromTime !== '' && minuteOf(fromTime) >= minuteOf(toTime)) fault('toTime', 'It ends before it begins.');
    }),
  read: ({ who, rule = '', until = '', ...texts }, data) => ({
    ...texts,
    ...awayOf(who),
    rule: rule || weeklyRule(data.getAll('weekdays').map(String), until),
  }),
  fieldName: (name) => (name === 'of' || name === 'ofId' ? 'who' : name),
} satisfies FormInput;
