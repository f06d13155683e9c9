import { z } from 'zod';
import { cause, codesText, complaint } from '../misfire';
import { type FormInput, fromJson } from './form-input';
import { reasonText } from './reason-text';

export const reportForm = {
  schema: z.object({
    unitNumber: z.string().trim().min(1, 'Give the number of the vehicle.').max(60),
    complaint: complaint.omit({ kind: true }),
    /** As typed or pasted; empty: nobody read any. */
    codes: z.union([z.literal(''), codesText]).default(''),
    /** What somebody without an account calls themselves. */
    driver: z.string().trim().max(80).default(''),
  }),
  read: ({ unitNumber = '', words = '', lamp = '', codes = '', cylinders = '', driver = '' }, data) => ({
    unitNumber,
    codes,
    driver,
    complaint: {
      words,
      lamp,
      symptoms: data.getAll('symptoms'),
      cylinders: cylinders
        .split(/[\s,;]+/)
        .filter(Boolean)
        .map(Number),
    },
  }),
  fieldName: (name) => name.split('.')[1] ?? name,
} satisfies FormInput;

/** The same from somebody without an account, who has to say who reports. */
export const driverReportForm = {
  ...reportForm,
  schema: reportForm.schema.extend({ driver: z.string().trim().min(2, 'Say who you are.').max(80) }),
} satisfies FormInput;

export const decideForm = {
  schema: z.object({
    caseId: z.uuid(),
    decision: z.enum(['refer', 'watch', 'close', 'reopen'], 'Refer, watch, close or reopen.'),
    words: reasonText(500),
    /** What is referred, where it is one cause. */
    cause: cause.nullish().transform((value) => value ?? null),
  }),
  read: ({ cause: chosen, ...rest }) => ({ ...rest, cause: chosen ? fromJson(chosen) : null }),
} satisfies FormInput;

/** The field of a form by the last part of a place in the input. */
export const lastOf = (name: string): string => name.split('.').at(-1) ?? name;

const FIGURES: readonly string[] = ['cylinder', 'km', 'from', 'to', 'misfires'];
/** How full a tank is, as a person chooses it, or a plain figure. */
const figure = (text: string): number => {
  const [part, whole] = text.split('/');
  return whole ? Number(part) / Number(whole) : Number(text || Number.NaN);
};

/** The fields of a form with its figures as such. */
export const withFigures = (fields: Readonly<Record<string, string>>): Readonly<Record<string, unknown>> =>
  Object.fromEntries(
    Object.entries(fields).map(([name, text]) => [name, FIGURES.includes(name) ? figure(text) : text]),
  );

/** Counts by cylinder, from fields named `count 3`. */
export const countsFrom = (
  fields: Readonly<Record<string, string>>,
): readonly { cylinder: number; misfires: number }[] =>
  Object.entries(fields).flatMap(([name, typed]) =>
    name.startsWith('count ') && typed.trim() !== ''
      ? [{ cylinder: Number(name.slice('count '.length)), misfires: Number(typed.replace(',', '.')) }]
      : [],
  );
