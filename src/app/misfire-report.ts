import { texts } from './form-action';

/** What the form of a driver holds, as the use-case takes it. */
export function reportFrom(data: FormData): unknown {
  const { unitNumber = '', words = '', lamp = '', codes = '', cylinders = '', driver = '' } = texts(data);
  return {
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
  };
}

/** The field of the form that a part of the input stands in. */
export const reportField = (name: string): string => name.split('.')[1] ?? name;

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
