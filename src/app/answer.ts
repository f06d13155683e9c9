import type { z } from 'zod';
import type { Outcome } from '@/server/failure';
import type { ActionAnswer } from '@/ui/primitives/action-form';

/** A use-case's outcome as a form shows it. */
export function answer<T>(outcome: Outcome<T>, then?: (value: T) => Omit<ActionAnswer, 'ok'>): ActionAnswer {
  if (outcome.ok) return { ok: true, ...then?.(outcome.value) };
  return { ok: false, message: outcome.error.message, fields: outcome.error.fields };
}

/** Input that does not have the shape, with the message beside each field. */
export function invalid(error: z.ZodError): ActionAnswer {
  const fields = Object.fromEntries(error.issues.map((issue) => [issue.path.join('.'), issue.message]));
  return { ok: false, message: 'Something here is missing or wrong. See the marked fields.', fields };
}

/** Text of a form by field name; files and repeated names are left out. */
export const texts = (data: FormData): Record<string, string> =>
  Object.fromEntries([...data].filter((pair): pair is [string, string] => typeof pair[1] === 'string'));
