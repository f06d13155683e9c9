import type { z } from 'zod';
import { FAULTS_MARKED } from '@/contracts/forms/form-input';
import { unstorablePath } from '@/core/shared/storable-text';
import { type Actor, type Permission, refusal } from './access';
import type { Deps } from './deps';
import { fail, notFound, type Outcome, orRefused } from './failure';
import { log } from './log';

type Arguments<S> = S extends z.ZodType
  ? undefined extends z.input<S>
    ? [input?: z.input<S>]
    : [input: z.input<S>]
  : [];

/** What a screen, the HTTP interface, a job or a test calls: it checks who asks, reads the input, and answers in words. */
export interface UseCase<S extends z.ZodType | undefined, T> {
  (deps: Deps, actor: Actor, ...input: Arguments<S>): Promise<Outcome<T>>;
  /** The same for input that nobody has looked at yet, such as a form's. */
  readonly withUnknown: (deps: Deps, actor: Actor, input?: unknown) => Promise<Outcome<T>>;
  readonly permission: Permission;
  readonly input: S;
}

interface Rules {
  readonly permission: Permission;
  /** True: `run` judges each item's text by itself, so that one that cannot be stored does not stop the others. */
  readonly judgesTextItself?: true;
}

/**
 * Makes a use-case. Whoever may not is refused before the input is looked at; input that does not fit is refused with a
 * message for each field, and an id that is none is answered as what is not there. A `Refused` thrown within becomes its
 * failure; any other error is the caller's to report.
 */
export function useCase<S extends z.ZodType, T>(
  definition: Rules & {
    readonly input: S;
    readonly run: (deps: Deps, actor: Actor, input: z.output<S>) => Promise<Outcome<T>>;
  },
): UseCase<S, T>;
export function useCase<T>(
  definition: Rules & { readonly input?: undefined; readonly run: (deps: Deps, actor: Actor) => Promise<Outcome<T>> },
): UseCase<undefined, T>;
export function useCase<T>(
  definition: Rules & {
    readonly input?: z.ZodType;
    readonly run: (deps: Deps, actor: Actor, input: never) => Promise<Outcome<T>>;
  },
) {
  const { permission, input, judgesTextItself, run } = definition;
  const call = async (deps: Deps, actor: Actor, raw?: unknown): Promise<Outcome<T>> => {
    const refused = refusal(actor, permission);
    if (refused) {
      log.warn({ event: 'refused', permission, personId: actor.personId, role: actor.role });
      return refused;
    }
    const bad = judgesTextItself ? null : unstorablePath(raw);
    if (bad) return unstorable(bad);
    const parsed = input?.safeParse(raw);
    if (parsed && !parsed.success) return invalidInput(parsed.error);
    return orRefused(() => run(deps, actor, parsed?.data as never));
  };
  return Object.assign((...args: Parameters<typeof call>) => call(...args), { withUnknown: call, permission, input });
}

/** Whether a value is a use-case, for what goes over all of them. */
export const isUseCase = (value: unknown): value is UseCase<z.ZodType | undefined, unknown> =>
  typeof value === 'function' && 'permission' in value && 'input' in value;

const UNSTORABLE =
  'This text has a character that cannot be stored (NUL, or half of a pair). Delete it and type it again.';
const unstorable = (path: readonly string[]) =>
  fail('invalid', UNSTORABLE, path.length > 0 ? { [path.join('.')]: UNSTORABLE } : undefined);

/** Input that does not have the shape, with the message by field. */
export function invalidInput(error: z.ZodError) {
  if (error.issues.some(isNoId)) return notFound('entry');
  const [first] = error.issues;
  if (first && first.path.length === 0) return fail('invalid', first.message);
  const fields = Object.fromEntries(error.issues.map((issue) => [issue.path.join('.'), issue.message]));
  return fail('invalid', FAULTS_MARKED, fields);
}

/** An id that nobody typed: what is none is answered as what is not there. One that a person chooses says so itself. */
const isNoId = (issue: z.core.$ZodIssue): boolean =>
  issue.code === 'invalid_format' && issue.format === 'uuid' && issue.message === 'Invalid UUID';
