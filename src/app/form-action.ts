import { headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { deps } from '@/server/deps';
import type { Failure, Outcome } from '@/server/failure';
import type { UseCase } from '@/server/use-case';
import type { ActionAnswer, FormAction } from '@/ui/primitives/action-form';
import { SECRET_FIELDS } from '@/ui/primitives/secret-fields';
import { requireActor } from './actor';

type Texts = Readonly<Record<string, string>>;

interface Wiring<T> {
  /** What the use-case is given; without it the texts of the form by field name. */
  readonly read?: (texts: Texts, data: FormData) => unknown;
  readonly onDone?: (value: T, texts: Texts) => Omit<ActionAnswer, 'ok'>;
  /** Where a field of the input has another name in the form. */
  readonly fieldName?: (name: string) => string;
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
  return Object.fromEntries(names.map((name) => [name, data.getAll(name).filter((one) => typeof one === 'string')]));
}

/** A use-case's outcome as a form shows it. */
export function answer<T>(outcome: Outcome<T>, then?: (value: T) => Omit<ActionAnswer, 'ok'>): ActionAnswer {
  return outcome.ok ? { ok: true, ...then?.(outcome.value) } : refused(outcome.error);
}

function refused({ message, fields }: Failure, fieldName: (name: string) => string = (name) => name): ActionAnswer {
  const named = fields && Object.fromEntries(Object.entries(fields).map(([name, text]) => [fieldName(name), text]));
  return { ok: false, message, fields: named };
}

/** Text of a form by field name; files and repeated names are left out. */
export const texts = (data: FormData): Record<string, string> =>
  Object.fromEntries([...data].filter((pair): pair is [string, string] => typeof pair[1] === 'string'));

/** What a form sends back as JSON; what cannot be read is refused by the use-case that is given it. */
export function fromJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}
