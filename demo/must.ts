import type { Outcome } from '../src/server/failure';

/** The value of an outcome; the demo is whole or not at all. */
export function must<T>(what: string, outcome: Outcome<T>): T {
  if (outcome.ok) return outcome.value;
  throw new Error(`demo: ${what}: ${outcome.error.message} ${JSON.stringify(outcome.error.fields ?? {})}`);
}
