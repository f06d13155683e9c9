import type { z } from 'zod';

type Texts = Readonly<Record<string, string>>;

/** What a form sends. The same schema judges it in the browser before it is sent, and in its use-case on the server. */
export interface FormInput<S extends z.ZodType = z.ZodType> {
  readonly schema: S;
  /** The input out of what was typed; left out: the texts by field name. */
  readonly read?: (texts: Texts, data: FormData) => unknown;
  /** The field of the form that a part of the input is typed in, where the names differ. */
  readonly fieldName?: (name: string) => string;
}

/** Over a form with faults beside its fields. */
export const FAULTS_MARKED = 'Something here is missing or wrong. See the marked fields.';

/** Text of a form by field name; files and repeated names are left out. */
export const texts = (data: FormData): Record<string, string> =>
  Object.fromEntries([...data].filter((pair): pair is [string, string] => typeof pair[1] === 'string'));

/** The texts of the fields whose names start so, by the rest of their names. */
export const startingWith = (fields: Texts, start: string): Texts =>
  Object.fromEntries(
    Object.entries(fields).flatMap(([name, text]) =>
      name.startsWith(start) ? [[name.slice(start.length), text]] : [],
    ),
  );

/** Without the fields that were left empty. */
export const filled = (fields: Texts): Texts =>
  Object.fromEntries(Object.entries(fields).filter(([, text]) => text.trim() !== ''));

/** What a form sends back as JSON; what cannot be read is refused by the schema. */
export function fromJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
