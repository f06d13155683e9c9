import { err, type Result } from '@/core/shared/result';

export interface Failure {
  readonly kind: 'forbidden' | 'not-found' | 'edited-meanwhile' | 'invalid' | 'conflict';
  /** What, where and how to mend it: shown to the person. */
  readonly message: string;
  /** For input: the message by field. */
  readonly fields?: Readonly<Record<string, string>>;
}

export type Outcome<T> = Result<T, Failure>;

export const fail = (kind: Failure['kind'], message: string, fields?: Failure['fields']) =>
  err<Failure>({ kind, message, fields });

/** What one person said on a shared device is not sent in the name of the next. */
export const OF_ANOTHER = 'Somebody else made this entry. It goes in when they sign in on this device.';

export const notFound = (what: string) => fail('not-found', `There is no such ${what} in this fleet.`);

export const editedMeanwhile = () =>
  fail('edited-meanwhile', 'Someone changed this since you opened it. Load it again, then repeat your change.');

/** Thrown inside a transaction to roll it back and still answer in words. */
export class Refused extends Error {
  constructor(readonly failure: Failure) {
    super(failure.message);
  }
}

/** Runs a transaction; a `Refused` in it becomes the failed outcome. */
export async function orRefused<T>(run: () => Promise<Outcome<T>>): Promise<Outcome<T>> {
  try {
    return await run();
  } catch (error) {
    if (error instanceof Refused) return err(error.failure);
    throw error;
  }
}
