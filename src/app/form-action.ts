import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { type FormInput, texts } from '@/contracts/forms/form-input';
import { deps } from '@/server/deps';
import type { Failure, Outcome } from '@/server/failure';
import type { UseCase } from '@/server/use-case';
import type { ActionAnswer, FormAction } from '@/ui/primitives/action-form';
import { SECRET_FIELDS } from '@/ui/primitives/secret-fields';
import { requireActor } from './actor';

interface Wiring<T> extends Partial<FormInput> {
  readonly onDone?: (value: T, texts: Readonly<Record<string, string>>) => Omit<ActionAnswer, 'ok'>;
}

/** A form's action: the use-case reads and judges what was typed, and its answer goes back beside the fields. */
export function formAction<T>(
  { withUnknown }: Pick<UseCase<undefined, T>, 'withUnknown'>,
  { read, onDone, fieldName }: Wiring<T> = {},
): FormAction {
  return posting(async (data) => {
    const typed = texts(data);
    const outcome = await withUnknown(deps(), await requireActor(), read ? read(typed, data) : typed);
    if (outcome.ok) return { ok: true, ...onDone?.(outcome.value, typed) };
    return refused(outcome.error, fieldName);
  });
}

/**
 * A form's action from what answers its data. A form that was posted before its scripts had come is answered by a page: it goes
 * on to the next one, or comes back with what was typed.
 */
export const posting =
  (run: (data: FormData) => Promise<ActionAnswer>): FormAction =>
  async (_, data) => {
    const answered = await run(data);
    if ((await headers()).has('next-action')) return answered;
    if (answered.ok && answered.to) redirect(answered.to);
    return answered.ok ? answered : { ...answered, typed: typedOf(data) };
  };

/** What was typed, by field; passwords are typed again. */
function typedOf(data: FormData): NonNullable<ActionAnswer['typed']> {
  const secret: readonly string[] = SECRET_FIELDS;
  const names = [...new Set(data.keys())].filter((name) => !name.startsWith('$ACTION') && !secret.includes(name));
  return Object.fromEntries(
    names.map((name) => [name, data.getAll(name).filter((value) => typeof value === 'string')]),
  );
}

/** A use-case's outcome as a form shows it. */
export function answer<T>(outcome: Outcome<T>, then?: (value: T) => Omit<ActionAnswer, 'ok'>): ActionAnswer {
  return outcome.ok ? { ok: true, ...then?.(outcome.value) } : refused(outcome.error);
}

/** A failure as a form shows it. */
export function refused(
  { message, fields }: Failure,
  fieldName: (name: string) => string = (name) => name,
): ActionAnswer {
  const named = fields && Object.fromEntries(Object.entries(fields).map(([name, text]) => [fieldName(name), text]));
  return { ok: false, message, fields: named };
}
