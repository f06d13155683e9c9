/* What an entry can be about: one site, step or count of an order, or the order itself. */

export const siteTarget = (id: string): string => `site ${id}`;
export const stepTarget = (key: string): string => `step ${key}`;
export const countTarget = (key: string): string => `count ${key}`;
export const ORDER_TARGET = 'order';

/** The kind of a target and which one it is. */
export function readTarget(target: string): { readonly kind: string; readonly key: string } {
  const at = target.indexOf(' ');
  return at < 0 ? { kind: target, key: '' } : { kind: target.slice(0, at), key: target.slice(at + 1) };
}

/** The answer to an ask, as a field of its step. */
export const answerField = (ask: string): string => `answer.${ask}`;
